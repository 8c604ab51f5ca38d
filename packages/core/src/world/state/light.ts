import type { Ground } from '../../ground/ground.ts';
import { collectNeighbours } from '../../ground/neighbours.ts';
import type { Surroundings } from './surroundings.ts';

/** Light at a place, 0 to 1: what is everywhere, and what lamps and lanterns add where no wall stands between. */

/** Metres above the ground: lamps, lanterns in a hand, and the middle of what is lit. */
const LAMP_HEIGHT = 2.2;
const LANTERN_HEIGHT = 1.1;
const LIT_HEIGHT = [0.9];

const found: number[] = [];

function added(
  ground: Ground,
  fromX: number,
  fromY: number,
  height: number,
  { reach, strength }: { reach: number; strength: number },
  x: number,
  y: number,
): number {
  const dx = x - fromX;
  const dy = y - fromY;
  const square = dx * dx + dy * dy;
  if (square >= reach * reach) return 0;
  if (ground.clearPoints(fromX, fromY, height, x, y, LIT_HEIGHT) === 0) return 0;
  return strength * (1 - square / (reach * reach));
}

/** The light that is everywhere now, on its way to where a director has brought it. */
export function lightNow({ dimming, tick, statics }: Surroundings): number {
  if (dimming === null) return statics.program.ground.light;
  const { from, to, since, ticks } = dimming;
  const share = ticks > 0 ? Math.min(1, (tick - since) / ticks) : 1;
  return from + (to - from) * share;
}

export function lightAt(around: Surroundings, x: number, y: number): number {
  const { statics, agents, ground, places } = around;
  const { program, lamps, largestLamp, largestLantern } = statics;
  let light = lightNow(around);
  if (light >= 1) return 1;
  const count = collectNeighbours(lamps, x, y, largestLamp, found);
  for (let i = 0; i < count && light < 1; i++) {
    const lamp = program.ground.lamps[found[i]];
    light += added(ground, lamp.x, lamp.y, LAMP_HEIGHT, lamp, x, y);
  }
  if (largestLantern === 0) return Math.min(1, light);
  // Bodies are filed where they stood when the tick began; they have gone no farther than a step since.
  const near = collectNeighbours(places.lanterns, x, y, largestLantern + 1, found);
  for (let i = 0; i < near && light < 1; i++) {
    const { archetype, asleep, body } = agents[found[i]];
    if (asleep) continue;
    light += added(ground, body.x, body.y, LANTERN_HEIGHT, archetype.lantern!, x, y);
  }
  return Math.min(1, light);
}
