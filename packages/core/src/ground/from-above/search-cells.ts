import { createHeap, pop, push, type Heap } from './heap.ts';
import type { Walkable } from './walkable.ts';

/**
 * Shortest ways over walkable cells, with eight neighbours; a diagonal step needs both cells beside it
 * open. One way by A* (Hart, Nilsson and Raphael, 1968) with the octile distance as its estimate, or
 * the ways from everywhere to one goal as a field (Dijkstra, 1959). Costs are in cells.
 */

const STRAIGHT = 1;
const DIAGONAL = Math.SQRT2;

/** Working memory of a search over so many cells, kept between searches; a cell is fresh when its stamp is the search's. */
interface Workspace {
  cost: Float64Array;
  from: Int32Array;
  stamp: Int32Array;
  closed: Int32Array;
  search: number;
  heap: Heap;
}

let workspace: Workspace = workspaceFor(0);

function workspaceFor(count: number): Workspace {
  return {
    cost: new Float64Array(count),
    from: new Int32Array(count),
    stamp: new Int32Array(count),
    closed: new Int32Array(count),
    search: 0,
    heap: createHeap(),
  };
}

function freshWorkspace(count: number): Workspace {
  if (workspace.cost.length < count) workspace = workspaceFor(count);
  workspace.search++;
  workspace.heap.size = 0;
  return workspace;
}

/** Offsets of the eight neighbours: straight ones first, so that of equal ways the plainer is found. */
const STEP_C = [1, -1, 0, 0, 1, 1, -1, -1];
const STEP_R = [0, 0, 1, -1, 1, -1, 1, -1];

/** Cells from start to goal, both included; null where there is no way, or none shorter than `limit` cells. */
export function findCells(
  { columns, rows, open }: Walkable,
  start: number,
  goal: number,
  limit = Infinity,
): number[] | null {
  const space = freshWorkspace(open.length);
  const { cost, from, stamp, closed, search, heap } = space;
  const goalColumn = goal % columns;
  const goalRow = (goal - goalColumn) / columns;
  cost[start] = 0;
  from[start] = -1;
  stamp[start] = search;
  push(heap, start, 0);
  while (heap.size > 0) {
    const cell = pop(heap);
    if (cell === goal) return trace(from, goal);
    if (closed[cell] === search) continue;
    closed[cell] = search;
    const c = cell % columns;
    const r = (cell - c) / columns;
    for (let step = 0; step < 8; step++) {
      const nc = c + STEP_C[step];
      const nr = r + STEP_R[step];
      if (nc < 0 || nr < 0 || nc >= columns || nr >= rows) continue;
      const next = nr * columns + nc;
      if (open[next] === 0 || closed[next] === search) continue;
      const slanted = step >= 4;
      if (slanted && (open[r * columns + nc] === 0 || open[nr * columns + c] === 0)) continue;
      const reached = cost[cell] + (slanted ? DIAGONAL : STRAIGHT);
      if (stamp[next] === search && reached >= cost[next]) continue;
      const dc = Math.abs(nc - goalColumn);
      const dr = Math.abs(nr - goalRow);
      const left = dc > dr ? dc + (DIAGONAL - 1) * dr : dr + (DIAGONAL - 1) * dc;
      if (reached + left > limit) continue;
      stamp[next] = search;
      cost[next] = reached;
      from[next] = cell;
      push(heap, next, reached + left);
    }
  }
  return null;
}

function trace(from: Int32Array, goal: number): number[] {
  const cells: number[] = [];
  for (let cell = goal; cell >= 0; cell = from[cell]) cells.push(cell);
  return cells.reverse();
}

/** For every cell the next one on a shortest way to the goal; −1 for the goal itself, −2 where there is no way. */
export type Field = Int32Array;

/** The field towards a goal, as far as it takes to reach all of `starts`. */
export function createField(
  { columns, rows, open }: Walkable,
  goal: number,
  starts: readonly number[],
): Field {
  const { cost, closed, stamp, search, heap } = freshWorkspace(open.length);
  const field = new Int32Array(open.length).fill(-2);
  const wanted = new Set(starts);
  field[goal] = -1;
  cost[goal] = 0;
  stamp[goal] = search;
  push(heap, goal, 0);
  while (heap.size > 0 && wanted.size > 0) {
    const cell = pop(heap);
    if (closed[cell] === search) continue;
    closed[cell] = search;
    wanted.delete(cell);
    const c = cell % columns;
    const r = (cell - c) / columns;
    for (let step = 0; step < 8; step++) {
      const nc = c + STEP_C[step];
      const nr = r + STEP_R[step];
      if (nc < 0 || nr < 0 || nc >= columns || nr >= rows) continue;
      const next = nr * columns + nc;
      if (open[next] === 0 || closed[next] === search) continue;
      const slanted = step >= 4;
      if (slanted && (open[r * columns + nc] === 0 || open[nr * columns + c] === 0)) continue;
      const reached = cost[cell] + (slanted ? DIAGONAL : STRAIGHT);
      if (stamp[next] === search && reached >= cost[next]) continue;
      stamp[next] = search;
      cost[next] = reached;
      field[next] = cell;
      push(heap, next, reached);
    }
  }
  return field;
}

/** Cells from start to the field's goal, both included; null where the field knows no way. */
export function followField(field: Field, start: number): number[] | null {
  if (field[start] === -2) return null;
  const cells: number[] = [];
  for (let cell = start; cell >= 0; cell = field[cell]) cells.push(cell);
  return cells;
}
