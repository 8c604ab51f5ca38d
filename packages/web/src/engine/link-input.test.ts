import fc from 'fast-check';
import { expect, it } from 'vitest';
import { inputsOfText, textOfInputs } from './link-input.ts';

const input = fc.record(
  {
    agent: fc.constantFrom('gleaner', 'warden2'),
    x: fc.integer({ min: -1, max: 1 }),
    y: fc.integer({ min: -1, max: 1 }),
    gait: fc.constantFrom(null, 'run'),
    act: fc.constantFrom('throw' as const, 'use' as const),
  },
  { requiredKeys: ['agent', 'x', 'y', 'gait'] },
);

it('what players did comes back from an address as it was', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ tick: fc.nat({ max: 100_000 }), input }), { maxLength: 60 }),
      async (inputs) => {
        const text = (await textOfInputs(inputs))!;
        expect(text).toMatch(/^[\w-]*$/);
        expect(await inputsOfText(text)).toEqual(inputs);
      },
    ),
    { numRuns: 50 },
  );
});

it('what is too long for an address is not put there', async () => {
  const inputs = Array.from({ length: 20_000 }, (_, i) => ({
    tick: i * 7 + (i % 13),
    input: { agent: `agent${(i * 7919) % 997}`, x: Math.sin(i), y: Math.cos(i * i), gait: null },
  }));
  expect(await textOfInputs(inputs)).toBeNull();
});

it('a text that was cut off, or says something else, is no input', async () => {
  const text = (await textOfInputs([
    { tick: 3, input: { agent: 'gleaner', x: 1, y: 0, gait: null } },
  ]))!;
  expect(await inputsOfText(text.slice(0, -6))).toBeNull();
  expect(await inputsOfText('%%%')).toBeNull();
  expect(await inputsOfText((await textOfInputs([{ tick: 'x' } as never]))!)).toBeNull();
});
