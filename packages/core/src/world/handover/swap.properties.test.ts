import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { entryLine } from '../../ledger/lines.ts';
import { brawlInputs, programOfBrawl, withOthersFirst } from '../../testing/brawl.fixture.ts';
import { tick } from '../phases/tick.ts';
import { createWorld, setRecorder, type World } from '../world.ts';
import { worldHash } from './snapshot.ts';
import { swapProgram } from './swap.ts';

/** Runs a brawl on; what it records from here on, and its hash every hundred ticks. */
function runOn(world: World, ticks: number): { world: World; lines: string[]; hashes: string[] } {
  const lines: string[] = [];
  const hashes: string[] = [];
  setRecorder(world, (entry) => entry.kind !== 'edit' && lines.push(entryLine(entry)));
  for (let i = 0; i < ticks; i++) {
    tick(world, brawlInputs(world.statics.program, world.tick + 1));
    if (i % 100 === 99) hashes.push(worldHash(world));
  }
  return { world, lines, hashes };
}

describe('an edit that changes nothing', () => {
  const program = programOfBrawl();
  const again = programOfBrawl();

  it('changes nothing at any tick: neither the state nor the next ten seconds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1500 }),
        fc.integer({ min: 1, max: 99 }),
        (at, seed) => {
          const { world } = runOn(createWorld(program, seed), at);
          const { world: twin } = runOn(createWorld(program, seed), at);
          const swapped = swapProgram(twin, again, 2, seed);
          expect(worldHash(swapped)).toBe(worldHash(world));
          const [one, other] = [runOn(world, 600), runOn(swapped, 600)];
          expect(other.lines).toEqual(one.lines);
          expect(other.hashes).toEqual(one.hashes);
        },
      ),
      { numRuns: 4 },
    );
  });

  it('has nothing to carry over from within a tick: what is used there alone is empty between two', () => {
    const world = createWorld(program, 4);
    for (let i = 0; i < 900; i++) {
      runOn(world, 1);
      expect([world.outbox.length, world.effects.length]).toEqual([0, 0]);
      expect(world.agents.filter(({ reason }) => reason !== null).map(({ name }) => name)).toEqual(
        [],
      );
    }
  });

  it('is tried where much goes on: noises, words, throws, blows, searches and deaths are under way', () => {
    const { lines } = runOn(createWorld(program, 3), 1500);
    for (const kind of ['noise', 'percept', 'harm', 'death', 'recycled', 'memory', 'transition'])
      expect(
        lines.filter((line) => line.includes(`"kind":"${kind}"`)).length,
        kind,
      ).toBeGreaterThan(0);
  });
});

describe('an edit that adds what comes first in every list', () => {
  const program = programOfBrawl();
  const larger = programOfBrawl(withOthersFirst);

  it('leaves all others with what they had: whom and what they know of, owe and carry', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 1500 }),
        fc.integer({ min: 1, max: 99 }),
        (at, seed) => {
          const { world } = runOn(createWorld(program, seed), at);
          const { world: twin } = runOn(createWorld(program, seed), at);
          const swapped = swapProgram(twin, larger, 2, seed);
          const others = (lines: readonly string[]) =>
            lines.filter((line) => !/\baa[a-d]\b/.test(line));
          const [one, other] = [runOn(world, 600), runOn(swapped, 600)];
          expect(others(other.lines)).toEqual(others(one.lines));
        },
      ),
      { numRuns: 4 },
    );
  });
});
