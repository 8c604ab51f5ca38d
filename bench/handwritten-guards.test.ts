import { expect, it } from 'vitest';
import { guardsAndAgents } from './figures.ts';
import { GUARDS } from './handwritten-guards.ts';

it('guards written by hand hold exactly where the compiled ones do', () => {
  const { agents, compiled, byHand } = guardsAndAgents(64);
  GUARDS.forEach(([source], i) => {
    const held = agents.map((agent) => compiled[i](agent));
    expect(held, source).toEqual(agents.map((agent) => byHand[i](agent)));
  });
  // The comparison means little unless guards hold here and there.
  const outcomes = compiled.flatMap((guard) => agents.map(guard));
  expect(outcomes.filter(Boolean).length).toBeGreaterThan(outcomes.length / 10);
  expect(outcomes.filter(Boolean).length).toBeLessThan((outcomes.length * 9) / 10);
});
