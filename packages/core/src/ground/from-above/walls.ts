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
  /**
   * How far it is to anything solid, at least; shared by all runs, since gates count as closed in it. Null where no
   * bodies move: checks and pictures make new walls with each edit, and ask each place once.
   */
  room: Room | null;
}

/** By cell of its own: metres that any place in it is away from all walls and edges, at least; NaN until asked for. */
interface Room {
  cell: number;
  columns: number;
  rows: number;
  least: Float32Array;
}

/** Side of the index's cells. */
export const WALL_CELL = 2;
/** Side of the cells that room is known for, where the ground has no more than so many of them. */
const ROOM_CELL = 0.5;
const ROOM_CELLS = 1_000_000;
/** As much room is looked for. */
const ROOM_ENOUGH = 3;

/** The same walls, for bodies that move among them. */
export function withRoom(walls: Walls): Walls & { room: Room } {
  const { width, height } = walls;
  const cell = Math.max(ROOM_CELL, Math.sqrt((width * height) / ROOM_CELLS));
  const columns = Math.max(1, Math.ceil(width / cell));
  const rows = Math.max(1, Math.ceil(height / cell));
  const least = new Float32Array(columns * rows).fill(NaN);
  return { ...walls, room: { cell, columns, rows, least } };
}

/**
 * Whether a circle touches nothing wherever the gates stand: most bodies are in the open most of the time, and
 * one number tells it. False where that number does not suffice.
 */
export function isInTheOpen(walls: Walls, x: number, y: number, radius: number): boolean {
  if (walls.room === null) return false;
  const { cell, columns, rows, least } = walls.room;
  const c = Math.floor(x / cell);
  const r = Math.floor(y / cell);
  if (!(c >= 0 && r >= 0 && c < columns && r < rows)) return false;
  const at = r * columns + c;
  let room = least[at];
  if (room !== room) least[at] = room = leastRoom(walls, (c + 0.5) * cell, (r + 0.5) * cell, cell);
  return room > radius;
}

/** Room around a cell's middle, less what a place in the cell can be nearer; rounding can't make it more. */
function leastRoom(walls: Walls, x: number, y: number, cell: number): number {
  return clearance(walls, x, y, ROOM_ENOUGH, 0, true) - cell * HALF_DIAGONAL;
}

/** Half of the diagonal of a square of side 1, and a little more. */
const HALF_DIAGONAL = 0.7072;

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
    room: null,
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
 * `limit`; negative past the edge. With `gatesClosed` open gates count too.
 */
export function clearance(
  walls: Walls,
  x: number,
  y: number,
  limit: number,
  over = 0,
  gatesClosed = false,
): number {
  const edge = Math.min(x, y, walls.width - x, walls.height - y);
  let best = limit * limit;
  const lastColumn = column(walls, x + limit);
  const lastRow = row(walls, y + limit);
  for (let r = row(walls, y - limit); r <= lastRow; r++) {
    for (let c = column(walls, x - limit); c <= lastColumn; c++) {
      for (const wall of walls.cells[r * walls.columns + c]) {
        if ((walls.standing[wall] === 0 && !gatesClosed) || walls.heights[wall] <= over) continue;
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
  if (isInTheOpen(walls, x, y, radius)) return false;
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
  if (isInTheOpen(walls, x, y, radius)) return;
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
