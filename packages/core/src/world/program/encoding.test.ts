import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compiled, nightWatch } from '../../testing/demo.fixture.ts';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import { worldHash } from '../handover/snapshot.ts';
import { tick } from '../phases/tick.ts';
import { createWorld } from '../world.ts';
import { decodeProgram, encodeProgram } from './encoding.ts';
import type { Program } from './program.ts';

function hashAfter(program: Program, ticks: number): string {
  const world = createWorld(program, 7);
  for (let i = 0; i < ticks; i++)
    tick(world, i === 5 ? [{ agent: 'gleaner', x: 0, y: -1, gait: 'run' }] : []);
  return worldHash(world);
}

const small = programOf(
  cornerProject({ sight: KEEN_SIGHT, machine: { initial: 'a', states: [{ id: 'a' }] } }),
);

describe('a program as text', () => {
  it('runs as the program it was made of', () => {
    const program = compiled(nightWatch());
    expect(hashAfter(decodeProgram(encodeProgram(program)), 900)).toBe(hashAfter(program, 900));
  });

  it('loses nothing: neither numbers that JSON has no word for nor text that looks like them', () => {
    const text = fc.oneof(fc.string(), fc.constantFrom('~NaN', '~', '~~-0', 'NaN', '~Infinity'));
    const leaf = fc.oneof(fc.double(), fc.constantFrom(NaN, -0, Infinity, -Infinity), text);
    fc.assert(
      fc.property(
        fc.array(leaf),
        fc.dictionary(fc.string({ maxLength: 3 }), leaf),
        (list, record) => {
          // As own fields, whatever they are called.
          const program = { list, record: Object.entries(record) } as unknown as Program;
          expect(decodeProgram(encodeProgram(program))).toEqual(program);
        },
      ),
    );
  });

  it.each([
    ['no JSON', '{', /no compiled program/],
    [
      'a project file',
      JSON.stringify({ format: 'crooked-lantern/project' }),
      /Compile the project/,
    ],
    ['another version', encodeProgram(small).replace('"version":3', '"version":9'), /version 9/],
    [
      'a number that is none',
      encodeProgram(small).replace('"~NaN"', '"~many"'),
      /“~many” is no number/,
    ],
    ['nothing', 'null', /no compiled program/],
    ['empty', encodeProgram({} as Program).replace(/"hash":"[^"]*"/, '"hash":""'), /damaged/],
    [
      'cut and mended',
      encodeProgram(small).replace('"seed":1', '"seed":2'),
      /damaged or not whole/,
    ],
  ])('is refused where it is %s', (_, text, words) => {
    expect(() => decodeProgram(text)).toThrow(words);
  });
});
