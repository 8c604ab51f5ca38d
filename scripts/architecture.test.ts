import { spawnSync } from 'node:child_process';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = path.resolve(import.meta.dirname, '..');
const CORE = path.join(ROOT, 'packages/core/src');

function sources(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !/\.(test|fixture)\.tsx?$/.test(file))
    .map((file) => path.join(folder, file));
}

/** All modules `entry` pulls in when it runs (types fall away), and the packages among them. */
function closure(
  entry: string,
  files = new Set<string>(),
  packages = new Set<string>(),
): { files: Set<string>; packages: Set<string> } {
  if (files.has(entry)) return { files, packages };
  files.add(entry);
  const text = readFileSync(entry, 'utf8');
  for (const [, clause, target] of text.matchAll(/^(?:import|export)\s([^;]*?)from '([^']+)'/gm)) {
    const names = clause
      .replace(/[{}*]/g, '')
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean);
    if (
      clause.startsWith('type ') ||
      (names.length > 0 && names.every((name) => name.startsWith('type ')))
    )
      continue;
    if (target.startsWith('.')) closure(path.resolve(path.dirname(entry), target), files, packages);
    else packages.add(target);
  }
  return { files, packages };
}

describe('what a game ships', () => {
  it('has no dependency: neither a package nor the parser nor the schemas', () => {
    const { files, packages } = closure(path.join(CORE, 'runtime.ts'));
    expect([...packages]).toEqual([]);
    const folders = new Set([...files].map((file) => path.relative(CORE, file).split(path.sep)[0]));
    expect(folders).not.toContain('compile');
    expect(folders).not.toContain('findings');
    expect(folders).not.toContain('model');
    expect(files.size).toBeGreaterThan(20);
  });

  it('is told from what it is not: the whole core does depend on them', () => {
    expect([...closure(path.join(CORE, 'index.ts')).packages].sort()).toEqual([
      'acorn',
      'fflate',
      'jsonc-parser',
      'yup',
    ]);
  });
});

describe('determinism', () => {
  it('uses no function of the engine whose last bit is its own affair, and no unseeded chance', () => {
    const banned =
      /Math\.(random|sin|cos|tan|asin|acos|atan|atan2|exp|expm1|log|log2|log10|log1p|pow|hypot|cbrt|sinh|cosh|tanh)\b|\*\*|localeCompare|toLocale|Intl\./;
    const found = sources(CORE).flatMap((file) =>
      readFileSync(file, 'utf8')
        .split('\n')
        .flatMap((line, i) =>
          banned.test(line.replace(/\/\*\*?|\*\/|^\s*\*.*/g, ''))
            ? [`${path.relative(ROOT, file)}:${i + 1} ${line.trim()}`]
            : [],
        ),
    );
    expect(found).toEqual([]);
  });
});

/** For each folder, what its parts import of each other (types too): pairs of parts, the folder's own files as `.`. */
function edgesWithin(root: string): Map<string, [string, string][]> {
  const edges = new Map<string, [string, string][]>();
  const partsOf = (file: string) => path.relative(root, path.dirname(file)).split(path.sep);
  for (const file of sources(root)) {
    for (const [, target] of readFileSync(file, 'utf8').matchAll(/ from '(\.[^']+)'/g)) {
      const [from, to] = [partsOf(file), partsOf(path.resolve(path.dirname(file), target))];
      const depth = from.findIndex((part, i) => part !== to[i]);
      const shared = depth < 0 ? Math.min(from.length, to.length) : depth;
      const [a, b] = [from[shared] || '.', to[shared] || '.'];
      if (a === b) continue;
      const folder = from.slice(0, shared).join('/');
      edges.set(folder, [...(edges.get(folder) ?? []), [a, b]]);
    }
  }
  return edges;
}

/** The parts that come to depend on themselves. */
function rings(edges: readonly [string, string][]): string[] {
  const reached = (from: string, seen = new Set<string>()): Set<string> => {
    for (const [a, b] of edges) {
      if (a !== from || seen.has(b)) continue;
      seen.add(b);
      reached(b, seen);
    }
    return seen;
  };
  return [...new Set(edges.map(([a]) => a))].filter((part) => reached(part).has(part)).sort();
}

describe('folders', () => {
  it('of the core make no ring at any depth, their own files and types included', () => {
    const found = [...edgesWithin(CORE)].map(([folder, edges]) => [folder, rings(edges)]);
    expect(found.filter(([, parts]) => parts.length > 0)).toEqual([]);
    expect(found.length).toBeGreaterThan(4);
  });

  it('of the pages make none', () => {
    const edges = edgesWithin(path.join(ROOT, 'packages/web/src')).get('')!;
    expect(rings(edges.filter((edge) => !edge.includes('.')))).toEqual([]);
    expect(edges.length).toBeGreaterThan(50);
  });

  it('that make a ring are found', () => {
    expect(
      rings([
        ['a', 'b'],
        ['b', 'c'],
        ['c', 'a'],
        ['d', 'a'],
      ]),
    ).toEqual(['a', 'b', 'c']);
  });
});

describe('the direction of dependencies', () => {
  it.each([
    [
      'packages/core/src/numeric/planted.ts',
      "import { tick } from '../world/phases/tick.ts';\nexport const planted = tick;\n",
    ],
    [
      'packages/core/src/model/planted.ts',
      "import { checkExpression } from '../expression/check.ts';\nexport const planted = checkExpression;\n",
    ],
    [
      'packages/core/src/terms/planted.ts',
      "import type { Builtin } from '../expression/builtins.ts';\nexport type Planted = Builtin;\n",
    ],
    [
      'packages/core/src/ground/planted.ts',
      "import type { Host } from '../mind/host.ts';\nexport type Planted = Host;\n",
    ],
    [
      'packages/core/src/group/planted.ts',
      "import { startWorld } from '../compile/context.ts';\nexport const planted = startWorld;\n",
    ],
    [
      'packages/core/src/mind/planted.ts',
      "import { tick } from '../world/phases/tick.ts';\nexport const planted = tick;\n",
    ],
    [
      'packages/core/src/mind/actions/planted.ts',
      "import { tick } from '../../world/phases/tick.ts';\nexport const planted = tick;\n",
    ],
    [
      'packages/core/src/world/planted.ts',
      "import { createRun } from '../ledger/run.ts';\nexport const planted = createRun;\n",
    ],
    [
      'packages/core/src/ledger/planted.ts',
      "import { compileProject } from '../compile/compile-project.ts';\nexport const planted = compileProject;\n",
    ],
    [
      'packages/core/src/senses/planted.ts',
      "import { readFileSync } from 'node:fs';\nexport const planted = readFileSync;\n",
    ],
    ['packages/core/src/motion/planted.ts', 'export const planted = () => performance.now();\n'],
    [
      'packages/web/src/planted.ts',
      "import { tick } from '@crooked-lantern/core/src/world/world.ts';\nexport const planted = tick;\n",
    ],
    [
      'packages/web/src/planted.ts',
      'export function planted(): void {\n  void fetch("/");\n}\n',
      /no-floating-promises/,
    ],
  ])(
    'a violation planted in %s is caught',
    (file, text, message = /no-restricted-(imports|globals)/) => {
      // In a folder of its own: what is built and tested beside this must not meet the violation.
      const folder = mkdtempSync(path.join(tmpdir(), 'planted-'));
      const planted = path.join(folder, file);
      mkdirSync(path.dirname(planted), { recursive: true });
      writeFileSync(planted, text);
      copyFileSync(path.join(ROOT, '.oxlintrc.json'), path.join(folder, '.oxlintrc.json'));
      symlinkSync(path.join(ROOT, 'node_modules'), path.join(folder, 'node_modules'));
      try {
        const { status, stdout } = spawnSync(
          path.join(ROOT, 'node_modules/.bin/oxlint'),
          ['--deny-warnings', 'packages'],
          { cwd: folder, encoding: 'utf8' },
        );
        expect(stdout).toMatch(message);
        expect(status).not.toBe(0);
      } finally {
        rmSync(folder, { recursive: true });
      }
    },
  );
});
