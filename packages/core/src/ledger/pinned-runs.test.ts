import { createHash } from 'node:crypto';
import { describe, it } from 'vitest';
import { brawlInputs, programOfBrawl } from '../testing/brawl.fixture.ts';
import { compiled, demoDocument } from '../testing/demo.fixture.ts';
import { expectPinned, PINNED_DEMOS, restless } from '../testing/pinned.fixture.ts';
import { tick } from '../world/phases/tick.ts';
import type { Input, Program } from '../world/program/program.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { createWorld, setRecorder, type World } from '../world/world.ts';
import { entryLine } from './lines.ts';

/**
 * What the demos do is pinned: a recording is inputs and a seed, so that whoever opens one with a later version
 * must see the same. Where a change of meaning is intended, remove the files and run this: they are written anew, and
 * their difference is part of the change.
 */

/** Ticks that one line of a file stands for. */
const STRETCH = 60;

/** A line for each stretch: a digest of all entries and of where everybody is, and how many entries there are of each kind. */
function* linesOf(
  program: Program,
  seed: number,
  ticks: number,
  player: (world: World) => Input[],
): Generator<string> {
  const world = createWorld(program, seed);
  let entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  while (world.tick < ticks) {
    tick(world, player(world));
    if (world.tick % STRETCH > 0) continue;
    const counts: Record<string, number> = {};
    for (const { kind } of entries) counts[kind] = (counts[kind] ?? 0) + 1;
    const hash = createHash('sha256');
    for (const entry of entries) hash.update(entryLine(entry));
    for (const { name, x, y, health } of world.agents)
      hash.update([name, x.toFixed(6), y.toFixed(6), health.toFixed(6)].join());
    const kinds = Object.keys(counts).sort();
    const stretch = `seed ${seed}, ticks ${world.tick - STRETCH + 1} to ${world.tick}`;
    yield `${stretch}: ${hash.digest('hex').slice(0, 10)} ${kinds.map((kind) => `${kind} ${counts[kind]}`).join(', ')}`;
    entries = [];
  }
}

describe('a run, by its seed and inputs, goes as it went', () => {
  it('in a brawl', () => {
    const program = programOfBrawl();
    const players = (world: World) => brawlInputs(program, world.tick + 1);
    expectPinned('runs/brawl', [linesOf(program, 1, 600, players)]);
  });

  it.each(PINNED_DEMOS)('in %s', (name) => {
    const document = demoDocument(name);
    const program = compiled(document);
    const player = (world: World) => restless(world, document.start.play!);
    expectPinned(
      `runs/${name}`,
      [1, 2].map((seed) => linesOf(program, seed, 600, player)),
    );
  });
});
