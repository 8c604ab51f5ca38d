import type { FollowedReadout } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { followRows } from './follow-rows.ts';

const keeper = (change: Partial<FollowedReadout> = {}): FollowedReadout => ({
  agent: 'keeper',
  title: 'Keeper',
  minds: [{ mind: 'keeper', title: 'Keeper', states: ['Calm', 'Rounds'] }],
  acts: [{ channel: 'legs', action: 'moveTo' }],
  attention: '',
  awareness: 0.5,
  health: null,
  role: '',
  memory: [],
  known: [],
  percepts: [],
  ...change,
});

const table = (readouts: FollowedReadout[]) =>
  followRows(readouts).map(({ title, of }) => [
    title,
    ...readouts.map((readout) => of(readout)?.text ?? ''),
  ]);

const gleaner = {
  of: 'gleaner',
  title: 'Gleaner',
  x: 1,
  y: 2,
  trueX: 1,
  trueY: 5,
  off: 3,
  awareness: 1,
};

describe('what is shown side by side', () => {
  it('is what any of them has something to say of, and nothing else', () => {
    expect(table([keeper()])).toEqual([
      ['state', 'Calm › Rounds'],
      ['does', 'move to (legs)'],
      ['awareness', '0.50'],
    ]);
    const other = keeper({
      agent: 'other',
      health: 80,
      memory: [{ key: 'spot', scope: 'self', value: '(1, 2)', age: 0.5 }],
    });
    expect(table([keeper(), other]).slice(-2)).toEqual([
      ['health', '', '80'],
      ['spot', '', '(1, 2) · 0.5 s'],
    ]);
  });

  it('sets what is believed against what is true, and marks what is wrong', () => {
    const [seen, lost, near] = [
      keeper({ known: [{ ...gleaner, seconds: 0 }] }),
      keeper({ known: [{ ...gleaner, seconds: 1.2 }] }),
      keeper({ known: [{ ...gleaner, off: 0.4, seconds: 1.2 }] }),
    ];
    const row = followRows([seen]).find(({ id }) => id === 'known gleaner')!;
    expect(row.of(seen)).toEqual({ text: '(1.0, 2.0), in sight' });
    expect(row.of(lost)).toEqual({
      text: '(1.0, 2.0), 1.2 s ago; in truth 3.0 m from there',
      isWrong: true,
    });
    expect(row.of(near)?.isWrong).toBe(false);
    expect(row.of(keeper())).toBeNull();
  });
});
