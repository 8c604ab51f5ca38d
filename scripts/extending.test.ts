import { execFile } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

/**
 * Holds `docs/extending.md` to what it promises: one made-up addition of each kind is made to a copy of the
 * sources, first only in its table, where the compiler has to name every file that is still missing it, and
 * then as a whole, which has to compile and to work.
 */

const ROOT = path.resolve(import.meta.dirname, '..');

/** By file, from `packages`: what is inserted before a text that occurs once, or the whole of a new file. */
type Addition = Readonly<Record<string, readonly [before: string, added: string] | string>>;

interface MadeUp {
  /** The row in its table. */
  row: Addition;
  /** What the compiler must ask for once the row is there. */
  rest: Addition;
  /** What the compiler can't ask for: nothing names it yet. */
  more?: Addition;
  atMost: number;
}

const source = (file: string) => readFileSync(path.join(ROOT, 'packages', file), 'utf8');

const MADE_UP: Record<string, MadeUp> = {
  action: {
    atMost: 4,
    row: {
      'core/src/model/actions/actions.ts': [
        '  face: {\n',
        `  hum: {
    title: 'Hum',
    channel: 'voice',
    lasts: false,
    about: 'Hums a tune.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'hum', tune: 'low' },
    parameters: { tune: { kind: 'word', required: true, about: 'which tune' } },
  },
`,
      ],
    },
    rest: { 'core/src/mind/actions/index.ts': ['  moveTo,\n  followRoute,\n', '  hum,\n'] },
    more: {
      'core/src/mind/actions/hum.ts': `import { atOnce, textArgument, type ActionMaker } from './action.ts';
export const hum: ActionMaker = (program) => {
  const tune = textArgument(program, 'tune');
  return atOnce((host) => host.say(tune));
};
`,
    },
  },
  node: {
    atMost: 4,
    row: {
      'core/src/model/documents/node-kinds.ts': [
        '  chance: {\n',
        `  linger: {
    title: 'Linger',
    about: 'Starts its child later.',
    succeeds: 'with its child',
    fails: 'with its child',
    example: { linger: { do: 'stop' }, seconds: 1 },
    fields: { linger: child, seconds: seconds(1, 'how long it waits') },
  },
`,
      ],
    },
    rest: {
      'core/src/mind/nodes/index.ts': ['  timeout,\n  delay,\n', '  linger,\n'],
    },
    more: {
      'core/src/mind/program.ts': [
        "  | { kind: 'timeout'; seconds",
        "  | { kind: 'linger'; seconds: NumberProgram; child: NodeProgram }\n",
      ],
      'core/src/mind/nodes/linger.ts': source('core/src/mind/nodes/delay.ts')
        .replaceAll('delay', 'linger')
        .replaceAll('Delay', 'Linger'),
    },
  },
  curve: {
    atMost: 3,
    row: {
      'core/src/model/documents/choice.ts': [
        '  step: shape(\n',
        "  stairs: shape('stairs', 'floor(x * steps) / steps', { steps: needed(number('Steps', '', [1, 20], 'how many')) }, { steps: 3 }),\n",
      ],
    },
    rest: {
      'core/src/mind/weigh/curves.ts': [
        "    case 'step': {\n",
        `    case 'stairs':
      return (cells, at) => {
        cells[at] = unit(Math.floor(cells[at] * curve.steps) / curve.steps);
      };
`,
      ],
      'web/src/weigh/curve/curve-path.ts': [
        "    case 'step':\n      return [",
        "    case 'stairs':\n      return [];\n",
      ],
    },
  },
  sense: {
    atMost: 5,
    row: {
      'core/src/terms/senses.ts': [
        "  told: { title: 'Told'",
        "  smell: { title: 'Smell', tint: 'found', nothing: 'smells nothing', raises: ['trail'] },\n",
      ],
    },
    rest: {},
    more: {
      'core/src/expression/sense-builtins.ts': [
        "  place('told', TOLD,",
        "  place('smelled', SENSES.indexOf('smell'), 'where the last smell came from'),\n",
      ],
    },
  },
  ground: {
    // Two rows, and one file of its folder.
    atMost: 3,
    row: {
      'core/src/terms/views.ts': [
        "  above: {\n    title: 'Seen from above'",
        "  corridor: { title: 'Along a corridor', parts: ['gates', 'routes', 'agents'] },\n",
      ],
    },
    rest: {
      'core/src/ground/kinds/kinds.ts': ['above: FROM_ABOVE }', 'corridor: CORRIDOR, '],
    },
    more: {
      'core/src/ground/corridor/corridor.ts': source(
        'core/src/testing/corridor.fixture.ts',
      ).replaceAll("'../", "'../../"),
    },
  },
  page: {
    atMost: 2,
    row: {
      'web/src/app/places.tsx': [
        "  MINDS,\n  {\n    path: 'weigh'",
        `  {
    path: 'lately',
    title: 'Lately',
    details: '',
    Page: latePage(async () => (await import('../lately/page.tsx')).LatelyPage),
  },
`,
      ],
    },
    rest: {},
    more: {
      'web/src/lately/page.tsx': `import type { ReactElement } from 'react';
export function LatelyPage({ header }: { header: ReactElement }) {
  return header;
}
`,
    },
  },
};

/** Imports that the additions need; they stand in files that are counted above. */
const IMPORTS: Addition = {
  'core/src/ground/kinds/kinds.ts': [
    "import { FROM_ABOVE } from '../from-above/from-above.ts';\n",
    "import { CORRIDOR } from '../corridor/corridor.ts';\n",
  ],
  'core/src/mind/actions/index.ts': [
    "import { turn } from './turn.ts';\n",
    "import { hum } from './hum.ts';\n",
  ],
  'core/src/mind/nodes/index.ts': [
    "import { limit } from './limit.ts';\n",
    "import { linger } from './linger.ts';\n",
  ],
};

let copy = '';

function add(addition: Addition): void {
  for (const [file, what] of Object.entries(addition)) {
    const at = path.join(copy, 'packages', file);
    if (typeof what === 'string') {
      mkdirSync(path.dirname(at), { recursive: true });
      writeFileSync(at, what);
      continue;
    }
    const [before, added] = what;
    const text = readFileSync(at, 'utf8');
    if (text.split(before).length !== 2) throw new Error(`${file} does not hold once: ${before}`);
    writeFileSync(
      at,
      text.replace(before, () => added + before),
    );
  }
}

/** The files that the compiler finds something missing in. */
async function compile(): Promise<string[]> {
  const tsc = path.join(ROOT, 'node_modules/.bin/tsc');
  const said = await new Promise<string>((resolve) => {
    execFile(tsc, ['-b', 'packages/web', '--pretty', 'false'], { cwd: copy }, (_, out) =>
      resolve(out),
    );
  });
  const files = [...said.matchAll(/^packages\/([^(\n]+)\(\d+,\d+\): error/gm)].map(
    ([, file]) => file,
  );
  return [...new Set(files)].sort();
}

beforeAll(() => {
  mkdirSync(path.join(ROOT, '.lantern'), { recursive: true });
  copy = mkdtempSync(path.join(ROOT, '.lantern/extending-'));
  cpSync(path.join(ROOT, 'tsconfig.base.json'), path.join(copy, 'tsconfig.base.json'));
  for (const name of ['core', 'web']) {
    for (const part of ['src', 'tsconfig.json', 'package.json'])
      cpSync(path.join(ROOT, 'packages', name, part), path.join(copy, 'packages', name, part), {
        recursive: true,
      });
  }
  const own = path.join(ROOT, 'packages/web/node_modules');
  if (existsSync(own)) symlinkSync(own, path.join(copy, 'packages/web/node_modules'));
  mkdirSync(path.join(copy, 'node_modules/@crooked-lantern'), { recursive: true });
  symlinkSync(
    path.join(copy, 'packages/core'),
    path.join(copy, 'node_modules/@crooked-lantern/core'),
  );
});

afterAll(() => rmSync(copy, { recursive: true, force: true }));

describe('an addition', () => {
  it.each(Object.keys(MADE_UP))(
    'of a made-up %s takes as many files as the docs promise',
    (kind) => {
      const { row, rest, more = {}, atMost } = MADE_UP[kind];
      const files = new Set([row, rest, more].flatMap((part) => Object.keys(part)));
      expect(files.size).toBeLessThanOrEqual(atMost);
    },
  );

  it('that stands only in its table does not compile, and each file that misses it is named', async () => {
    for (const { row } of Object.values(MADE_UP)) add(row);
    const expected = Object.values(MADE_UP).flatMap(({ rest }) => Object.keys(rest));
    expect(await compile()).toEqual([...expected, 'web/src/app/places.tsx'].sort());
  });

  it('that is whole compiles, and what an editor puts in first is valid and runs', async () => {
    for (const { rest, more = {} } of Object.values(MADE_UP)) {
      add(rest);
      add(more);
    }
    add(IMPORTS);
    expect(await compile()).toEqual([]);
    const core = (await import(
      path.join(copy, 'packages/core/dist/index.js')
    )) as typeof import('@crooked-lantern/core');
    const { checkProject, exampleProject, freshAction, freshCurve, freshNode, readProject } = core;
    const inserted = [
      freshAction(exampleProject({ do: 'stop' }), 'example', 'hum' as 'say'),
      freshNode('linger' as 'delay', [{ do: 'stop' }]),
      { when: 'known(smelled.place)', do: 'stop' },
      core.EXAMPLES['hum' as 'say'],
      core.EXAMPLES['linger' as 'delay'],
    ];
    for (const node of inserted) {
      const document = exampleProject(node as Parameters<typeof exampleProject>[0]);
      expect(readProject(document)).toMatchObject({ ok: true });
      expect(
        checkProject(document).findings.filter(({ severity }) => severity === 'error'),
      ).toEqual([]);
    }
    const document = exampleProject({ do: 'stop' });
    document.minds[Object.keys(document.minds)[0]].choices = {
      one: {
        options: [
          { id: 'a', considerations: [{ input: '1', curve: freshCurve('stairs' as 'step') }] },
        ],
      },
    };
    expect(readProject(document)).toMatchObject({ ok: true });
  });

  it('of a made-up ground is a view that a document can have, where an action may make no sense', async () => {
    const core = (await import(
      path.join(copy, 'packages/core/dist/index.js')
    )) as typeof import('@crooked-lantern/core');
    const { ACTIONS, checkProject, createWorld, exampleProject, readProject, tick } = core;
    const document = exampleProject({ do: 'stop' });
    document.grounds[document.start.ground].view = 'corridor' as 'above';
    expect(readProject(document)).toMatchObject({ ok: true });
    const { program } = checkProject(document);
    const world = createWorld(program!, 1);
    const before = world.agents.map(({ y }) => y);
    for (let i = 0; i < 60; i++) tick(world);
    expect(world.agents.map(({ y }) => y)).toEqual(before);
    Object.assign(ACTIONS.stop, { views: ['above'] });
    expect(checkProject(document).findings).toContainEqual(
      expect.objectContaining({
        message: expect.stringContaining('makes no sense on a ground along a corridor') as string,
      }),
    );
  });
});
