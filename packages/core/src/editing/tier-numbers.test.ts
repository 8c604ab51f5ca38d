import { expect, it } from 'vitest';
import { demoDocument } from '../testing/demo.fixture.ts';
import { inTier, numberAt } from '../model/tiers.ts';
import { tierNumbers } from './tier-numbers.ts';

it.each(['keepers-duel', 'night-watch', 'harvest-night'])(
  'numbers of %s that can differ by tier have words of their own, and each can be given to a tier',
  (name) => {
    const document = demoDocument(name);
    const numbers = tierNumbers(document);
    expect(numbers.length).toBeGreaterThan(30);
    for (const { path, words, value } of numbers) {
      expect(numberAt(document, path)).toBe(value);
      // In words, never as the file has it.
      expect(words).not.toContain('archetypes');
      expect(words).not.toMatch(/\b(windUp|halfArc|maxAlive|forgetAfter|sleepDistance)\b/);
    }
    const changes = numbers.map(({ path }) => ({ path, factor: 1 }));
    const tiered = {
      ...document,
      tiers: [{ name: 'same', changes }],
      start: { ...document.start, tier: 'same' },
    };
    expect(inTier(tiered).faults).toEqual([]);
  },
);

it('a number of a move is called by the move and the body', () => {
  const numbers = tierNumbers(demoDocument('keepers-duel'));
  expect(numbers.map(({ words }) => words)).toContain('wind-up of Overhead of Keeper');
});
