import type { Body } from '../../motion/body.ts';
import { LEGS_MOVING } from '../../motion/legs.ts';
import { cos, sin } from '../../numeric/trigonometry.ts';
import { length } from '../../numeric/distance.ts';
import { castRay } from './rays.ts';
import { circleBlocked, type Walls } from './walls.ts';

/** Where bodies come to rest that want to stand at one place. */

/** Metres between bodies that count as touching. */
const TOUCHING = 0.12;
/** Seconds without getting nearer after which a body looks for a place beside the bodies that are there. */
const HELD = 1 / 3;
/** Seconds after which it makes do with where it stands. */
const PATIENCE = 3;
/** In so many steps it is looked half way around the goal. */
const STEPS = 12;
/** Bodies may stand this share of their radii nearer to a place that is looked for than touching; they slide into it. */
const SQUEEZE = 0.95;

/** No other body stands where the body wants to be. */
export const FREE = 0;
/** Others do, and around them there is a place nearer the goal: this way or that. */
const TO_ONE_SIDE = 1;
const TO_THE_OTHER = -1;
/** Others do, and here is as near as it gets. */
export const THERE = 2;

export type Crowding = typeof FREE | typeof TO_ONE_SIDE | typeof TO_THE_OTHER | typeof THERE;

function sameGoal(body: Body, other: Body, reach: number): boolean {
  return length(other.goalX - body.goalX, other.goalY - body.goalY) <= reach;
}

/** Whether another has come to rest where this body wants to stand too. */
export function hasSettled(body: Body, other: Body, reach: number): boolean {
  return other.legs !== LEGS_MOVING && sameGoal(body, other, reach);
}

/** Whether a body that touches others at its goal, or on their way there, can get nearer, and how. */
export function crowding(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  near: readonly number[],
  count: number,
  walls: Walls,
): Crowding {
  const body = bodies[self];
  if (body.held <= HELD) return FREE;
  const own = length(body.goalX - body.x, body.goalY - body.y);
  for (let i = 0; i < count; i++) {
    const other = near[i];
    if (other === self) continue;
    const { x, y, legs } = bodies[other];
    const reach = radii[self] + radii[other];
    if (length(x - body.x, y - body.y) > reach + TOUCHING) continue;
    const theirs = length(body.goalX - x, body.goalY - y);
    const isAtGoal = theirs < reach || hasSettled(body, bodies[other], reach);
    if (legs !== LEGS_MOVING && isAtGoal) {
      // Two that stand farther out than it may hold it between them, so it counts wherever they stand.
      if (body.held > PATIENCE && seesGoal(body, radii[self], walls)) return THERE;
      if (theirs < own) return placeAround(bodies, radii, self, walls);
    }
    // Bodies blocking each other at the goal have arrived.
    if (own <= reach && sameGoal(body, bodies[other], reach)) return THERE;
  }
  return FREE;
}

/** Whether nothing but bodies is between a body and its goal. */
function seesGoal({ x, y, goalX, goalY }: Body, radius: number, walls: Walls): boolean {
  return castRay(walls, x, y, goalX, goalY, SQUEEZE * radius) === 1;
}

/** The shorter way around the goal to a place for the body that is nearer to it than it has come so far. */
function placeAround(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  walls: Walls,
): Crowding {
  const { x, y, goalX, goalY, leastLeft } = bodies[self];
  const radius = radii[self];
  const own = length(x - goalX, y - goalY);
  const share = (Math.min(own, leastLeft) - radius) / own;
  if (share <= 0) return THERE;
  for (let step = 1; step <= STEPS; step++) {
    const c = share * cos((Math.PI * step) / STEPS);
    const s = share * sin((Math.PI * step) / STEPS);
    for (const side of [TO_ONE_SIDE, TO_THE_OTHER] as const) {
      const placeX = goalX + (x - goalX) * c + (y - goalY) * s * side;
      const placeY = goalY + (y - goalY) * c - (x - goalX) * s * side;
      if (circleBlocked(walls, placeX, placeY, radius)) continue;
      if (isTaken(bodies, radii, self, placeX, placeY)) continue;
      // A place behind a wall is near only as the crow flies.
      if (castRay(walls, goalX, goalY, placeX, placeY, 0) === 1) return side;
    }
  }
  return THERE;
}

function isTaken(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  x: number,
  y: number,
): boolean {
  for (let other = 0; other < bodies.length; other++) {
    if (other === self) continue;
    if (length(bodies[other].x - x, bodies[other].y - y) < SQUEEZE * (radii[self] + radii[other]))
      return true;
  }
  return false;
}
