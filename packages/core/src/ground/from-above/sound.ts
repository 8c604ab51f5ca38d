import { findPath } from './path.ts';
import { mufflingAlong } from './rays.ts';
import type { Walkable } from './walkable.ts';
import type { Walls } from './walls.ts';

/**
 * The way of sound: the shorter of two, straight, where every wall costs its muffling in metres, or
 * around through openings.
 */

/** Sound goes over walls that are no higher, in metres. */
export const SOUND_HEIGHT = 1.2;
/** Breadth of what sound needs to get through, as a radius. */
export const SOUND_RADIUS = 0.05;

function pathLength(x: number, y: number, points: readonly number[]): number {
  let length = 0;
  let [fromX, fromY] = [x, y];
  for (let i = 0; i < points.length; i += 2) {
    const dx = points[i] - fromX;
    const dy = points[i + 1] - fromY;
    length += Math.sqrt(dx * dx + dy * dy);
    fromX = points[i];
    fromY = points[i + 1];
  }
  return length;
}

/**
 * Metres that sound goes from (x0, y0) to (x1, y1); Infinity where it is `limit` or more. `openings` is
 * where sound can go around: the area a body without breadth could walk, were it as high as sound.
 */
export function soundLength(
  walls: Walls,
  openings: Walkable,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  limit: number,
): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const straight = Math.sqrt(dx * dx + dy * dy);
  if (straight >= limit) return Infinity;
  const muffled = straight + mufflingAlong(walls, x0, y0, x1, y1, openings.over);
  if (muffled === straight) return straight;
  const around = findPath(walls, openings, x0, y0, x1, y1, Math.min(limit, muffled));
  const length = around.ok ? pathLength(x0, y0, around.points) : Infinity;
  const best = Math.min(muffled, length);
  return best < limit ? best : Infinity;
}
