import { clearance, type Walls } from '../space/walls.ts';

/** Where the centre of a body of one size can be: square cells over the ground. */
export interface Walkable {
  columns: number;
  rows: number;
  cell: number;
  radius: number;
  /** 1 where the body fits with its centre in the middle of the cell. */
  open: Uint8Array;
}

/** Metres; fine enough for gaps a quarter wider than the smallest body. */
const CELL = 0.25;

export function createWalkable(walls: Walls, radius: number): Walkable {
  const columns = Math.max(1, Math.floor(walls.width / CELL));
  const rows = Math.max(1, Math.floor(walls.height / CELL));
  const open = new Uint8Array(columns * rows);
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const free = clearance(walls, (c + 0.5) * CELL, (r + 0.5) * CELL, radius + CELL);
      open[r * columns + c] = free >= radius ? 1 : 0;
    }
  }
  return { columns, rows, cell: CELL, radius, open };
}

/** The open cell nearest to a place, looked for within `reach` metres; −1 where there is none. */
export function nearestOpen(walkable: Walkable, x: number, y: number, reach: number): number {
  const { columns, rows, cell, open } = walkable;
  const c0 = Math.max(0, Math.min(columns - 1, Math.floor(x / cell)));
  const r0 = Math.max(0, Math.min(rows - 1, Math.floor(y / cell)));
  if (open[r0 * columns + c0] === 1) return r0 * columns + c0;
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
