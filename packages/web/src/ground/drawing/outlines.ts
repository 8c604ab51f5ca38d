import type { GroundSpace } from '@crooked-lantern/core';
import { toX, toY, type Painter } from './view.ts';

/**
 * What can be seen or lit from a place: rays around it, each ending where a wall stops it. Casting rays
 * is the dearest part of a picture, so an outline is kept until its source has moved far enough to show.
 */

export interface Fan {
  x: number;
  y: number;
  /** Radians; of no meaning to a fan all around. */
  heading: number;
  reach: number;
  /** Radians to each side; π for all around. */
  halfAngle: number;
  /** Only what is higher stops a ray, in metres. */
  over: number;
}

interface Kept {
  space: GroundSpace;
  scale: number;
  fan: Fan;
  /** [x, y, …] in metres from the source. */
  points: Float32Array;
}

/** Outlines of the frame before, by whatever names a source. */
export type KeptOutlines = Map<string | number, Kept>;

/** Pixels along its rim for each ray of a fan. */
const RAY_PIXELS = 7;
const FEWEST_RAYS = 4;
const MOST_RAYS = 72;
/** How far a source may move, and turn, before its outline is cast again. */
const MOVED_PIXELS = 0.75;
const TURNED = 0.03;

/** Share of a way along one axis that lies between 0 and `end`. */
function roomFor(from: number, way: number, end: number): number {
  if (from + way > end) return (end - from) / way;
  return from + way < 0 ? -from / way : 1;
}

function castFan(space: GroundSpace, scale: number, fan: Fan): Float32Array {
  const { x, y, heading, reach, halfAngle, over } = fan;
  const rim = (2 * halfAngle * reach * scale) / RAY_PIXELS;
  const steps = Math.round(
    Math.min(MOST_RAYS, Math.max(FEWEST_RAYS * Math.max(1, halfAngle), rim)),
  );
  const points = new Float32Array(2 * (steps + 1));
  for (let i = 0; i <= steps; i++) {
    const angle = heading + halfAngle * (2 * (i / steps) - 1);
    const [wantedX, wantedY] = [Math.cos(angle) * reach, Math.sin(angle) * reach];
    const onGround = Math.min(roomFor(x, wantedX, space.width), roomFor(y, wantedY, space.height));
    const [dx, dy] = [wantedX * onGround, wantedY * onGround];
    const t = space.castRay(x, y, x + dx, y + dy, 0, over);
    points[2 * i] = dx * t;
    points[2 * i + 1] = dy * t;
  }
  return points;
}

function isStill(before: Fan, now: Fan, scale: number): boolean {
  const moved = Math.abs(now.x - before.x) + Math.abs(now.y - before.y);
  return (
    moved * scale < MOVED_PIXELS &&
    Math.abs(now.heading - before.heading) < TURNED &&
    now.reach === before.reach &&
    now.halfAngle === before.halfAngle
  );
}

/** The outline of a fan from its source, in metres: [x, y, …]. */
export function outlineOf(
  kept: KeptOutlines,
  name: string | number,
  space: GroundSpace,
  scale: number,
  fan: Fan,
): Float32Array {
  const before = kept.get(name);
  if (before?.space === space && before.scale === scale && isStill(before.fan, fan, scale))
    return before.points;
  const points = castFan(space, scale, fan);
  kept.set(name, { space, scale, fan, points });
  return points;
}

/** Adds an outline around (x, y) to the path that is being drawn; a cone begins at its source. */
export function addOutline(
  { context, view }: Painter,
  x: number,
  y: number,
  points: Float32Array,
  fromSource = false,
): void {
  const [left, top] = [toX(view, x), toY(view, y)];
  if (fromSource) context.moveTo(left, top);
  for (let i = 0; i < points.length; i += 2) {
    const [px, py] = [left + points[i] * view.scale, top + points[i + 1] * view.scale];
    if (i === 0 && !fromSource) context.moveTo(px, py);
    else context.lineTo(px, py);
  }
  // Filling closes it; closing each of many outlines in one path takes ever longer.
}
