import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import { circleBlocked, pushed, pushOut, type Walls } from './walls.ts';
import type { Body, BodyKind } from '../../motion/body.ts';
import { length } from '../../numeric/distance.ts';
import { steer, wanted } from './steer.ts';

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
  near: number[],
  count: number,
  dt: number,
): void {
  const body = bodies[self];
  steer(bodies, radii, self, kind, near, count, walls, dt);
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
