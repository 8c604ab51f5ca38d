import { LEGS_MOVING } from '../../motion/legs.ts';
import { arrive, type Body, type BodyKind } from '../../motion/body.ts';

/**
 * What velocity a body wants in this tick. Forces are velocities in m/s; each gets what the ones before
 * it leave of the body's pace. Source of the steering behaviours: Reynolds, 1999; of giving them their
 * part in a fixed order: the same.
 */

export function length(x: number, y: number): number {
  return Math.sqrt(x * x + y * y);
}

/** The velocity wanted this tick, written here to keep the hot path free of garbage. */
export const wanted = { x: 0, y: 0 };

/** Metres between two bodies within which they make room for each other. */
const ROOM = 0.35;
/** Metres ahead that a body looks for others that stand in its way. */
export const AHEAD = 1.4;
/** Metres around a goal in which those who gather there crowd together. */
const CROWD = 2.5;
/** Bodies this close to each other touch. */
const TOUCHING = 0.12;
/** Ticks in a row after which a body that is held up near its goal gives up getting nearer. */
const HELD = 20;
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

/** Adds a force as far as the body's pace has room for it, and keeps what was added for whoever draws it. */
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

/** Whether another stands just where the body wants to go: whoever goes up to somebody does not shun them. */
function isAtGoal(body: Body, other: Body, reach: number): boolean {
  return length(other.x - body.goalX, other.y - body.goalY) < reach;
}

function isStanding({ legs, vx, vy }: Body): boolean {
  return legs !== LEGS_MOVING && length(vx, vy) < STANDING;
}

function sameGoal(body: Body, other: Body, reach: number): boolean {
  return length(other.goalX - body.goalX, other.goalY - body.goalY) <= reach;
}

/** Whether another has come to rest where this body wants to stand too. */
function hasSettled(body: Body, other: Body, reach: number): boolean {
  return other.legs !== LEGS_MOVING && sameGoal(body, other, reach);
}

/** Away from bodies on the move closer than {@link ROOM}; of those that stand, one keeps clear by going around. */
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
    const distance = Math.sqrt(square);
    const push = ((reach + ROOM - distance) / ROOM) * 0.5 * body.pace;
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
    // Those who go the same way need no avoiding; those who come the other way do the same.
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

/** Whether others already stand where this body wants to be, so that beside them is as near as it gets. */
function isCrowdedOut(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  near: readonly number[],
  count: number,
): boolean {
  const body = bodies[self];
  const own = length(body.goalX - body.x, body.goalY - body.y);
  for (let i = 0; i < count; i++) {
    const other = near[i];
    if (other === self) continue;
    const { x, y } = bodies[other];
    const reach = radii[self] + radii[other];
    if (length(x - body.x, y - body.y) > reach + TOUCHING) continue;
    const theirs = length(body.goalX - x, body.goalY - y);
    // Two who hold each other up are both as near as they get.
    if (body.held > HELD && sameGoal(body, bodies[other], reach)) return true;
    if (bodies[other].legs === LEGS_MOVING || theirs >= own) continue;
    if (hasSettled(body, bodies[other], reach) || theirs < reach) return true;
  }
  return false;
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
  dt: number,
): void {
  const body = bodies[self];
  const pushed = length(body.forces[4], body.forces[5]) > STANDING;
  body.held = pushed && length(body.vx, body.vy) < STANDING ? body.held + 1 : 0;
  clearForces(body);
  seekNothing();
  if (!Number.isNaN(body.steerX)) {
    const amount = length(body.steerX, body.steerY);
    const scale = amount > 1 ? body.pace / amount : body.pace;
    addForce(body, 4, body.steerX * scale, body.steerY * scale);
    return;
  }
  if (body.legs !== LEGS_MOVING) return;
  if (body.settles && isCrowdedOut(bodies, radii, self, near, count)) return standStill(body);
  seek(body, kind, dt);
  const { x, y } = wanted;
  if (x === 0 && y === 0) return;
  seekNothing();
  // Close to its goal it is not to be pushed off it again, nor where others come to rest around it.
  if (length(body.goalX - body.x, body.goalY - body.y) > (body.settles ? CROWD : ROOM)) {
    separate(bodies, radii, self, near, count);
    addForce(body, 0, force.x, force.y);
    avoid(bodies, radii, self, near, count, x, y);
    addForce(body, 2, force.x, force.y);
  }
  addForce(body, 4, x, y);
}
