import fc from 'fast-check';
import type { Target } from '../ledger/explain/target.ts';
import { describe, expect, it } from 'vitest';
import { applyCommand } from '../editing/apply-command.ts';
import { CommandError } from '../editing/commands/commands.ts';
import { advance, applyEdit, createRun, seek, type Run } from '../ledger/run.ts';
import { whyNotNamed } from '../ledger/explain/why-not.ts';
import type { ActivityDocument, ProjectDocument, TransitionDocument } from '../model/documents.ts';
import { checkProject } from '../findings/check-project.ts';
import { gameProject } from '../testing/director.fixture.ts';
import { cornerProject, KEEN_SIGHT, programOf } from '../testing/orchard.fixture.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import { numbersThatMatter } from './numbers.ts';
import { tryChanges, type TryQuestion } from './try-change.ts';

/** A keeper that stands, six metres from a gleaner in its sight, and one way out of that. */
function watching(leave: TransitionDocument, range = 10): ProjectDocument {
  return cornerProject({
    sight: { ...KEEN_SIGHT, cones: [{ range, halfAngle: 45, gain: 2 }] },
    machine: {
      initial: 'stand',
      states: [{ id: 'stand', transitions: [leave] }, { id: 'roused' }],
    },
  });
}

function ranFor(document: ProjectDocument, ticks: number): Run {
  const run = createRun(programOf(document), 1, 7);
  for (let i = 0; i < ticks; i++) advance(run);
  return run;
}

const ROUSED: Target = { kind: 'state', state: 'roused' };

const asked = (tick: number, goal: Target = ROUSED): TryQuestion => ({
  agent: 'keeper',
  mind: 'keeper',
  goal,
  tick,
});

/** A keeper that does one activity, with the choice and the tree it may call. */
function doing(activity: ActivityDocument): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    machine: { initial: 'act', states: [{ id: 'act', activity }] },
  });
  document.minds.keeper.choices = {
    what: {
      options: [
        { id: 'stay', considerations: [{ input: '0.5' }], does: { do: 'wait', seconds: 1 } },
        {
          id: 'call',
          considerations: [
            { input: 'distance(attention.of)', from: 0, to: 15, curve: { shape: 'linear' } },
          ],
          does: { do: 'wait', seconds: 1 },
        },
      ],
    },
  };
  document.minds.keeper.trees = {
    watch: {
      root: {
        repeat: {
          selector: [
            { do: 'wait', seconds: 1, when: 'distance(attention.of) < 5' },
            { do: 'wait', seconds: 2 },
          ],
        },
      },
    },
  };
  return document;
}

function outcome(run: Run, document: ProjectDocument, question: TryQuestion) {
  const search = tryChanges(run, document, question);
  let steps = 0;
  for (;;) {
    const step = search.next();
    if (step.done) return { found: step.value, steps };
    steps++;
    expect(step.value.tried).toBeGreaterThan(0);
  }
}

/** Whether it is roused at the end, where the document is put in force at a tick, as an edit is. */
function isRoused(document: ProjectDocument, edited: ProjectDocument, from: number, tick: number) {
  const run = ranFor(document, from);
  const { program } = checkProject(edited);
  if (!program) return false;
  applyEdit(run, program, 2);
  while (run.world.tick < tick) advance(run);
  return whyNotNamed({ run, agent: 'keeper', tick }, 'roused').holds;
}

describe('the smallest change that would have had it in the state', () => {
  it('is the number of the guard, brought as near to what it was as will do', () => {
    const document = watching({ to: 'roused', when: 'distance(attention.of) < 5' });
    const { found } = outcome(ranFor(document, 300), document, asked(300));
    expect(found).toMatchObject({ before: 5 });
    if (found === null || found === 'already') throw new Error('Nothing was found.');
    // It stands six metres away.
    expect(found.after).toBeGreaterThan(6);
    expect(found.after).toBeLessThan(6.15);
    expect(found.words).toMatch(/^guard of transition 1 of stand/);
  });

  it('may be on the other side of zero, and is the roundest that will do', () => {
    const document = watching({ to: 'roused', when: 'courage < -0.5' });
    document.minds.keeper.memory = { courage: { type: 'number', default: 0.49 } };
    const { found } = outcome(ranFor(document, 120), document, asked(120));
    expect(found).toMatchObject({ before: -0.5, after: 0.5 });
    const none = watching({ to: 'roused', when: 'courage < 0' });
    none.minds.keeper.memory = { courage: { type: 'number', default: 3 } };
    expect(outcome(ranFor(none, 120), none, asked(120)).found).toMatchObject({ before: 0 });
    const minus = watching({ to: 'roused', when: 'courage-0.5 > 0' });
    minus.minds.keeper.memory = { courage: { type: 'number', default: -0.1 } };
    const changed = outcome(ranFor(minus, 120), minus, asked(120)).found;
    if (changed === null || changed === 'already') throw new Error('Nothing was found.');
    expect(isRoused(minus, applyCommand(minus, changed.command), changed.from, 120)).toBe(true);
  });

  it('is the range of its sight where nothing is noticed', () => {
    const document = watching({ to: 'roused', when: 'attention.strength > 0.5' }, 5);
    const { found } = outcome(ranFor(document, 300), document, asked(300));
    if (found === null || found === 'already') throw new Error('Nothing was found.');
    expect(found.words).toMatch(/^range/);
    expect(found.after).toBeGreaterThanOrEqual(5.7);
    expect(found.after).toBeLessThan(6.5);
  });

  it('is the time where all else holds', () => {
    const document = watching({ to: 'roused', after: 6 });
    const { found } = outcome(ranFor(document, 300), document, asked(300));
    expect(found).toMatchObject({ before: 6, words: expect.stringMatching(/^after/) });
    if (found === null || found === 'already') throw new Error('Nothing was found.');
    expect(found.after).toBeLessThanOrEqual(5);
    expect(found.after).toBeGreaterThan(4.7);
  });

  it('is one of the choice, where an option was not picked', () => {
    const document = doing({ choice: 'what' });
    const run = ranFor(document, 130);
    expect(whyNotNamed({ run, agent: 'keeper', tick: 130 }, 'what:call').holds).toBe(false);
    const { found } = outcome(
      run,
      document,
      asked(130, { kind: 'option', choice: 'what', option: 'call' }),
    );
    if (found === null || found === 'already') throw new Error('Nothing was found.');
    expect(found.words).toMatch(/of option/);
    const edited = applyCommand(document, found.command);
    const other = ranFor(document, found.from);
    applyEdit(other, programOf(edited), 2);
    while (other.world.tick < 130) advance(other);
    expect(whyNotNamed({ run: other, agent: 'keeper', tick: 130 }, 'what:call').holds).toBe(true);
    expect(
      outcome(run, document, asked(130, { kind: 'option', choice: 'what', option: 'stay' })).found,
    ).toBe('already');
  });

  it('is one of the tree, where a row was not done', () => {
    const document = doing({ tree: 'watch' });
    const run = ranFor(document, 130);
    expect(whyNotNamed({ run, agent: 'keeper', tick: 130 }, 'watch:3').holds).toBe(false);
    const { found } = outcome(run, document, asked(130, { kind: 'row', of: 'watch', row: 3 }));
    expect(found).toMatchObject({ before: 5, words: expect.stringContaining('distance') });
    if (found === null || found === 'already') throw new Error('Nothing was found.');
    expect(found.after).toBeGreaterThan(6);
    expect(found.after).toBeLessThan(6.15);
    expect(outcome(run, document, asked(130, { kind: 'row', of: 'watch', row: 4 })).found).toBe(
      'already',
    );
  });

  it('is none that only lets it go on for longer', () => {
    const document = doing({ tree: 'watch' });
    document.minds.keeper.trees!.watch.root = {
      sequence: [
        { do: 'wait', seconds: 1 },
        { do: 'wait', seconds: 20 },
      ],
    };
    const first: Target = { kind: 'row', of: 'watch', row: 2 };
    expect(outcome(ranFor(document, 80), document, asked(80, first)).found).toBeNull();
  });

  it('is looked for of who comes with a wave, too: with the senses of its kind', () => {
    const document = gameProject({ wave: {} });
    document.archetypes.beetle.sight = KEEN_SIGHT;
    const words = numbersThatMatter(document, 'beetles.1', 'beetle', {
      kind: 'state',
      state: 'comes',
    }).map((site) => site.words);
    expect(words).toContainEqual(expect.stringMatching(/^range of .*Beetle/));
  });

  it('is none where no number leads there', () => {
    const document = watching({ to: 'roused', when: 'self.crouched' });
    expect(outcome(ranFor(document, 120), document, asked(120)).found).toBeNull();
  });

  it('is none that is out of the bounds of its field', () => {
    // It sees no agent behind its back, and no cone reaches there.
    const document = watching({ to: 'roused', when: 'attention.strength > 0.5' });
    document.grounds[document.start.ground].agents.keeper.heading = 180;
    const { found } = outcome(ranFor(document, 120), document, asked(120));
    if (found !== null && found !== 'already') expect(found.after).toBeLessThanOrEqual(180);
  });

  it('is not looked for where the edit in force does already', () => {
    const document = watching({ to: 'roused', when: 'distance(attention.of) < 5' });
    const run = ranFor(document, 200);
    const edited = watching({ to: 'roused', when: 'distance(attention.of) < 7' });
    applyEdit(run, programOf(edited), 2);
    seek(run, 150);
    expect(outcome(run, edited, asked(150)).found).toBe('already');
  });

  it('leaves the run as it is', () => {
    const document = watching({ to: 'roused', when: 'distance(attention.of) < 5' });
    const run = ranFor(document, 200);
    const [hash, entries] = [worldHash(run.world), run.entries.length];
    outcome(run, document, asked(150));
    expect([worldHash(run.world), run.entries.length]).toEqual([hash, entries]);
  });

  it('truly changes the answer; where none is found, none of its kind does', () => {
    const leave = fc.oneof(
      fc.integer({ min: 2, max: 9 }).map((m) => ({ when: `distance(attention.of) < ${m}` })),
      fc.integer({ min: 1, max: 9 }).map((n) => ({ when: `attention.strength > ${n / 4}` })),
      fc.integer({ min: 1, max: 60 }).map((s) => ({ when: 'attention.strength > 0.5', for: s })),
      fc.integer({ min: 1, max: 60 }).map((after) => ({ after })),
    );
    fc.assert(
      fc.property(leave, fc.integer({ min: 3, max: 9 }), (way, range) => {
        const document = watching({ to: 'roused', ...way }, range);
        const run = ranFor(document, 120);
        const question = asked(120);
        if (whyNotNamed({ run, agent: 'keeper', tick: 120 }, 'roused').holds) return;
        const { found } = outcome(run, document, question);
        if (found === 'already') throw new Error('The edit in force is the one it ran under.');
        if (found) {
          const edited = applyCommand(document, found.command);
          expect(isRoused(document, edited, found.from, 120)).toBe(true);
          return;
        }
        for (const site of numbersThatMatter(document, 'keeper', 'keeper', {
          kind: 'state',
          state: 'roused',
        }))
          for (const factor of [0.2, 0.6, 1.2, 4]) {
            let edited: ProjectDocument;
            try {
              edited = applyCommand(document, site.put(site.value * factor));
            } catch (error) {
              if (error instanceof CommandError) continue;
              throw error;
            }
            expect(isRoused(document, edited, 0, 120), `${site.words} ×${factor}`).toBe(false);
          }
      }),
      { numRuns: 8 },
    );
  });
});
