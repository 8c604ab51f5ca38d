import type { Program } from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { subjectOfSetup } from './setup-subject.ts';

const program = {
  play: 0,
  archetypes: [{ stack: -1 }, { stack: 0 }],
  agents: [
    { name: 'gleaner', archetype: 0, x: 2, y: 2, away: false },
    { name: 'warden1', archetype: 1, x: 4, y: 2, away: false },
    { name: 'warden2', archetype: 1, x: 18, y: 18, away: false },
    { name: 'beetle', archetype: 1, x: 3, y: 3, away: true },
  ],
} as unknown as Program;

it('a set-up is about the agent it places, else about the one nearest to the played one as it places that', () => {
  expect(subjectOfSetup({ agents: { warden2: { at: [9, 9] } } }, program)).toBe('warden2');
  expect(subjectOfSetup({ agents: { gleaner: { at: [17, 18] } } }, program)).toBe('warden2');
  expect(subjectOfSetup({}, program)).toBe('warden1');
});

it('it is never about the one that is played', () => {
  expect(subjectOfSetup({ play: 'warden1' }, program)).toBe('warden2');
  expect(subjectOfSetup({ play: 'warden1', agents: { warden1: { at: [1, 1] } } }, program)).toBe(
    'warden2',
  );
});
