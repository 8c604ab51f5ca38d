import { THING_RADIUS } from '../../program/program.ts';
import type { Surroundings, Thing } from '../../state/surroundings.ts';

/** Things that lie and are carried. */

/** Metres above the ground that a thing leaves the hand. */
export const HAND_HEIGHT = 1.3;

export function isFlying({ flight }: Thing): boolean {
  return flight > 0;
}

const place = new Float64Array(2);

/** A landing is heard as far as the thing says; what is set down softly, a quarter as far. */
export function land(world: Surroundings, index: number, share: number): void {
  const thing = world.things[index];
  const { noise } = world.statics.program.ground.things[index];
  thing.flight = 0;
  thing.flown = 0;
  thing.z = 0;
  // It does not come to rest inside a wall it fell at.
  world.ground.moveOut(thing.x, thing.y, THING_RADIUS, place);
  thing.x = place[0];
  thing.y = place[1];
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
