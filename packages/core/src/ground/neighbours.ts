/** Bodies near a place: a grid of cells over the ground, filled again each tick. */

export interface Neighbours {
  columns: number;
  rows: number;
  cell: number;
  /** By cell, row by row: where its bodies begin in `filed`. At the end, how many are filed in all. */
  starts: Int32Array;
  /** Numbers of bodies, cell after cell, ascending in each: those of cells side by side stand in one stretch. */
  filed: Int32Array;
  /** By body: its cell; −1 for who is not on the ground. */
  cells: Int32Array;
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
    starts: new Int32Array(columns * rows + 1),
    filed: new Int32Array(bodies),
    cells: new Int32Array(bodies),
  };
}

function cellAt(value: number, cell: number, count: number): number {
  return Math.max(0, Math.min(count - 1, Math.floor(value / cell)));
}

export function fillNeighbours(
  { cell, columns, rows, starts, filed, cells }: Neighbours,
  bodies: readonly { x: number; y: number }[],
): void {
  starts.fill(0);
  for (let i = 0; i < bodies.length; i++) {
    const { x, y } = bodies[i];
    // Who is not on the ground has no place.
    cells[i] = x === x ? cellAt(y, cell, rows) * columns + cellAt(x, cell, columns) : -1;
    if (cells[i] >= 0) starts[cells[i]]++;
  }
  // From how many each cell has to where they end; filing them from the last on leaves where they begin.
  for (let c = 1; c < starts.length; c++) starts[c] += starts[c - 1];
  for (let i = bodies.length - 1; i >= 0; i--) if (cells[i] >= 0) filed[--starts[cells[i]]] = i;
}

/** Numbers of the bodies in all cells that touch the square of half-side `reach` around (x, y), into `found`; gives how many. */
export function collectNeighbours(
  { cell, columns, rows, starts, filed }: Neighbours,
  x: number,
  y: number,
  reach: number,
  found: number[],
): number {
  let count = 0;
  const firstColumn = cellAt(x - reach, cell, columns);
  const lastColumn = cellAt(x + reach, cell, columns);
  const lastRow = cellAt(y + reach, cell, rows);
  for (let r = cellAt(y - reach, cell, rows); r <= lastRow; r++) {
    const end = starts[r * columns + lastColumn + 1];
    for (let at = starts[r * columns + firstColumn]; at < end; at++) found[count++] = filed[at];
  }
  return count;
}
