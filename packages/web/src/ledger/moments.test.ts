import type { LedgerEntry } from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { addEntries, createLanes } from '../engine/lanes.ts';
import { decisionTicks, nextMoment } from './moments.ts';

const transition = (tick: number, agent: string) =>
  ({ tick, agent, kind: 'transition', from: 'a', order: 1, to: 'b' }) as LedgerEntry;
const picked = (tick: number, agent: string) =>
  ({
    tick,
    agent,
    kind: 'picked',
    state: 'a',
    row: 0,
    choice: 'c',
    option: 'o',
    score: 1,
  }) as LedgerEntry;

it('decisions are transitions and picks, of one or of all, each tick once and in order', () => {
  const lanes = createLanes();
  addEntries(lanes, [
    transition(3, 'one'),
    picked(5, 'two'),
    transition(9, 'two'),
    picked(9, 'one'),
    transition(20, 'one'),
  ]);
  expect(decisionTicks(lanes, 'one')).toEqual([3, 9, 20]);
  expect(decisionTicks(lanes, null)).toEqual([3, 5, 9, 20]);
  expect(decisionTicks(lanes, 'nobody')).toEqual([]);
  expect(nextMoment([3, 9, 20], 9, 'back')).toBe(3);
  expect(nextMoment([3, 9, 20], 9, 'onward')).toBe(20);
  expect(nextMoment([3, 9, 20], 20, 'onward')).toBeUndefined();
});
