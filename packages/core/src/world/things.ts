import { pushed, pushOut } from '../space/walls.ts';
import { THING_RADIUS } from './program.ts';
import type { Surroundings, Thing } from './surroundings.ts';

/** Things that lie and are carried. */

/** Metres above the ground that a thing leaves the hand. */
export const HAND_HEIGHT = 1.3;

export function createThings(things: readonly { x: number; y: number }[]): Thing[] {
  return things.map(({ x, y }) => ({
    x,
    y,
    z: 0,
    carrier: -1,
    mover: -1,
    flown: 0,
    flight: 0,
    fromX: x,
    fromY: y,
    toX: x,
    toY: y,
  }));
}

export function isFlying({ flight }: Thing): boolean {
  return flight > 0;
}

/** A landing is heard as far as the thing says; what is set down softly, a quarter as far. */
export function land(world: Surroundings, index: number, share: number): void {
  const thing = world.things[index];
  const { noise } = world.statics.program.ground.things[index];
  thing.flight = 0;
  thing.flown = 0;
  thing.z = 0;
  // It does not come to rest inside a wall it fell at.
  pushOut(world.walls, thing.x, thing.y, THING_RADIUS);
  thing.x = pushed.x;
  thing.y = pushed.y;
  world.noises.push({
    what: world.statics.words.landing,
    x: thing.x,
    y: thing.y,
    reach: noise * share,
    maker: thing.mover,
    thing: index,
  });
}

/** What is carried goes where its carrier goes. */
export function carry(world: Surroundings): void {
  for (const thing of world.things) {
    if (thing.carrier < 0) continue;
    const { x, y } = world.agents[thing.carrier];
    thing.x = x;
    thing.y = y;
  }
}
