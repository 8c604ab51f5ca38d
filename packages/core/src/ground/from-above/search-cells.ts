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

/**
 * Spreads from a cell over the open ones, the nearest first, until `ended` says so of a cell whose way is
 * final. `from` takes for every cell reached the one before it, −1 for the first. With a `goal` cells on
 * the way to it come first, and ways there that are longer than `limit` cells are left.
 */
function spread(
  { columns, rows, open }: Walkable,
  first: number,
  from: Int32Array,
  ended: (cell: number) => boolean,
  goal = -1,
  limit = Infinity,
): void {
  const { cost, closed, stamp, search, heap } = workspace;
  const goalColumn = goal % columns;
  const goalRow = (goal - goalColumn) / columns;
  cost[first] = 0;
  from[first] = -1;
  stamp[first] = search;
  push(heap, first, 0);
  while (heap.size > 0) {
    const cell = pop(heap);
    if (closed[cell] === search) continue;
    closed[cell] = search;
    if (ended(cell)) return;
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
      let left = 0;
      if (goal >= 0) {
        const dc = Math.abs(nc - goalColumn);
        const dr = Math.abs(nr - goalRow);
        left = dc > dr ? dc + (DIAGONAL - 1) * dr : dr + (DIAGONAL - 1) * dc;
        if (reached + left > limit) continue;
      }
      stamp[next] = search;
      cost[next] = reached;
      from[next] = cell;
      push(heap, next, reached + left);
    }
  }
}

/** Cells from start to goal, both included; null where there is no way, or none shorter than `limit` cells. */
export function findCells(
  walkable: Walkable,
  start: number,
  goal: number,
  limit = Infinity,
): number[] | null {
  const { from, closed, search } = freshWorkspace(walkable.open.length);
  spread(walkable, start, from, (cell) => cell === goal, goal, limit);
  return closed[goal] === search ? trace(from, goal).reverse() : null;
}

/** The cells from one on to where the search began. */
function trace(from: Int32Array, first: number): number[] {
  const cells: number[] = [];
  for (let cell = first; cell >= 0; cell = from[cell]) cells.push(cell);
  return cells;
}

/** For every cell the next one on a shortest way to the goal; −1 for the goal itself, −2 where there is no way. */
export type Field = Int32Array;

/** The field towards a goal, as far as it takes to reach all of `starts`. */
export function createField(walkable: Walkable, goal: number, starts: readonly number[]): Field {
  freshWorkspace(walkable.open.length);
  const field = new Int32Array(walkable.open.length).fill(-2);
  const wanted = new Set(starts);
  spread(walkable, goal, field, (cell) => wanted.delete(cell) && wanted.size === 0);
  return field;
}

/** Cells from start to the field's goal, both included; null where the field knows no way. */
export function followField(field: Field, start: number): number[] | null {
  return field[start] === -2 ? null : trace(field, start);
}
