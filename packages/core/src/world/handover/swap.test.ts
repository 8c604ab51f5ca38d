import { describe, expect, it } from 'vitest';
import { brawlInputs, programOfBrawl, withOthersFirst } from '../../testing/brawl.fixture.ts';
import { entryLine } from '../../ledger/lines.ts';
import { compiled, demo, demoDocument } from '../../testing/demo.fixture.ts';
import { restless } from '../../testing/pinned.fixture.ts';
import { tick } from '../phases/tick.ts';
import type { Input, Program } from '../program/program.ts';
import { createWorld, setRecorder, type World } from '../world.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from './snapshot.ts';
import { swapProgram } from './swap.ts';

/** A brawl that changes hands again and again goes on as one that does not. */

/** Ticks that a run goes on for. */
const LONG = 300;

/** What is recorded of a run whose world is handed on every so many ticks. */
function recorded(
  begun: World,
  inputs: (world: World) => Input[],
  every: number,
  handOn: (world: World) => World,
): string[] {
  let world = begun;
  const lines: string[] = [];
  while (world.tick < LONG) {
    setRecorder(world, (entry) => entry.kind !== 'edit' && lines.push(entryLine(entry)));
    for (let i = 0; i < every; i++) tick(world, inputs(world));
    world = handOn(world);
  }
  return lines;
}

/** Puts a world back into another from its snapshot. */
function putBack(world: World): World {
  const next = createWorld(world.statics.program, 99);
  restoreSnapshot(next, structuredClone(takeSnapshot(world)));
  return next;
}

describe('a brawl', () => {
  const program = programOfBrawl();
  const handedOn = (every: number, handOn: (world: World) => World) =>
    recorded(
      createWorld(program, 3),
      (world) => brawlInputs(world.statics.program, world.tick + 1),
      every,
      handOn,
    );
  const plain = () => handedOn(LONG, (world) => world);

  it('goes on as it was under edits that change nothing', () => {
    const again = programOfBrawl();
    const edited = handedOn(25, (world) => {
      const next = swapProgram(world, again, 2, 3);
      expect(worldHash(next)).toBe(worldHash(world));
      return next;
    });
    expect(edited).toEqual(plain());
  });

  it('goes on as it was where it is put back from a snapshot again and again', () => {
    expect(handedOn(20, putBack)).toEqual(plain());
  });

  it('goes on as it was for all who were there, where others come before them in every list, and go again', () => {
    const larger = programOfBrawl(withOthersFirst);
    let now: Program = program;
    const edited = handedOn(60, (world) => {
      now = now === program ? larger : program;
      return swapProgram(world, now, 2, 3);
    });
    const others = (lines: readonly string[]) => lines.filter((line) => !/\baa[a-d]\b/.test(line));
    expect(others(edited)).toEqual(plain());
  });
});

describe('a run of a demo', () => {
  it.each([
    ['keepers-duel', 2],
    ['night-watch', 2],
    ['windfall', 1],
  ] as const)(
    'of %s goes on as it was under edits that change nothing, and from snapshots',
    (name, seed) => {
      const { program, player } = demo(name);
      const handedOn = (handOn: (world: World) => World) =>
        recorded(createWorld(program, seed), (world) => restless(world, player), 15, handOn);
      const plain = handedOn((world) => world);
      const again = compiled(demoDocument(name));
      expect(handedOn((world) => swapProgram(world, again, 2, seed))).toEqual(plain);
      expect(handedOn(putBack)).toEqual(plain);
    },
  );
});
