import {
  LEGS_ARRIVED,
  LEGS_FAILED,
  LEGS_IDLE,
  LEGS_MOVING,
  type LegsStatus,
} from '../mind/host.ts';
import { atan2, wrapAngle } from '../numeric/trigonometry.ts';
import { findPath } from './path.ts';
import { circleBlocked, pushed, pushOut, type Walls } from '../space/walls.ts';
import type { Walkable } from './walkable.ts';

/** What a body is capable of; radians and metres, shared by all bodies of an archetype. */
export interface BodyKind {
  radius: number;
  acceleration: number;
  turnRate: number;
}

/** One body and the commands it has. Plain numbers and arrays only. */
export interface Body {
  x: number;
  y: number;
  heading: number;
  vx: number;
  vy: number;
  /** m/s of the chosen gait. */
  pace: number;
  legs: LegsStatus;
  goalX: number;
  goalY: number;
  within: number;
  /** Way to the goal as x, y pairs, and the pair walked to now. */
  path: number[];
  pathAt: number;
  /** Where the path ends; the goal may have moved on since. */
  pathX: number;
  pathY: number;
  /** Heading to turn to; NaN to look where it goes. */
  eyes: number;
  /** Direct steering by a player, −1 to 1 each way; NaN for none. */
  steerX: number;
  steerY: number;
}

export function createBody(x: number, y: number, heading: number, pace: number): Body {
  return {
    x,
    y,
    heading,
    vx: 0,
    vy: 0,
    pace,
    legs: LEGS_IDLE,
    goalX: NaN,
    goalY: NaN,
    within: 0,
    path: [],
    pathAt: 0,
    pathX: NaN,
    pathY: NaN,
    eyes: NaN,
    steerX: NaN,
    steerY: NaN,
  };
}

/** A goal this close to the path's end needs no new path. */
const PATH_TOLERANCE = 0.25;

export function commandLegs(body: Body, x: number, y: number, within: number): void {
  body.goalX = x;
  body.goalY = y;
  body.within = within;
  if (body.legs !== LEGS_MOVING) body.pathX = NaN;
  body.legs = LEGS_MOVING;
}

export function stopLegs(body: Body): void {
  body.legs = LEGS_IDLE;
  body.path.length = 0;
  body.pathX = NaN;
}

function length(x: number, y: number): number {
  return Math.sqrt(x * x + y * y);
}

/** The velocity wanted this tick, written here to keep the hot path free of garbage. */
const wanted = { x: 0, y: 0 };

function wantNothing(): void {
  wanted.x = 0;
  wanted.y = 0;
}

function followPath(
  body: Body,
  kind: BodyKind,
  walls: Walls,
  walkable: Walkable,
  dt: number,
): void {
  const dx = body.goalX - body.x;
  const dy = body.goalY - body.y;
  if (length(dx, dy) <= body.within) {
    stopLegs(body);
    body.legs = LEGS_ARRIVED;
    return wantNothing();
  }
  if (!(length(body.goalX - body.pathX, body.goalY - body.pathY) <= PATH_TOLERANCE)) {
    const result = findPath(walls, walkable, body.x, body.y, body.goalX, body.goalY);
    if (!result.ok) {
      stopLegs(body);
      body.legs = LEGS_FAILED;
      return wantNothing();
    }
    body.path = result.points;
    body.pathAt = 0;
    body.pathX = body.goalX;
    body.pathY = body.goalY;
  }
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
  if (last && distance <= 0.01) {
    // The path's end is as near as this body gets; the goal itself may lie a little inside a wall.
    stopLegs(body);
    body.legs = LEGS_ARRIVED;
    return wantNothing();
  }
  const brake = last ? Math.sqrt(2 * kind.acceleration * distance) : Infinity;
  const speed = Math.min(body.pace, brake, last ? distance / dt : Infinity);
  wanted.x = (toX / distance) * speed;
  wanted.y = (toY / distance) * speed;
}

function want(body: Body, kind: BodyKind, walls: Walls, walkable: Walkable, dt: number): void {
  if (!Number.isNaN(body.steerX)) {
    const amount = length(body.steerX, body.steerY);
    const scale = amount > 1 ? body.pace / amount : body.pace;
    wanted.x = body.steerX * scale;
    wanted.y = body.steerY * scale;
  } else if (body.legs === LEGS_MOVING) {
    followPath(body, kind, walls, walkable, dt);
  } else {
    wantNothing();
  }
}

function turn(body: Body, kind: BodyKind, dt: number): void {
  let goal = body.eyes;
  if (Number.isNaN(goal)) {
    if (length(wanted.x, wanted.y) < 0.05) return;
    goal = atan2(wanted.y, wanted.x);
  }
  const limit = kind.turnRate * dt;
  const change = wrapAngle(goal - body.heading);
  body.heading = wrapAngle(body.heading + Math.max(-limit, Math.min(limit, change)));
}

/** Whether the circle at (x, y) overlaps another body. Others are given by number. */
function overlapsBody(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  x: number,
  y: number,
  near: number[],
  count: number,
): boolean {
  for (let i = 0; i < count; i++) {
    const other = near[i];
    if (other === self) continue;
    const reach = radii[self] + radii[other];
    const dx = x - bodies[other].x;
    const dy = y - bodies[other].y;
    if (dx * dx + dy * dy < reach * reach) return true;
  }
  return false;
}

/** Takes from a move what would lead into other bodies, so that it slides along them. */
function slideAlongBodies(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  move: { x: number; y: number },
  near: number[],
  count: number,
): void {
  const body = bodies[self];
  for (let i = 0; i < count; i++) {
    const other = near[i];
    if (other === self) continue;
    const reach = radii[self] + radii[other];
    const dx = body.x + move.x - bodies[other].x;
    const dy = body.y + move.y - bodies[other].y;
    const distance = length(dx, dy);
    if (distance >= reach || distance === 0) continue;
    const push = (reach + 1e-9 - distance) / distance;
    move.x += dx * push;
    move.y += dy * push;
  }
}

const move = { x: 0, y: 0 };

/**
 * Moves one body by one tick of `dt` seconds: steering, velocity, collision, position. It slides along
 * walls and bodies; where that leaves an overlap it stays where it was.
 */
export function moveBody(
  bodies: readonly Body[],
  radii: readonly number[],
  self: number,
  kind: BodyKind,
  walls: Walls,
  walkable: Walkable,
  near: number[],
  count: number,
  dt: number,
): void {
  const body = bodies[self];
  want(body, kind, walls, walkable, dt);
  turn(body, kind, dt);
  const dvx = wanted.x - body.vx;
  const dvy = wanted.y - body.vy;
  const change = length(dvx, dvy);
  const limit = kind.acceleration * dt;
  const share = change > limit ? limit / change : 1;
  body.vx += dvx * share;
  body.vy += dvy * share;
  if (body.vx === 0 && body.vy === 0) return;
  const startX = body.x;
  const startY = body.y;
  // Steps no longer than half the radius can't pass through a wall.
  const steps = Math.max(1, Math.ceil((length(body.vx, body.vy) * dt) / (kind.radius / 2)));
  for (let i = 0; i < steps; i++) {
    move.x = (body.vx * dt) / steps;
    move.y = (body.vy * dt) / steps;
    slideAlongBodies(bodies, radii, self, move, near, count);
    pushOut(walls, body.x + move.x, body.y + move.y, kind.radius);
    const { x, y } = pushed;
    if (
      circleBlocked(walls, x, y, kind.radius) ||
      overlapsBody(bodies, radii, self, x, y, near, count)
    )
      break;
    body.x = x;
    body.y = y;
  }
  // The velocity is what came of it, so that a body held by a wall does not press on.
  body.vx = (body.x - startX) / dt;
  body.vy = (body.y - startY) / dt;
}
