import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../findings/check-project.ts';
import type { MindDocument, OptionDocument, ProjectDocument } from '../model/documents.ts';
import { cornerProject, programOf, watch } from '../testing/orchard.fixture.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import { tick } from '../world/phases/tick.ts';
import { createWorld, setRecorder } from '../world/world.ts';

/** The middle half of each second, as a guard. */
const HALF = 'time % 1 > 0.25 && time % 1 < 0.75';
const WAIT = { do: 'wait', seconds: 600 } as const;

function project(mind: Omit<MindDocument, 'title'>, heed?: number): ProjectDocument {
  const document = cornerProject({});
  document.minds.keeper = { title: 'Keeper', ...mind };
  if (heed !== undefined) document.archetypes.keeper.obedience = heed;
  return document;
}

/** A selector whose first row is a rule of conduct: to step aside. */
function tree(heed?: number): ProjectDocument {
  return project(
    {
      activity: { tree: 'main' },
      trees: {
        main: {
          root: {
            selector: [
              {
                when: HALF,
                holds: true,
                preempts: true,
                conduct: true,
                title: 'aside',
                do: 'wait',
                seconds: 600,
              },
              WAIT,
            ],
          },
        },
      },
    },
    heed,
  );
}

const option = (over: Partial<OptionDocument>): OptionDocument => ({
  id: 'aside',
  considerations: [{ input: '1' }],
  does: WAIT,
  ...over,
});

/** The same as a choice, with something else that is worth less. */
function choice(heed?: number, over: Partial<OptionDocument> = {}): ProjectDocument {
  return project(
    {
      activity: { choice: 'what' },
      choices: {
        what: {
          options: [
            option({ when: HALF, conduct: true, ...over }),
            option({ id: 'on', weight: 0.5 }),
          ],
        },
      },
    },
    heed,
  );
}

/** How often it stepped aside in each of these seconds. */
function timesAside(document: ProjectDocument, seconds: number, seed = 1): number[] {
  const { run, entries } = watch(document, seed);
  const times: number[] = [];
  for (let second = 0; second < seconds; second++) {
    const before = entries.length;
    run(60);
    times.push(
      entries.slice(before).filter((entry) => entry.kind === 'begin' && entry.row === 1).length,
    );
  }
  return times;
}

const FORMS = { 'row of a tree': tree, option: choice };

describe.each(Object.entries(FORMS))('a rule of conduct that is a %s', (_, form) => {
  it('is always heeded by who heeds, and never by who does not', () => {
    expect(timesAside(form(1), 10)).toEqual(Array(10).fill(1));
    expect(timesAside(form(0), 10)).toEqual(Array(10).fill(0));
    expect(timesAside(form(), 10)).toEqual(Array(10).fill(1));
  });

  it('is heeded as likely as the archetype says, drawn once for each occasion', () => {
    const times = timesAside(form(0.3), 600);
    expect(Math.max(...times)).toBe(1);
    const share = times.reduce((sum, each) => sum + each, 0) / times.length;
    // Three standard errors of 600 draws.
    expect(Math.abs(share - 0.3)).toBeLessThan(3 * Math.sqrt((0.3 * 0.7) / 600));
  });

  it('is settled alike for who looks on and who does not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1000 }), (seed) => {
        const program = programOf(form(0.5));
        const [watched, alone] = [createWorld(program, seed), createWorld(program, seed)];
        setRecorder(watched, () => {});
        for (let i = 0; i < 200; i++) {
          tick(watched);
          tick(alone);
        }
        expect(worldHash(watched)).toBe(worldHash(alone));
      }),
      { numRuns: 30 },
    );
  });
});

describe('a rule of conduct among rules', () => {
  it('fires only where it is heeded', () => {
    const shouts = (heed: number) => {
      const document = project(
        {
          activity: { rules: 'main' },
          rules: {
            main: {
              rows: [{ when: HALF, edge: true, conduct: true, do: [{ do: 'say', text: 'Mind!' }] }],
            },
          },
        },
        heed,
      );
      const { run, entries } = watch(document);
      run(600);
      return entries.filter(({ kind }) => kind === 'say').length;
    };
    expect([shouts(1), shouts(0)]).toEqual([10, 0]);
  });
});

describe('an option that is one', () => {
  it('leaves the luck of lower ranks alone', () => {
    // A higher rank always competes, so whether the rule would have been heeded stays unknown.
    const document = choice(0.5, { rank: -1 });
    const { run, entries, world } = watch(document);
    run(300);
    expect(entries.some((entry) => entry.kind === 'picked' && entry.option === 'aside')).toBe(
      false,
    );
    const plain = choice(0.5, { rank: -1 });
    delete plain.minds.keeper.choices!.what.options[0].conduct;
    const other = watch(plain);
    other.run(300);
    expect([...world.agents[0].stream]).toEqual([...other.world.agents[0].stream]);
  });

  it('needs a guard, as a row does', () => {
    const messages = (document: ProjectDocument) =>
      checkProject(document).findings.map(({ path, message }) => `${path}: ${message}`);
    const bare = choice(0.5);
    delete bare.minds.keeper.choices!.what.options[0].when;
    const why =
      'A rule of conduct is obeyed or not when its guard begins to hold, and this one has no guard. Add a guard.';
    expect(messages(bare)).toContain(`minds.keeper.choices.what.options[0].conduct: ${why}`);
    const row = tree(0.5);
    row.minds.keeper.trees!.main.root = { conduct: true, ...WAIT };
    expect(messages(row)).toContain(`minds.keeper.trees.main.root.conduct: ${why}`);
  });
});
