import { clearance, type Walls } from './walls.ts';

/** Where the centre of a body of one size can be: square cells over the ground. */
export interface Walkable {
  columns: number;
  rows: number;
  cell: number;
  radius: number;
  /** Walls no higher than this are no hindrance; 0 for bodies. */
  over: number;
  /** 1 where the body fits with its centre in the middle of the cell. */
  open: Uint8Array;
  /** The same with all gates open; itself where there are none. */
  ungated: Walkable;
  /** Number of the connected area each cell belongs to, −1 for closed cells; null until asked for. */
  islands: Int32Array | null;
}

/** Metres; fine enough for gaps a quarter wider than the smallest body. */
const CELL = 0.25;

/** Of `walls` as they stand. */
export function createWalkable(walls: Walls, radius: number, over = 0): Walkable {
  const columns = Math.max(1, Math.floor(walls.width / CELL));
  const rows = Math.max(1, Math.floor(walls.height / CELL));
  const open = new Uint8Array(columns * rows);
  const walkable = { columns, rows, cell: CELL, radius, over, open, islands: null } as Walkable;
  walkable.ungated = walkable;
  lookAgain(walkable, walls, 0, 0, walls.width, walls.height);
  return walkable;
}

/** A copy whose cells may change as gates do. */
export function withOwnCells(walkable: Walkable): Walkable {
  return { ...walkable, open: walkable.open.slice(), islands: null };
}

/** Brings the cells around a box up to the walls as they stand now. */
export function lookAgain(
  walkable: Walkable,
  walls: Walls,
  left: number,
  top: number,
  right: number,
  bottom: number,
): void {
  const { columns, rows, cell, radius, over, open } = walkable;
  const first = (low: number) => Math.max(0, Math.floor((low - radius) / cell));
  const last = (high: number, count: number) =>
    Math.min(count - 1, Math.floor((high + radius) / cell));
  for (let r = first(top); r <= last(bottom, rows); r++) {
    for (let c = first(left); c <= last(right, columns); c++) {
      const free = clearance(walls, (c + 0.5) * cell, (r + 0.5) * cell, radius + cell, over);
      open[r * columns + c] = free >= radius ? 1 : 0;
    }
  }
  walkable.islands = null;
}

/** The connected areas, numbered from 0. Diagonal steps need both cells beside them, so four neighbours tell. */
export function islandsOf(walkable: Walkable): Int32Array {
  if (walkable.islands) return walkable.islands;
  const { columns, rows, open } = walkable;
  const islands = new Int32Array(open.length).fill(-1);
  const queue = new Int32Array(open.length);
  let count = 0;
  for (let seed = 0; seed < open.length; seed++) {
    if (open[seed] === 0 || islands[seed] >= 0) continue;
    let head = 0;
    let tail = 1;
    queue[0] = seed;
    islands[seed] = count;
    const visit = (cell: number) => {
      if (open[cell] === 0 || islands[cell] >= 0) return;
      islands[cell] = count;
      queue[tail++] = cell;
    };
    while (head < tail) {
      const cell = queue[head++];
      const column = cell % columns;
      if (column > 0) visit(cell - 1);
      if (column + 1 < columns) visit(cell + 1);
      if (cell >= columns) visit(cell - columns);
      if (cell + columns < columns * rows) visit(cell + columns);
    }
    count++;
  }
  walkable.islands = islands;
  return islands;
}

/** The cell a place lies in; places off the ground count to the nearest cell. */
export function cellAt({ columns, rows, cell }: Walkable, x: number, y: number): number {
  const c = Math.max(0, Math.min(columns - 1, Math.floor(x / cell)));
  const r = Math.max(0, Math.min(rows - 1, Math.floor(y / cell)));
  return r * columns + c;
}

/** Middle of a cell. */
export function middleX({ columns, cell }: Walkable, index: number): number {
  return ((index % columns) + 0.5) * cell;
}
export function middleY({ columns, cell }: Walkable, index: number): number {
  return (Math.floor(index / columns) + 0.5) * cell;
}

/** The open cell nearest to a place, looked for within `reach` metres; −1 where there is none. */
export function nearestOpen(walkable: Walkable, x: number, y: number, reach: number): number {
  const { columns, rows, cell, open } = walkable;
  const here = cellAt(walkable, x, y);
  if (open[here] === 1) return here;
  const c0 = here % columns;
  const r0 = (here - c0) / columns;
  const steps = Math.ceil(reach / cell);
  let best = -1;
  let bestDistance = reach * reach;
  for (let r = Math.max(0, r0 - steps); r <= Math.min(rows - 1, r0 + steps); r++) {
    for (let c = Math.max(0, c0 - steps); c <= Math.min(columns - 1, c0 + steps); c++) {
      if (open[r * columns + c] === 0) continue;
      const dx = (c + 0.5) * cell - x;
      const dy = (r + 0.5) * cell - y;
      const distance = dx * dx + dy * dy;
      if (distance < bestDistance) {
        best = r * columns + c;
        bestDistance = distance;
      }
    }
  }
  return best;
}
