import { describe, it } from 'vitest';
import { brawlInputs, programOfBrawl } from '../testing/brawl.fixture.ts';
import { demo } from '../testing/demo.fixture.ts';
import { expectPinned, linesOf, PINNED_DEMOS, restless } from '../testing/pinned.fixture.ts';
import { type World } from '../world/world.ts';

/**
 * What the demos do is pinned: a recording is inputs and a seed, so that a user who opens one with a later version
 * must see the same. Where a change of meaning is intended, remove the files and run this: they are written again, and
 * their difference is part of the change.
 */

describe('a run, by its seed and inputs, goes as it went', () => {
  it('in a brawl', () => {
    const program = programOfBrawl();
    const players = (world: World) => brawlInputs(program, world.tick + 1);
    expectPinned('runs/brawl', [linesOf(program, 1, 600, players)]);
  });

  it.each(PINNED_DEMOS)('in %s', (name) => {
    const { program, player } = demo(name);
    expectPinned(
      `runs/${name}`,
      [1, 2].map((seed) => linesOf(program, seed, 600, (world) => restless(world, player))),
    );
  });
});
