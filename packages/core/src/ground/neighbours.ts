/** Bodies near a place: a grid of cells over the ground, filled again each tick. */

export interface Neighbours {
  columns: number;
  rows: number;
  cell: number;
  /** Words of 32 cells in a row. */
  words: number;
  /** A bit for each cell that any body is in: most are empty, and so many at once are passed over by a word. */
  filled: Int32Array;
  /** First body of each cell that is filled; `next` chains the others, −1 at the end. */
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
  const words = Math.ceil(columns / 32);
  return {
    columns,
    rows,
    cell,
    words,
    filled: new Int32Array(words * rows),
    heads: new Int32Array(columns * rows),
    next: new Int32Array(bodies),
  };
}

function cellAt(value: number, cell: number, count: number): number {
  return Math.max(0, Math.min(count - 1, Math.floor(value / cell)));
}

/** Files these bodies, or of them those with these numbers, which ascend. */
export function fillNeighbours(
  index: Neighbours,
  bodies: readonly { x: number; y: number }[],
  among?: Int32Array,
): void {
  const { columns, rows, cell, words, filled, heads, next } = index;
  filled.fill(0);
  // From the last to the first, so that each cell's chain runs in ascending order.
  for (let k = (among ?? bodies).length - 1; k >= 0; k--) {
    const i = among ? among[k] : k;
    const { x, y } = bodies[i];
    // Absent agents have no position.
    if (x !== x) continue;
    const c = cellAt(x, cell, columns);
    const r = cellAt(y, cell, rows);
    const at = r * columns + c;
    const word = r * words + (c >> 5);
    const bit = 1 << (c & 31);
    next[i] = (filled[word] & bit) === 0 ? -1 : heads[at];
    heads[at] = i;
    filled[word] |= bit;
  }
}

/** Numbers of the bodies in all cells that touch the square of half-side `reach` around (x, y), into `found`; returns how many. */
export function collectNeighbours(
  index: Neighbours,
  x: number,
  y: number,
  reach: number,
  found: number[],
): number {
  const { columns, rows, cell, words, filled, heads, next } = index;
  let count = 0;
  const firstColumn = cellAt(x - reach, cell, columns);
  const lastColumn = cellAt(x + reach, cell, columns);
  const firstWord = firstColumn >> 5;
  const lastWord = lastColumn >> 5;
  const lastRow = cellAt(y + reach, cell, rows);
  for (let r = cellAt(y - reach, cell, rows); r <= lastRow; r++) {
    for (let word = firstWord; word <= lastWord; word++) {
      let bits = filled[r * words + word];
      if (word === firstWord) bits &= -1 << (firstColumn & 31);
      if (word === lastWord) bits &= -1 >>> (31 - (lastColumn & 31));
      // From the lowest bit up: the columns come in ascending order.
      while (bits !== 0) {
        const bit = 31 - Math.clz32(bits & -bits);
        bits &= bits - 1;
        for (let i = heads[r * columns + 32 * word + bit]; i >= 0; i = next[i]) found[count++] = i;
      }
    }
  }
  return count;
}
