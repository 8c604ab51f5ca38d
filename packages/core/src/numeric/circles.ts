import { atan2, cos, sin, wrapAngle } from './trigonometry.ts';

/** Circles that are swept along a line, and sectors. */

/**
 * Where along a way by (dx, dy) from the origin, 0 to 1, a point first comes within `reach` of (x, y);
 * Infinity where it never does. One that is within at the beginning meets it at 0.
 */
export function firstContact(x: number, y: number, dx: number, dy: number, reach: number): number {
  const c = x * x + y * y - reach * reach;
  if (c <= 0) return 0;
  const a = dx * dx + dy * dy;
  const b = x * dx + y * dy;
  const root = b * b - a * c;
  // Away from it, past it, or not moving at all.
  if (b <= 0 || root < 0) return Infinity;
  const share = (b - Math.sqrt(root)) / a;
  return share <= 1 ? share : Infinity;
}

/** Distance from a point to the segment from the origin in direction `angle`, `length` long. */
function toEdge(x: number, y: number, angle: number, length: number): number {
  const [dx, dy] = [cos(angle), sin(angle)];
  const along = Math.max(0, Math.min(length, x * dx + y * dy));
  const [ox, oy] = [x - dx * along, y - dy * along];
  return Math.sqrt(ox * ox + oy * oy);
}

/**
 * How far a circle is from a sector, in metres; 0 where they meet. The sector has its point at the origin
 * and looks toward `heading`.
 */
export function gapToSector(
  x: number,
  y: number,
  radius: number,
  heading: number,
  halfArc: number,
  reach: number,
): number {
  const away = Math.sqrt(x * x + y * y);
  const off = Math.abs(wrapAngle(atan2(y, x) - heading));
  if (away <= radius || off <= halfArc) return Math.max(0, away - radius - reach);
  const edge = Math.min(
    toEdge(x, y, heading + halfArc, reach),
    toEdge(x, y, heading - halfArc, reach),
  );
  return Math.max(0, edge - radius);
}
