/**
 * Axis-aligned walls of one ground, indexed in square cells. Made once per ground, never changed.
 * Lengths in metres.
 */

export interface Walls {
  count: number;
  /** Left, top, right, bottom of each wall in turn. */
  edges: Float64Array;
  width: number;
  height: number;
  columns: number;
  rows: number;
  /** Wall numbers by cell. */
  cells: number[][];
}

const CELL = 2;

export interface WallBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The four edges of the ground itself hold bodies in without being walls. */
export function createWalls(width: number, height: number, boxes: readonly WallBox[]): Walls {
  const columns = Math.max(1, Math.ceil(width / CELL));
  const rows = Math.max(1, Math.ceil(height / CELL));
  const edges = new Float64Array(boxes.length * 4);
  const cells = Array.from({ length: columns * rows }, (): number[] => []);
  const walls: Walls = { count: boxes.length, edges, width, height, columns, rows, cells };
  boxes.forEach((box, i) => {
    edges.set([box.x, box.y, box.x + box.width, box.y + box.height], i * 4);
    eachCell(walls, box.x, box.y, box.x + box.width, box.y + box.height, (cell) =>
      cells[cell].push(i),
    );
  });
  return walls;
}

function column(walls: Walls, x: number): number {
  return Math.max(0, Math.min(walls.columns - 1, Math.floor(x / CELL)));
}

function row(walls: Walls, y: number): number {
  return Math.max(0, Math.min(walls.rows - 1, Math.floor(y / CELL)));
}

function eachCell(
  walls: Walls,
  left: number,
  top: number,
  right: number,
  bottom: number,
  visit: (cell: number) => void,
): void {
  const lastColumn = column(walls, right);
  const lastRow = row(walls, bottom);
  for (let r = row(walls, top); r <= lastRow; r++) {
    for (let c = column(walls, left); c <= lastColumn; c++) visit(r * walls.columns + c);
  }
}

/** How far `point` lies outside the span from `low` to `high`, with its sign. */
function outside(point: number, low: number, high: number): number {
  if (point < low) return point - low;
  return point > high ? point - high : 0;
}

/** Distance from a point to the nearest wall or edge of the ground, looked for up to `limit`; negative past the edge. */
export function clearance(walls: Walls, x: number, y: number, limit: number): number {
  const edge = Math.min(x, y, walls.width - x, walls.height - y);
  let best = limit * limit;
  const lastColumn = column(walls, x + limit);
  const lastRow = row(walls, y + limit);
  for (let r = row(walls, y - limit); r <= lastRow; r++) {
    for (let c = column(walls, x - limit); c <= lastColumn; c++) {
      for (const wall of walls.cells[r * walls.columns + c]) {
        const dx = outside(x, walls.edges[4 * wall], walls.edges[4 * wall + 2]);
        const dy = outside(y, walls.edges[4 * wall + 1], walls.edges[4 * wall + 3]);
        best = Math.min(best, dx * dx + dy * dy);
      }
    }
  }
  return Math.min(edge, Math.sqrt(best));
}

/** Whether a circle overlaps a wall or the edge of the ground. Touching is no overlap. */
export function circleBlocked(walls: Walls, x: number, y: number, radius: number): boolean {
  return clearance(walls, x, y, radius) < radius;
}

/** A circle moved out of the walls, written here: one result at a time keeps the hot path free of garbage. */
export const pushed = { x: 0, y: 0, touched: false };

/** Rounding leaves a circle that was pushed out exactly a hair inside; this much farther keeps it out. */
const SKIN = 1e-9;

/** Moves a circle whose centre is outside all walls to where it touches them at most; the result stands in {@link pushed}. */
export function pushOut(walls: Walls, x: number, y: number, radius: number): void {
  pushed.touched = false;
  pushed.x = x;
  pushed.y = y;
  for (let pass = 0; pass < 4; pass++) {
    if (!pushOnce(walls, pushed.x, pushed.y, radius)) return;
    pushed.touched = true;
  }
}

function pushOnce(walls: Walls, startX: number, startY: number, radius: number): boolean {
  let x = Math.max(radius, Math.min(walls.width - radius, startX));
  let y = Math.max(radius, Math.min(walls.height - radius, startY));
  let moved = x !== startX || y !== startY;
  const lastColumn = column(walls, startX + radius);
  const lastRow = row(walls, startY + radius);
  for (let r = row(walls, startY - radius); r <= lastRow; r++) {
    for (let c = column(walls, startX - radius); c <= lastColumn; c++) {
      for (const wall of walls.cells[r * walls.columns + c]) {
        const dx = outside(x, walls.edges[4 * wall], walls.edges[4 * wall + 2]);
        const dy = outside(y, walls.edges[4 * wall + 1], walls.edges[4 * wall + 3]);
        const square = dx * dx + dy * dy;
        if (square >= radius * radius || square === 0) continue;
        const distance = Math.sqrt(square);
        const push = (radius + SKIN - distance) / distance;
        x += dx * push;
        y += dy * push;
        moved = true;
      }
    }
  }
  pushed.x = x;
  pushed.y = y;
  return moved;
}

/** Where along the segment, 0 to 1, it enters the box; Infinity where it does not. Source: the slab method (Kay and Kajiya, 1986). */
function entry(
  x0: number,
  y0: number,
  dx: number,
  dy: number,
  left: number,
  top: number,
  right: number,
  bottom: number,
): number {
  let near = 0;
  let far = 1;
  if (dx === 0) {
    if (x0 <= left || x0 >= right) return Infinity;
  } else {
    const a = (left - x0) / dx;
    const b = (right - x0) / dx;
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  if (dy === 0) {
    if (y0 <= top || y0 >= bottom) return Infinity;
  } else {
    const a = (top - y0) / dy;
    const b = (bottom - y0) / dy;
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  return near < far ? near : Infinity;
}

/**
 * Where along the segment from (x0, y0) to (x1, y1), 0 to 1, it first meets a wall grown by `margin`
 * on all sides; 1 where it meets none. Both ends lie on the ground. With a margin the corners of walls
 * count as square.
 */
export function castRay(
  walls: Walls,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  margin = 0,
): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  let best = 1;
  const firstRow = row(walls, Math.min(y0, y1) - margin);
  const lastRow = row(walls, Math.max(y0, y1) + margin);
  for (let r = firstRow; r <= lastRow; r++) {
    // The stretch of the segment inside this row of cells bounds the columns worth a look.
    let from = 0;
    let to = 1;
    if (dy !== 0) {
      const a = (r * CELL - margin - y0) / dy;
      const b = ((r + 1) * CELL + margin - y0) / dy;
      from = Math.max(0, Math.min(a, b));
      to = Math.min(1, Math.max(a, b));
    }
    if (from > to) continue;
    const xa = x0 + dx * from;
    const xb = x0 + dx * to;
    const lastColumn = column(walls, Math.max(xa, xb) + margin);
    for (let c = column(walls, Math.min(xa, xb) - margin); c <= lastColumn; c++) {
      for (const wall of walls.cells[r * walls.columns + c]) {
        const t = entry(
          x0,
          y0,
          dx,
          dy,
          walls.edges[4 * wall] - margin,
          walls.edges[4 * wall + 1] - margin,
          walls.edges[4 * wall + 2] + margin,
          walls.edges[4 * wall + 3] + margin,
        );
        if (t < best) best = t;
      }
    }
  }
  return best;
}
