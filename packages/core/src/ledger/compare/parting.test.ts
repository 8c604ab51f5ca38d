import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import type { Input } from '../../world/program/program.ts';
import { advance, applyEdit, createRun, type Run } from '../run.ts';
import {
  findParting,
  firstUnlikeDecision,
  givenApart,
  type Parting,
  type TwoRuns,
} from './parting.ts';
import { runFigures } from './run-figures.ts';

const document = (threshold = 0.5) =>
  cornerProject({
    sight: KEEN_SIGHT,
    machine: {
      initial: 'calm',
      states: [
        { id: 'calm', transitions: [{ to: 'roused', when: `attention.strength > ${threshold}` }] },
        {
          id: 'roused',
          activity: { do: 'moveTo', to: 'attention.of', within: 1 },
          transitions: [{ to: 'calm', when: `attention.strength < ${threshold}`, for: 0.5 }],
        },
      ],
    },
  });

const steer = (x: number, y: number): Input => ({ agent: 'gleaner', x, y, gait: null });

function ran(
  ticks: number,
  inputs: Record<number, Input> = {},
  { threshold = 0.5, seed = 7 } = {},
): Run {
  const run = createRun(programOf(document(threshold)), 1, seed);
  for (let i = 1; i <= ticks; i++) advance(run, inputs[i] ? [inputs[i]] : []);
  return run;
}

function parting(...runs: TwoRuns): Parting | null {
  const looking = findParting(runs);
  for (;;) {
    const { value, done } = looking.next();
    if (done) return value;
  }
}

describe('where two runs part', () => {
  it('is nowhere where both were given the same', () => {
    const [one, other] = [ran(400, { 30: steer(0, 1) }), ran(300, { 30: steer(0, 1) })];
    expect(parting(one, other)).toBeNull();
    expect(firstUnlikeDecision([one, other])).toBeNull();
    expect(givenApart([one, other], 300)).toEqual({
      inputs: null,
      edits: null,
      seeds: null,
      beginnings: false,
    });
  });

  it('is the very tick of another input, found as an input', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 200 }), (at) => {
        const one = ran(260);
        const other = ran(260, { [at]: steer(0.3, 1) });
        const found = parting(one, other)!;
        expect([found.tick, found.agent]).toEqual([at, 'gleaner']);
        expect(found.apart).toBeGreaterThan(0);
        expect(givenApart([one, other], found.tick).inputs).toBe(at);
      }),
      { numRuns: 25 },
    );
  });

  it('is the tick in which another guard decides otherwise, not the one of the edit', () => {
    const goOn = (run: Run) => {
      for (let i = 0; i < 200; i++) advance(run, i === 20 ? [steer(-1, 0)] : []);
      return run;
    };
    const plain = goOn(ran(1));
    const edited = ran(1);
    applyEdit(edited, programOf(document(0.97)), 2);
    goOn(edited);
    const found = parting(plain, edited)!;
    const decides = plain.entries.find(({ kind }) => kind === 'transition')!.tick;
    expect(decides).toBeGreaterThan(2);
    expect([found.agent, found.tick]).toEqual(['keeper', decides]);
    expect(givenApart([plain, edited], found.tick).edits).toEqual([1, 2]);
    expect(found.entries[0].map(({ kind }) => kind)).toContain('transition');
    expect(found.entries[1]).toEqual([]);
    expect(firstUnlikeDecision([plain, edited])).toMatchObject({ tick: decides, agent: 'keeper' });
  });

  it('looks only at what both have kept', () => {
    const one = ran(100);
    const other = ran(300, { 200: steer(0, 1) });
    expect(parting(one, other)).toBeNull();
  });
});

describe('the figures of a run', () => {
  it('are those of what happened in it', () => {
    const run = ran(300, { 30: steer(-1, 0), 120: steer(1, 0) });
    const keeper = runFigures(run).get('keeper')!;
    const enters = run.entries.filter(
      ({ kind, agent }) => kind === 'transition' && agent === 'keeper',
    );
    expect(keeper.transitions).toBe(enters.length);
    const total = [...keeper.states.values()].reduce((sum, ticks) => sum + ticks, 0);
    // It is always in one of two states.
    expect(total).toBeGreaterThanOrEqual(299);
    expect(total).toBeLessThanOrEqual(301);
    const gleaner = runFigures(run).get('gleaner')!;
    expect(gleaner.walked).toBeGreaterThan(1);
    expect(gleaner.states.size).toBe(0);
  });

  it('count what was noticed from its first tick to its last', () => {
    const run = ran(300, { 30: steer(-1, 0), 120: steer(1, 0) });
    const keeper = runFigures(run).get('keeper')!;
    const first = run.entries.find((entry) => entry.kind === 'percept' && entry.agent === 'keeper');
    expect(keeper.firstNotice).toBe(first?.tick ?? null);
    expect(keeper.noticing).toBeLessThanOrEqual(300 - (keeper.firstNotice ?? 300));
    expect(keeper.noticing).toBeGreaterThan(0);
  });

  it('end where they are asked to', () => {
    const run = ran(300, { 30: steer(-1, 0) });
    const half = runFigures(run, 60).get('gleaner')!;
    const whole = runFigures(run).get('gleaner')!;
    expect(half.walked).toBeLessThan(whole.walked);
  });
});
