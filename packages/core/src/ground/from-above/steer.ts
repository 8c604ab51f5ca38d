import { LEGS_MOVING } from '../../motion/legs.ts';
import { arrive, type Body, type BodyKind } from '../../motion/body.ts';
import { crowding, FREE, hasSettled, THERE } from './crowd.ts';
import { length } from '../../numeric/distance.ts';
import type { Walls } from './walls.ts';

/**
 * What velocity a body wants in this tick. Forces are velocities in m/s; each gets what the ones before
 * it leave of the body's pace. Source of the steering behaviours: Reynolds, 1999; of giving them their
 * part in a fixed order: the same.
 */

/** The velocity wanted this tick, written here to keep the hot path free of garbage. */
export const wanted = { x: 0, y: 0 };

/** Metres between two bodies within which they make room for each other. */
const ROOM = 0.2;
/** Metres ahead that a body looks for others that stand in its way. */
export const AHEAD = 1.4;
/** Metres to its goal within which a body that may stand beside others there no longer keeps away from them. */
const CLOSE = 1.2;
/** Metres that count as getting on. */
const GAIN = 0.02;
/** Speed below which a body counts as standing. */
const STANDING = 0.05;

function seekNothing(): void {
  wanted.x = 0;
  wanted.y = 0;
}

function standStill(body: Body): void {
  arrive(body);
  seekNothing();
}

/** Along the path, braking for its end. */
function seek(body: Body, kind: BodyKind, dt: number): void {
  const dx = body.goalX - body.x;
  const dy = body.goalY - body.y;
  if (length(dx, dy) <= body.within) return standStill(body);
  if (body.path.length === 0) return seekNothing();
  const step = body.pace * dt;
  let last = body.pathAt + 2 >= body.path.length;
  if (
    !last &&
    length(body.path[body.pathAt] - body.x, body.path[body.pathAt + 1] - body.y) <=
      Math.max(0.1, step)
  ) {
    body.pathAt += 2;
    last = body.pathAt + 2 >= body.path.length;
  }
  const toX = body.path[body.pathAt] - body.x;
  const toY = body.path[body.pathAt + 1] - body.y;
  const distance = length(toX, toY);
  // The path's end is as near as this body gets; the goal itself may lie a little inside a wall.
  if (last && distance <= 0.01) return standStill(body);
  if (distance === 0) return seekNothing();
  const brake = last ? Math.sqrt(2 * kind.acceleration * distance) : Infinity;
  const speed = Math.min(body.pace, brake, last ? distance / dt : Infinity);
  wanted.x = (toX / distance) * speed;
  wanted.y = (toY / distance) * speed;
}

/** Adds a force as far as the body's pace has room for it, and keeps what was added, to be drawn. */
function addForce(body: Body, at: number, x: number, y: number): void {
  const used = length(wanted.x, wanted.y);
  const room = body.pace - used;
  const asked = length(x, y);
  const share = asked > room ? Math.max(0, room) / asked : 1;
  body.forces[at] = asked === 0 ? 0 : x * share;
  body.forces[at + 1] = asked === 0 ? 0 : y * share;
  wanted.x += body.forces[at];
  wanted.y += body.forces[at + 1];
}

const force = { x: 0, y: 0 };

/** Whether another stands just where the body wants to go: a body does not avoid the agent it goes up to. */
function isAtGoal(body: Body, other: Body, reach: number): boolean {
  return length(other.x - body.goalX, other.y - body.goalY) < reach;
}

function isStanding({ legs, vx, vy }: Body): boolean {
  return legs !== LEGS_MOVING && length(vx, vy) < STANDING;
}

/**
 * Whether a body has the right of way before another: the one that has less of its way to go. Who is ahead in
 * a queue is that, and of two who meet where there is room for one, the one who is let through gets ever
 * less, so that neither changes its mind.
 */
function goesFirst(bodies: readonly Body[], self: number, other: number): boolean {
  const own = bodies[self].wayLeft;
  const theirs = bodies[other].wayLeft;
  return own < theirs || (own === theirs && self < other);
}

/** Metres from where the body is to the end of its path. */
function lengthOfWay({ x, y, path, pathAt }: Body): number {
  let sum = 0;
  for (let i = pathAt; i < path.length; i += 2) {
    sum += length(path[i] - x, path[i + 1] - y);
    x = path[i];
    y = path[i + 1];
  }
  return sum;
}

/**
 * Away from bodies on the move that have the right of way and are closer than {@link ROOM}; of those that stand,
 * one keeps clear by going around.
 */
function separate(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  near: readonly number[],
  count: number,
): void {
  const body = bodies[self];
  force.x = 0;
  force.y = 0;
  for (let i = 0; i < count; i++) {
    const other = near[i];
    if (other === self) continue;
    const dx = body.x - bodies[other].x;
    const dy = body.y - bodies[other].y;
    const reach = radii[self] + radii[other];
    const square = dx * dx + dy * dy;
    if (square >= (reach + ROOM) * (reach + ROOM) || square === 0) continue;
    if (isStanding(bodies[other]) || isAtGoal(body, bodies[other], reach)) continue;
    if (goesFirst(bodies, self, other)) continue;
    const distance = Math.sqrt(square);
    const push = Math.min(1, (reach + ROOM - distance) / ROOM) * body.pace;
    force.x += (dx / distance) * push;
    force.y += (dy / distance) * push;
  }
}

/** To the side of the nearest body that is in the way of going by (x, y): one that stands, or comes the other way. */
function avoid(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  near: readonly number[],
  count: number,
  x: number,
  y: number,
): void {
  const body = bodies[self];
  force.x = 0;
  force.y = 0;
  const speed = length(x, y);
  if (speed < STANDING) return;
  const [ux, uy] = [x / speed, y / speed];
  let nearest = AHEAD;
  for (let i = 0; i < count; i++) {
    const other = near[i];
    if (other === self) continue;
    // Bodies that go the same way need no avoiding; those that come the other way do the same.
    if (bodies[other].vx * ux + bodies[other].vy * uy > 0.2 * speed) continue;
    const dx = bodies[other].x - body.x;
    const dy = bodies[other].y - body.y;
    const ahead = dx * ux + dy * uy;
    const aside = dy * ux - dx * uy;
    const reach = radii[self] + radii[other] + 0.1;
    if (ahead <= 0 || ahead - reach >= nearest || Math.abs(aside) >= reach) continue;
    if (isAtGoal(body, bodies[other], reach)) continue;
    if (body.settles && hasSettled(body, bodies[other], reach)) continue;
    nearest = ahead - reach;
    // Two who come straight at each other both step to their right.
    const side = aside > 0.05 ? 1 : -1;
    const push = (1 - Math.abs(aside) / reach) * body.pace;
    force.x = uy * side * push;
    force.y = -ux * side * push;
  }
}

function clearForces({ forces }: Body): void {
  for (let i = 0; i < forces.length; i++) forces[i] = 0;
}

/** Puts the velocity wanted by one body into {@link wanted}. */
export function steer(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  kind: BodyKind,
  near: readonly number[],
  count: number,
  walls: Walls,
  dt: number,
): void {
  const body = bodies[self];
  body.wayLeft = 0;
  clearForces(body);
  seekNothing();
  if (!Number.isNaN(body.steerX)) {
    const amount = length(body.steerX, body.steerY);
    const scale = amount > 1 ? body.pace / amount : body.pace;
    addForce(body, 4, body.steerX * scale, body.steerY * scale);
    return;
  }
  if (body.legs !== LEGS_MOVING) return;
  body.wayLeft = lengthOfWay(body);
  body.held += dt;
  if (body.wayLeft < body.leastLeft - GAIN) {
    body.leastLeft = body.wayLeft;
    body.held = 0;
  }
  const crowd = body.settles ? crowding(bodies, radii, self, near, count, walls) : FREE;
  if (crowd === THERE) return standStill(body);
  seek(body, kind, dt);
  const { x, y } = wanted;
  if (x === 0 && y === 0) return;
  seekNothing();
  if (crowd !== FREE) return addForce(body, 4, -y * crowd, x * crowd);
  // Close to its goal it is not to be pushed off it again, nor where others come to rest around it.
  if (body.wayLeft > (body.settles ? CLOSE : ROOM)) {
    separate(bodies, radii, self, near, count);
    addForce(body, 0, force.x, force.y);
    avoid(bodies, radii, self, near, count, x, y);
    addForce(body, 2, force.x, force.y);
  }
  addForce(body, 4, x, y);
}
