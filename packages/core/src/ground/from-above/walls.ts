import type { Solid } from '../ground.ts';

/**
 * Axis-aligned walls of one ground, indexed in square cells. Made once per ground; all that changes
 * is which of them stand, since gates open and close. Lengths in metres.
 */

export interface Walls {
  count: number;
  /** Left, top, right, bottom of each wall in turn. */
  edges: Float64Array;
  /** Above the ground. */
  heights: Float64Array;
  /** Way that sound loses in going through. */
  muffles: Float64Array;
  /** 1 for those that stand; 0 for open gates. */
  standing: Uint8Array;
  width: number;
  height: number;
  columns: number;
  rows: number;
  /** Wall numbers by cell, and 1 for each cell that has any: most have none, and that is sooner known. */
  cells: number[][];
  filled: Uint8Array;
}

/** Side of the index's cells. */
export const WALL_CELL = 2;

/** The four edges of the ground itself hold bodies in without being walls. */
export function createWalls(width: number, height: number, boxes: readonly Solid[]): Walls {
  const columns = Math.max(1, Math.ceil(width / WALL_CELL));
  const rows = Math.max(1, Math.ceil(height / WALL_CELL));
  const edges = new Float64Array(boxes.length * 4);
  const cells = Array.from({ length: columns * rows }, (): number[] => []);
  const walls: Walls = {
    count: boxes.length,
    edges,
    heights: Float64Array.from(boxes, (box) => box.top ?? Infinity),
    muffles: Float64Array.from(boxes, (box) => box.muffles ?? 0),
    standing: new Uint8Array(boxes.length).fill(1),
    width,
    height,
    columns,
    rows,
    cells,
    filled: new Uint8Array(columns * rows),
  };
  boxes.forEach((box, i) => {
    edges.set([box.x, box.y, box.x + box.width, box.y + box.height], i * 4);
    eachCell(walls, box.x, box.y, box.x + box.width, box.y + box.height, (cell) => {
      cells[cell].push(i);
      walls.filled[cell] = 1;
    });
  });
  return walls;
}

/** The same walls with gates of their own to open and close. */
export function withOwnGates(walls: Walls): Walls {
  return { ...walls, standing: walls.standing.slice() };
}

export function column(walls: Walls, x: number): number {
  return Math.max(0, Math.min(walls.columns - 1, Math.floor(x / WALL_CELL)));
}

export function row(walls: Walls, y: number): number {
  return Math.max(0, Math.min(walls.rows - 1, Math.floor(y / WALL_CELL)));
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

/**
 * Distance from a point to the nearest wall higher than `over` or edge of the ground, looked for up to
 * `limit`; negative past the edge.
 */
export function clearance(walls: Walls, x: number, y: number, limit: number, over = 0): number {
  const edge = Math.min(x, y, walls.width - x, walls.height - y);
  let best = limit * limit;
  const lastColumn = column(walls, x + limit);
  const lastRow = row(walls, y + limit);
  for (let r = row(walls, y - limit); r <= lastRow; r++) {
    for (let c = column(walls, x - limit); c <= lastColumn; c++) {
      for (const wall of walls.cells[r * walls.columns + c]) {
        if (walls.standing[wall] === 0 || walls.heights[wall] <= over) continue;
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
        if (walls.standing[wall] === 0) continue;
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
