import { because } from '../terms/reasons.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HIT_RESULTS, type HitResult } from '../terms/fighting.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { fightFigures, isOfFight } from './figures.ts';

const move = (tick: number, name: string, lasts: number, agent = 'keeper'): LedgerEntry => ({
  kind: 'move',
  tick,
  agent,
  move: name,
  lasts,
});
const hit = (tick: number, name: string, result: HitResult, harm = 0): LedgerEntry => ({
  kind: 'hit',
  tick,
  agent: 'keeper',
  move: name,
  of: 'gleaner',
  result,
  harm,
  x: 0,
  y: 0,
  z: 1,
});

const FOUGHT: LedgerEntry[] = [
  move(10, 'sweep', 30),
  hit(20, 'sweep', 'landed', 12),
  { kind: 'harm', tick: 20, agent: 'gleaner', amount: 12, left: 88, by: 'keeper' },
  move(60, 'sweep', 30),
  hit(70, 'sweep', 'guarded', 3),
  { kind: 'harm', tick: 70, agent: 'gleaner', amount: 3, left: 85, by: 'keeper' },
  move(100, 'charge', 50),
  {
    kind: 'broken',
    tick: 110,
    agent: 'keeper',
    move: 'charge',
    reason: because('hitBy', 'Gleaner'),
  },
  move(120, 'trip', 20, 'gleaner'),
  { kind: 'death', tick: 130, agent: 'gleaner', by: '' },
];

const ALL = { from: 0, to: 1000 };

describe('figures of a fight', () => {
  it('count what came of each move, and the agent’s together', () => {
    const figures = fightFigures(FOUGHT, ALL);
    const { all, byMove, taken } = figures.get('keeper')!;
    expect(byMove.get('sweep')).toMatchObject({
      uses: 2,
      landed: 1,
      guarded: 1,
      missed: 0,
      dealt: 15,
      ticks: 60,
    });
    expect(byMove.get('charge')).toMatchObject({ uses: 1, broken: 1, ticks: 10, dealt: 0 });
    expect(all).toMatchObject({ uses: 3, landed: 1, guarded: 1, broken: 1, dealt: 15, ticks: 70 });
    expect(taken).toBe(0);
    // Its move ends with it.
    expect(figures.get('gleaner')).toMatchObject({ taken: 15, deaths: 1, all: { ticks: 10 } });
  });

  it('take only what lies in the stretch, of a move that reaches into it the part that does', () => {
    const { byMove } = fightFigures(FOUGHT, { from: 20, to: 69 }).get('keeper')!;
    expect(byMove.get('sweep')).toMatchObject({ uses: 1, landed: 1, guarded: 0, ticks: 30 });
    expect(byMove.has('charge')).toBe(false);
  });

  it('of two stretches that meet come to those of both together', () => {
    const entry = fc.oneof(
      fc
        .record({ name: fc.constantFrom('sweep', 'trip'), lasts: fc.integer({ min: 1, max: 40 }) })
        .map(
          ({ name, lasts }) =>
            (tick: number) =>
              move(tick, name, lasts),
        ),
      fc
        .record({ name: fc.constantFrom('sweep', 'trip'), result: fc.constantFrom(...HIT_RESULTS) })
        .map(
          ({ name, result }) =>
            (tick: number) =>
              hit(tick, name, result, 2),
        ),
    );
    fc.assert(
      fc.property(
        fc.array(entry, { maxLength: 40 }),
        fc.integer({ min: 0, max: 300 }),
        (made, at) => {
          const entries = made.map((make, i) => make(i * 7));
          const parts = [
            fightFigures(entries, { from: 0, to: at }),
            fightFigures(entries, { from: at + 1, to: 1000 }),
          ].map((figures) => figures.get('keeper')?.all);
          const whole = fightFigures(entries, ALL).get('keeper')?.all;
          for (const field of ['uses', 'ticks', 'dealt', ...HIT_RESULTS] as const)
            expect((parts[0]?.[field] ?? 0) + (parts[1]?.[field] ?? 0)).toBe(whole?.[field] ?? 0);
        },
      ),
    );
  });

  it('are made of what is of a fight, and of nothing else', () => {
    expect(FOUGHT.filter((entry) => !isOfFight(entry))).toEqual([]);
    expect(isOfFight({ kind: 'enter', tick: 1, agent: 'keeper', state: 'calm' })).toBe(false);
  });
});
