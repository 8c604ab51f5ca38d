import { createNeighbours, fillNeighbours, type Neighbours } from '../../ground/neighbours.ts';
import type { Body } from '../../motion/body.ts';
import type { Statics } from '../program/statics.ts';
import type { Surroundings } from './surroundings.ts';

/** Where the agents stand that are asked about most, filed apart from all others. */
export interface Places {
  /** Who carries a lantern. */
  lanterns: Neighbours;
  /** By faction: all agents that are no friends of it; null where no agent of it can see. */
  strangers: (Neighbours | null)[];
}

export function createPlaces({ program, strangers }: Statics): Places {
  const { ground, agents } = program;
  const file = () => createNeighbours(ground.width, ground.height, agents.length);
  return {
    lanterns: file(),
    strangers: strangers.map((among) => among && file()),
  };
}

/** Takes in where all bodies are now. */
export function filePlaces({
  ground,
  places,
  statics,
  bodies,
}: Surroundings & { bodies: readonly Body[] }): void {
  ground.fileBodies(bodies);
  if (statics.largestLantern > 0) fillNeighbours(places.lanterns, bodies, statics.lanterns);
  places.strangers.forEach((file, side) => {
    if (file) fillNeighbours(file, bodies, statics.strangers[side]!);
  });
}
