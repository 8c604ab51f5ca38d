import { describe, expect, it } from 'vitest';
import { awarenessAt, mostStirred } from './most-stirred.ts';

const names = ['warden1', 'warden2', 'warden3'];
const watch = (watched: string, noticed: Record<string, number>) =>
  mostStirred(names, watched, (name) => noticed[name] ?? 0);

describe('who is watched', () => {
  it('is the agent that has noticed most, wherever it stands in the list', () => {
    expect(watch('warden1', { warden2: 0.6, warden3: 1 })).toBe('warden3');
    expect(watch('warden3', { warden1: 0.6, warden2: 1 })).toBe('warden2');
  });

  it('stays who it is while no agent has noticed clearly more, so that the page does not jump', () => {
    expect(watch('warden1', {})).toBe('warden1');
    expect(watch('warden1', { warden2: 0.2 })).toBe('warden1');
    expect(watch('warden1', { warden1: 0.5, warden2: 0.6 })).toBe('warden1');
    expect(watch('warden2', { warden1: 1, warden2: 1 })).toBe('warden2');
  });
});

it('what had been noticed is that of the tick that is shown, also in the past', () => {
  const lane = {
    awareness: [
      { tick: 10, value: 0.25 },
      { tick: 20, value: 1 },
    ],
  };
  expect([5, 10, 15, 25].map((tick) => awarenessAt(lane, tick))).toEqual([0, 0.25, 0.25, 1]);
  expect(awarenessAt(undefined, 5)).toBe(0);
});
