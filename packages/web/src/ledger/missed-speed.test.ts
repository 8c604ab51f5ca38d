import { expect, it } from 'vitest';
import { missedSpeed } from './missed-speed.ts';

const missed = (ticks: number, wanted: number, ms = 1000) =>
  missedSpeed({ time: 500, tick: 60 }, { time: 500 + ms, tick: 60 + ticks }, wanted, 60);

it('a run that keeps up says nothing, one that does not how fast it goes', () => {
  expect(missed(60, 1)).toBeNull();
  expect(missed(56, 1)).toBeNull();
  expect(missed(30, 1)).toBe(0.5);
  expect(missed(300, 8)).toBe(5);
  expect(missed(600, 8, 2000)).toBe(5);
});

it('what was taken back, or looked at in the same moment, is no speed', () => {
  expect(missed(-20, 1)).toBeNull();
  expect(missed(5, 1, 0)).toBeNull();
});
