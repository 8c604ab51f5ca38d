/** Bodies near a place: a grid of cells over the ground, filled again each tick. */

export interface Neighbours {
  columns: number;
  rows: number;
  cell: number;
  /** First body of each cell, −1 for none; `next` chains the others. */
  heads: Int32Array;
  next: Int32Array;
}

export function createNeighbours(
  width: number,
  height: number,
  bodies: number,
  cell = 4,
): Neighbours {
  const columns = Math.max(1, Math.ceil(width / cell));
  const rows = Math.max(1, Math.ceil(height / cell));
  return {
    columns,
    rows,
    cell,
    heads: new Int32Array(columns * rows),
    next: new Int32Array(bodies),
  };
}

function cellAt(value: number, cell: number, count: number): number {
  return Math.max(0, Math.min(count - 1, Math.floor(value / cell)));
}

/** Files these bodies, or those of them that `among` has a 1 for. */
export function fillNeighbours(
  index: Neighbours,
  bodies: readonly { x: number; y: number }[],
  among?: Uint8Array,
): void {
  index.heads.fill(-1);
  // From the last to the first, so that each cell's chain runs in ascending order.
  for (let i = bodies.length - 1; i >= 0; i--) {
    if (among && among[i] === 0) continue;
    // Absent agents have no position.
    if (bodies[i].x !== bodies[i].x) continue;
    const c = cellAt(bodies[i].x, index.cell, index.columns);
    const r = cellAt(bodies[i].y, index.cell, index.rows);
    index.next[i] = index.heads[r * index.columns + c];
    index.heads[r * index.columns + c] = i;
  }
}

/** Numbers of the bodies in all cells that touch the square of half-side `reach` around (x, y), into `found`; gives how many. */
export function collectNeighbours(
  index: Neighbours,
  x: number,
  y: number,
  reach: number,
  found: number[],
): number {
  let count = 0;
  const lastColumn = cellAt(x + reach, index.cell, index.columns);
  const lastRow = cellAt(y + reach, index.cell, index.rows);
  for (let r = cellAt(y - reach, index.cell, index.rows); r <= lastRow; r++) {
    for (let c = cellAt(x - reach, index.cell, index.columns); c <= lastColumn; c++) {
      for (let i = index.heads[r * index.columns + c]; i >= 0; i = index.next[i])
        found[count++] = i;
    }
  }
  return count;
}
