import { because, type Reason } from '@crooked-lantern/core';
import type { LedgerEntry } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { addToTallies, tallyAt, type RowTallies } from './row-tallies.ts';

const of = { agent: 'warden1', mind: '', state: 'comb', row: 2 };

function talliesOf(list: Record<string, unknown>[]): RowTallies {
  const tallies: RowTallies = new Map();
  const whole = { agent: 'warden1', state: 'comb', row: 2, action: 'turn' };
  addToTallies(tallies, list.map((entry) => ({ ...whole, ...entry })) as unknown as LedgerEntry[]);
  return tallies;
}

const begin = (tick: number) => ({ kind: 'begin', tick });
const end = (tick: number, ending: string, reason?: Reason) => ({
  kind: 'end',
  tick,
  ending,
  reason,
});

describe('the tally of a row', () => {
  const tallies = talliesOf([
    begin(10),
    end(30, 'failure', because('noPath', 'otherIsland')),
    begin(40),
    end(45, 'success'),
    begin(60),
  ]);

  it('counts how often it began and how long it ran, up to the tick that is looked at', () => {
    expect(tallyAt(tallies, of, 9)).toBeNull();
    expect(tallyAt(tallies, of, 20)).toMatchObject({ times: 1, ticks: 10, failure: null });
    expect(tallyAt(tallies, of, 50)).toMatchObject({ times: 2, ticks: 25 });
    expect(tallyAt(tallies, of, 70)).toMatchObject({ times: 3, ticks: 35 });
  });

  it('keeps the reason of the last failure, from the tick at which it failed', () => {
    expect(tallyAt(tallies, of, 29)!.failure).toBeNull();
    expect(tallyAt(tallies, of, 70)!.failure).toEqual({
      tick: 30,
      reason: because('noPath', 'otherIsland'),
    });
  });

  it('says who overruled it last, until then', () => {
    const lost = talliesOf([
      { kind: 'overruled', tick: 5, by: 0 },
      { kind: 'overruled', tick: 9, by: 1 },
    ]);
    expect(tallyAt(lost, of, 4)).toBeNull();
    expect(tallyAt(lost, of, 8)).toMatchObject({
      times: 0,
      ticks: 0,
      overruled: { tick: 5, by: 0 },
    });
    expect(tallyAt(lost, of, 9)!.overruled).toEqual({ tick: 9, by: 1 });
  });

  it('keeps minds, states and rows apart', () => {
    for (const other of [{ mind: 'mouth' }, { state: 'rounds' }, { row: 3 }, { agent: 'warden2' }])
      expect(tallyAt(tallies, { ...of, ...other }, 70)).toBeNull();
  });

  it('begins again with each edit, after which the numbers may stand for other rows', () => {
    const edited = talliesOf([begin(10), { kind: 'edit', tick: 20, edit: 2 }, begin(30)]);
    expect(tallyAt(edited, of, 40)).toMatchObject({ times: 1, ticks: 10 });
  });

  it('goes on from an edit in the middle of a row without counting it as begun', () => {
    const edited = talliesOf([begin(10), { kind: 'edit', tick: 20, edit: 2 }, end(30, 'success')]);
    expect(tallyAt(edited, of, 40)).toBeNull();
  });
});
