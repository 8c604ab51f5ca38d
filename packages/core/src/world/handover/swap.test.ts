import { describe, expect, it } from 'vitest';
import { programOfBrawl, runOn, withOthersFirst } from '../../testing/brawl.fixture.ts';
import type { Program } from '../program/program.ts';
import { createWorld, type World } from '../world.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from './snapshot.ts';
import { swapProgram } from './swap.ts';

/** A brawl that changes hands again and again goes on as one that does not. */

const program = programOfBrawl();

/** What is recorded in so many ticks of a brawl, whose world is handed on every so often. */
function recorded(ticks: number, every: number, handOn: (world: World) => World): string[] {
  let world = createWorld(program, 3);
  const lines: string[] = [];
  while (world.tick < ticks) {
    lines.push(...runOn(world, every).lines);
    world = handOn(world);
  }
  return lines;
}

describe('a brawl', () => {
  const plain = () => recorded(300, 300, (world) => world);

  it('goes on as it was under edits that change nothing', () => {
    const again = programOfBrawl();
    const edited = recorded(300, 25, (world) => {
      const next = swapProgram(world, again, 2, 3);
      expect(worldHash(next)).toBe(worldHash(world));
      return next;
    });
    expect(edited).toEqual(plain());
  });

  it('goes on as it was where it is put back from a snapshot again and again', () => {
    const restored = recorded(300, 20, (world) => {
      const next = createWorld(program, 99);
      restoreSnapshot(next, structuredClone(takeSnapshot(world)));
      return next;
    });
    expect(restored).toEqual(plain());
  });

  it('goes on as it was for all who were there, where others come before them in every list, and go again', () => {
    const larger = programOfBrawl(withOthersFirst);
    let now: Program = program;
    const edited = recorded(300, 60, (world) => {
      now = now === program ? larger : program;
      return swapProgram(world, now, 2, 3);
    });
    const others = (lines: readonly string[]) => lines.filter((line) => !/\baa[a-d]\b/.test(line));
    expect(others(edited)).toEqual(plain());
  });
});
