import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import { clipText, readClip } from '../../editing/minds/clip.ts';
import { expectPinned, linesOf } from '../../testing/pinned.fixture.ts';
import type { ProjectDocument } from '../documents.ts';
import { migrated } from './migrate.ts';
import { readProject, readProjectText } from './read-project.ts';
import { serialiseProject } from './serialise.ts';

/** The demos as version 1 had them. */
const OLD = path.resolve(import.meta.dirname, '../../testing/version-1');
const demos = readdirSync(OLD);
const textOf = (file: string) => readFileSync(path.join(OLD, file), 'utf8');

function read(text: string): ProjectDocument {
  const result = readProjectText(text);
  if (!result.ok)
    throw new Error(result.faults.map(({ path: at, message }) => `${at} ${message}`).join('\n'));
  return result.document;
}

describe('a file of version 1', () => {
  it.each(demos)('%s opens without an error, and says what it was', (file) => {
    const old = readProjectText(textOf(file));
    expect(old).toMatchObject({ ok: true, version: 1, document: { version: 2 } });
    expect(checkProject(read(textOf(file))).program).not.toBeNull();
  });

  it.each(demos)('%s runs as it always did', (file) => {
    const { program } = checkProject(read(textOf(file)));
    expectPinned(`version-1#${file}`, [linesOf(program!, 3, 600)]);
  });

  it('is saved as version 2, which reads back as the same', () => {
    for (const file of demos) {
      const document = read(textOf(file));
      const saved = serialiseProject(document);
      expect(saved).toContain('"version": 2');
      expect(readProjectText(saved)).toEqual({ ok: true, document, version: 2 });
    }
  });

  it('with faults says where they are by the names of today', () => {
    const old: unknown = JSON.parse(
      textOf('night-watch.lantern.json').replace(
        '"when": "attention.strength',
        '"when": 7, "x-was": "',
      ),
    );
    const result = readProject(old);
    expect(result.ok ? [] : result.faults.map(({ path: at }) => at)).toEqual([
      'minds.hound.machine.states[0].transitions[1].when',
    ]);
  });

  it('that has both an old name and a new one is refused for the old version’s sake, and never throws', () => {
    fc.assert(
      fc.property(fc.object({ maxDepth: 4 }), (object) => {
        const value = { ...object, version: 1 };
        expect(() => migrated(value)).not.toThrow();
        expect(migrated(value)).toMatchObject({ version: 2 });
      }),
    );
  });
});

describe('what is renamed', () => {
  const of = (document: object) => migrated({ version: 1, ...document });

  it('is a field of its part alone: names that people gave, and fields of other tools, stay', () => {
    const given = {
      minds: {
        leaves: {
          title: 'x',
          memory: { least: { type: 'number', least: 1, 'x-other': { least: 1 } } },
          trees: {
            harm: {
              parameters: { p: 'number', rest: 'number' },
              root: { tree: 'harm', with: { p: 1, rest: 2 } },
            },
          },
        },
      },
    };
    expect(of(given)).toEqual({
      version: 2,
      minds: {
        leaves: {
          title: 'x',
          memory: { least: { type: 'number', min: 1, 'x-other': { least: 1 } } },
          trees: given.minds.leaves.trees,
        },
      },
    });
  });

  it('is renamed in the paths of tiers as well', () => {
    const given = {
      minds: {
        warden: {
          machine: { initial: 'a', states: [{ id: 'a', leaves: [{ to: 'a', for: 1 }] }] },
          trees: { t: { root: { chance: { do: 'keepDistance', least: 1, most: 2 }, p: 0.5 } } },
          choices: { c: { least: 1, options: [{ id: 'o', rest: 3 }] } },
        },
      },
      archetypes: { keeper: { moves: { jab: { harm: 3 } } } },
    };
    const paths = [
      'minds.warden.machine.states[0].leaves[0].for',
      'minds.warden.trees.t.root.p',
      'minds.warden.trees.t.root.chance.least',
      'minds.warden.choices.c.least',
      'minds.warden.choices.c.options[0].rest',
      'archetypes.keeper.moves.jab.harm',
      'archetypes.keeper.reaction',
      'no path at all',
    ];
    const { tiers } = of({
      ...given,
      tiers: [{ name: 'hard', changes: paths.map((each) => ({ path: each, factor: 2 })) }],
    }) as { tiers: { changes: { path: string }[] }[] };
    expect(tiers[0].changes.map((change) => change.path)).toEqual([
      'minds.warden.machine.states[0].transitions[0].for',
      'minds.warden.trees.t.root.probability',
      'minds.warden.trees.t.root.chance.min',
      'minds.warden.choices.c.minDuration',
      'minds.warden.choices.c.options[0].cooldown',
      'archetypes.keeper.moves.jab.damage',
      'archetypes.keeper.reaction',
      'no path at all',
    ]);
  });

  it('is the word for a random spawn place', () => {
    const wave = { archetype: 'a', count: 1, most: 2, order: 'luck' };
    expect(of({ grounds: { g: { waves: { w: wave } } } })).toEqual({
      version: 2,
      grounds: { g: { waves: { w: { archetype: 'a', count: 1, maxAlive: 2, order: 'random' } } } },
    });
  });
});

describe('parameters of actions', () => {
  it('are renamed in the actions that have them, and in no others', () => {
    const entry = (first: string, second: string) => [
      { do: 'surround', [first]: 'quarry' },
      { do: 'wake', [first]: 'quarry' },
      { do: 'sendAway', [second]: 'beetles' },
      { do: 'say', whom: 'stays' },
    ];
    const within = (actions: object[]) => ({
      minds: { m: { machine: { states: [{ id: 's', entry: actions }] } } },
    });
    expect(migrated({ version: 1, ...within(entry('whom', 'whom')) })).toEqual({
      version: 2,
      ...within(entry('target', 'group')),
    });
  });
});

it('the first files of version 2 have today’s name for the limits of observations', () => {
  expect(migrated({ version: 2, title: 'Old', runFindings: { ties: 5 } })).toEqual({
    version: 2,
    title: 'Old',
    observationLimits: { ties: 5 },
  });
});

describe('a part that was copied by version 1', () => {
  it('is pasted as it is today', () => {
    const document = read(textOf('night-watch.lantern.json'));
    const { states } = document.minds.warden.machine!;
    const text = clipText(document, 'warden', { states: [states[0]] });
    const old = text
      .replaceAll('"transitions"', '"leaves"')
      .replaceAll('"capacity"', '"most"')
      .replace('"version": 2', '"version": 1');
    expect(old).toContain('"leaves"');
    expect(readClip(old)).toEqual(readClip(text));
  });
});
