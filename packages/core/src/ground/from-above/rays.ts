import { column, row, WALL_CELL, type Walls } from './walls.ts';

/**
 * Straight lines over a ground and the walls they meet. Both ends lie on the ground; lengths in metres.
 */

/** The stretch of the last segment inside the last box it was held against, as shares of its length. */
const stretch = { near: 0, far: 0 };

/** Whether the segment from (x0, y0) by (dx, dy) passes through the box; {@link stretch} then says where. Source: the slab method (Kay and Kajiya, 1986). */
function passes(
  x0: number,
  y0: number,
  dx: number,
  dy: number,
  left: number,
  top: number,
  right: number,
  bottom: number,
): boolean {
  let near = 0;
  let far = 1;
  if (dx === 0) {
    if (x0 <= left || x0 >= right) return false;
  } else {
    const a = (left - x0) / dx;
    const b = (right - x0) / dx;
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  if (dy === 0) {
    if (y0 <= top || y0 >= bottom) return false;
  } else {
    const a = (top - y0) / dy;
    const b = (bottom - y0) / dy;
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  stretch.near = near;
  stretch.far = far;
  return near < far;
}

/** Walls near the last segment asked about, each once; those that don't stand are left out. */
const candidates: number[] = [];
let stamps = new Int32Array(0);
let asked = 0;

/** Gathers into {@link candidates} the walls of all cells that the segment comes within `margin` of; returns how many. */
function gather(
  walls: Walls,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  margin: number,
): number {
  if (stamps.length < walls.count) stamps = new Int32Array(walls.count);
  asked++;
  if (walls.count === 0) return 0;
  const { cells, columns, filled, standing } = walls;
  const dx = x1 - x0;
  const dy = y1 - y0;
  let count = 0;
  const firstRow = row(walls, Math.min(y0, y1) - margin);
  const lastRow = row(walls, Math.max(y0, y1) + margin);
  for (let r = firstRow; r <= lastRow; r++) {
    // The stretch of the segment inside this row of cells bounds the columns worth a look.
    let from = 0;
    let to = 1;
    if (dy !== 0) {
      const a = (r * WALL_CELL - margin - y0) / dy;
      const b = ((r + 1) * WALL_CELL + margin - y0) / dy;
      from = Math.max(0, Math.min(a, b));
      to = Math.min(1, Math.max(a, b));
    }
    if (from > to) continue;
    const xa = x0 + dx * from;
    const xb = x0 + dx * to;
    const lastColumn = column(walls, Math.max(xa, xb) + margin);
    for (let c = column(walls, Math.min(xa, xb) - margin); c <= lastColumn; c++) {
      if (filled[r * columns + c] === 0) continue;
      const list = cells[r * columns + c];
      for (let i = 0; i < list.length; i++) {
        const wall = list[i];
        if (stamps[wall] === asked || standing[wall] === 0) continue;
        stamps[wall] = asked;
        candidates[count++] = wall;
      }
    }
  }
  return count;
}

/**
 * Where along the segment from (x0, y0) to (x1, y1), 0 to 1, it first meets a wall grown by `margin`
 * on all sides; 1 where it meets none. With a margin the corners of walls count as square. Walls no
 * higher than `over` are no hindrance.
 */
export function castRay(
  walls: Walls,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  margin = 0,
  over = 0,
): number {
  const { edges, heights } = walls;
  const dx = x1 - x0;
  const dy = y1 - y0;
  let best = 1;
  const count = gather(walls, x0, y0, x1, y1, margin);
  for (let i = 0; i < count; i++) {
    const at = 4 * candidates[i];
    if (heights[candidates[i]] <= over) continue;
    if (
      passes(
        x0,
        y0,
        dx,
        dy,
        edges[at] - margin,
        edges[at + 1] - margin,
        edges[at + 2] + margin,
        edges[at + 3] + margin,
      ) &&
      stretch.near < best
    )
      best = stretch.near;
  }
  return best;
}

/**
 * Which of several points one above the other at (x1, y1) are in plain view from (x0, y0) at height
 * `eye`: bit i is set for the i-th of `heights`. A line is cut where it runs lower than the top of a wall.
 */
export function clearPoints(
  walls: Walls,
  x0: number,
  y0: number,
  eye: number,
  x1: number,
  y1: number,
  heights: readonly number[],
): number {
  const { edges } = walls;
  const dx = x1 - x0;
  const dy = y1 - y0;
  let clear = (1 << heights.length) - 1;
  const count = gather(walls, x0, y0, x1, y1, 0);
  for (let i = 0; i < count && clear !== 0; i++) {
    const at = 4 * candidates[i];
    if (!passes(x0, y0, dx, dy, edges[at], edges[at + 1], edges[at + 2], edges[at + 3])) continue;
    const top = walls.heights[candidates[i]];
    for (let p = 0; p < heights.length; p++) {
      const rise = heights[p] - eye;
      // A line rises or falls evenly, so it is lowest at one end of its stretch over the wall.
      const lowest = eye + rise * (rise < 0 ? stretch.far : stretch.near);
      if (lowest < top) clear &= ~(1 << p);
    }
  }
  return clear;
}

/** Metres that sound loses on the straight way through all walls higher than `over`. */
export function mufflingAlong(
  walls: Walls,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  over: number,
): number {
  const { edges, heights, muffles } = walls;
  let lost = 0;
  const count = gather(walls, x0, y0, x1, y1, 0);
  for (let i = 0; i < count; i++) {
    const wall = candidates[i];
    const at = 4 * wall;
    if (heights[wall] <= over) continue;
    if (passes(x0, y0, x1 - x0, y1 - y0, edges[at], edges[at + 1], edges[at + 2], edges[at + 3]))
      lost += muffles[wall];
  }
  return lost;
}

/** Where along a segment that begins on the ground, 0 to 1, a circle would leave it; 1 where it does not. */
export function insideShare(
  { width, height }: Walls,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  radius: number,
): number {
  const part = (from: number, to: number, size: number) => {
    const edge = to < from ? radius : size - radius;
    const beyond = to < from ? to < edge : to > edge;
    return beyond ? Math.max(0, (edge - from) / (to - from)) : 1;
  };
  return Math.min(part(x0, x1, width), part(y0, y1, height));
}
