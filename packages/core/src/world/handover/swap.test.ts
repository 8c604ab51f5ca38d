import { describe, expect, it } from 'vitest';
import { programOfBrawl, runOn, withOthersFirst } from '../../testing/brawl.fixture.ts';
import { entryLine } from '../../ledger/lines.ts';
import { compiled, demo, demoDocument } from '../../testing/demo.fixture.ts';
import { restless } from '../../testing/pinned.fixture.ts';
import { tick } from '../phases/tick.ts';
import type { Program } from '../program/program.ts';
import { createWorld, setRecorder, type World } from '../world.ts';
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

describe('a run of a demo', () => {
  /** What is recorded of a demo that is played restlessly, whose world is handed on four times a second. */
  function played(name: string, seed: number, handOn: (world: World) => World): string[] {
    const { program: first, player } = demo(name);
    let world = createWorld(first, seed);
    const lines: string[] = [];
    const record = (of: World) =>
      setRecorder(of, (entry) => entry.kind !== 'edit' && lines.push(entryLine(entry)));
    while (world.tick < 300) {
      record(world);
      for (let i = 0; i < 15; i++) tick(world, restless(world, player));
      world = handOn(world);
    }
    return lines;
  }

  it.each([
    ['keepers-duel', 2],
    ['night-watch', 2],
    ['windfall', 1],
  ] as const)(
    'of %s goes on as it was under edits that change nothing, and from snapshots',
    (name, seed) => {
      const plain = played(name, seed, (world) => world);
      const again = compiled(demoDocument(name));
      expect(played(name, seed, (world) => swapProgram(world, again, 2, seed))).toEqual(plain);
      const restored = played(name, seed, (world) => {
        const next = createWorld(demo(name).program, 99);
        restoreSnapshot(next, structuredClone(takeSnapshot(world)));
        return next;
      });
      expect(restored).toEqual(plain);
    },
  );
});
