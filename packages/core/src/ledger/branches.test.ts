import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../testing/orchard.fixture.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import type { Input } from '../world/program/program.ts';
import {
  beginBranch,
  createBranches,
  goToBranch,
  keepBeside,
  letGo,
  nameBranch,
  partHere,
  pastOfBranch,
  UNNAMED_KEPT,
} from './branches.ts';
import { entryLine } from './lines.ts';
import { advance, applyEdit, createRun, goesAsRecorded, pastOf, runOf, seek } from './run.ts';

const document = (within = 1) =>
  cornerProject({
    sight: KEEN_SIGHT,
    machine: {
      initial: 'calm',
      states: [
        { id: 'calm', transitions: [{ to: 'roused', when: 'attention.strength > 0.5' }] },
        { id: 'roused', activity: { do: 'moveTo', to: 'attention.of', within } },
      ],
    },
  });

const steer = (x: number, y: number): Input => ({ agent: 'gleaner', x, y, gait: null });

const begun = () => createRun(programOf(document()), 1, 7);

describe('branches', () => {
  it('keep every past, whichever way the run takes and between whichever it goes', () => {
    const turn = fc.record({
      back: fc.integer({ min: 0, max: 60 }),
      on: fc.integer({ min: 1, max: 80 }),
      x: fc.integer({ min: -1, max: 1 }),
      edits: fc.boolean(),
      goTo: fc.option(fc.nat({ max: 5 }), { nil: null }),
    });
    fc.assert(
      fc.property(fc.array(turn, { minLength: 1, maxLength: 6 }), (turns) => {
        const branches = createBranches(begun());
        for (let i = 0; i < 90; i++) advance(branches.run);
        /** What each branch was when it was left: its lines and its last hash. */
        const left = new Map<number, { lines: string[]; hash: string; head: number }>();
        const note = () => {
          const { run, current } = branches;
          const { tick } = run.world;
          seek(run, run.head);
          const { entries, head } = run;
          left.set(current.id, { lines: entries.map(entryLine), hash: worldHash(run.world), head });
          seek(run, tick);
        };
        turns.forEach(({ back, on, x, edits, goTo }, i) => {
          note();
          const ids = branches.kept.map(({ id }) => id);
          if (goTo !== null && ids.length > 0) goToBranch(branches, ids[goTo % ids.length]);
          const { run } = branches;
          seek(run, run.head - back);
          if (edits) applyEdit(run, programOf(document(1 + i)), 2 + i);
          note();
          if (run.world.tick < run.head) partHere(branches, 'input');
          for (let n = 0; n < on; n++) advance(run, n === 0 ? [steer(x, 1)] : []);
        });
        for (const { id } of branches.kept) {
          const was = left.get(id)!;
          const past = pastOfBranch(branches, id)!;
          expect(past.entries.map(entryLine)).toEqual(was.lines);
          const again = runOf(past);
          expect([again.world.tick, worldHash(again.world)]).toEqual([was.head, was.hash]);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('say from which they parted, where and why', () => {
    const branches = createBranches(begun());
    for (let i = 0; i < 100; i++) advance(branches.run);
    seek(branches.run, 40);
    partHere(branches, 'edit');
    expect(branches.current).toEqual({
      id: 2,
      name: null,
      parted: { from: 1, tick: 40, by: 'edit' },
    });
    beginBranch(branches, begun(), 'restart');
    expect(branches.current.parted).toEqual({ from: 2, tick: 0, by: 'restart' });
    // One that has not begun to run is no past to be kept.
    beginBranch(branches, begun(), 'restart');
    expect(branches.current.id).toBe(3);
    expect(branches.kept.map(({ id }) => id)).toEqual([1, 2]);
  });

  it('without a name go when there are many, the oldest first; those with one stay', () => {
    const branches = createBranches(begun());
    nameBranch(branches, 1, 'the good one');
    for (let i = 0; i < UNNAMED_KEPT + 3; i++) {
      advance(branches.run);
      beginBranch(branches, begun(), 'restart');
    }
    expect(branches.kept.map(({ id }) => id)).toEqual([1, 4, 5, 6, 7, 8, 9]);
    letGo(branches, 1);
    expect(pastOfBranch(branches, 1)).toBeNull();
    expect(goToBranch(branches, 1)).toBe(false);
  });

  it('go earlier where they take too much room; the latest stays', () => {
    const branches = createBranches(begun());
    for (let i = 0; i < 3; i++) {
      advance(branches.run);
      advance(branches.run);
      seek(branches.run, branches.run.head - 1);
      partHere(branches, 'input', 1);
      advance(branches.run, [steer(1, 0)]);
    }
    expect(branches.kept.map(({ id }) => id)).toEqual([3]);
  });

  it('go on under the edit that is in force when they are gone on with', () => {
    const branches = createBranches(begun());
    for (let i = 0; i < 60; i++) advance(branches.run);
    beginBranch(branches, begun(), 'restart');
    advance(branches.run);
    applyEdit(branches.run, programOf(document(3)), 9);
    goToBranch(branches, 1);
    seek(branches.run, 60);
    advance(branches.run);
    expect(branches.run.edits.at(-1)).toMatchObject({ afterTick: 60, edit: 9 });
  });

  it('can be run beside the one that goes on', () => {
    const branches = createBranches(begun());
    advance(branches.run);
    const other = createRun(programOf(document()), 1, 8);
    for (let i = 0; i < 10; i++) advance(other);
    const id = keepBeside(branches, other, { tick: 0, by: 'seed' }, 'seed 8');
    expect(pastOfBranch(branches, id)?.seed).toBe(8);
    expect(branches.current.id).toBe(1);
  });
});

it('a recorded future is only made again while no edit lies between', () => {
  const run = begun();
  for (let i = 0; i < 60; i++) advance(run);
  expect(goesAsRecorded(run)).toBe(false);
  seek(run, 30);
  expect(goesAsRecorded(run)).toBe(true);
  applyEdit(run, programOf(document(2)), 2);
  expect(goesAsRecorded(run)).toBe(false);
  seek(run, 60);
  advance(run);
  for (let i = 0; i < 20; i++) advance(run);
  seek(run, 30);
  expect(goesAsRecorded(run)).toBe(false);
  seek(run, 70);
  expect(goesAsRecorded(run)).toBe(true);
});

it('a past is left alone by what its run does after', () => {
  const run = begun();
  for (let i = 0; i < 60; i++) advance(run);
  const past = pastOf(run);
  const { length } = past.entries;
  for (let i = 0; i < 120; i++) advance(run, [steer(1, 1)]);
  expect([past.entries.length, past.head]).toEqual([length, 60]);
});
