import { castRay, type Walls } from '../space/walls.ts';
import { nearestOpen, type Walkable } from './walkable.ts';

/**
 * Shortest ways over the walkable cells, then straightened by line of sight.
 * Source: A* (Hart, Nilsson and Raphael, 1968) over eight neighbours with the octile heuristic; a
 * diagonal step needs both cells beside it open.
 */

const STRAIGHT = 1;
const DIAGONAL = 1.4142135623730951;
/** How far a start or goal may lie from an open cell and still be meant. */
const SLACK = 0.75;

/** Working memory of the search, kept between searches; a cell is fresh when its stamp is the search's. */
interface Workspace {
  cost: Float64Array;
  from: Int32Array;
  stamp: Int32Array;
  closed: Int32Array;
  search: number;
  heapCell: number[];
  heapKey: number[];
}

const workspaces = new WeakMap<Walkable, Workspace>();

function workspaceOf(walkable: Walkable): Workspace {
  let workspace = workspaces.get(walkable);
  if (!workspace) {
    const count = walkable.open.length;
    workspace = {
      cost: new Float64Array(count),
      from: new Int32Array(count),
      stamp: new Int32Array(count),
      closed: new Int32Array(count),
      search: 0,
      heapCell: [],
      heapKey: [],
    };
    workspaces.set(walkable, workspace);
  }
  workspace.search++;
  workspace.heapCell.length = 0;
  workspace.heapKey.length = 0;
  return workspace;
}

function push({ heapCell, heapKey }: Workspace, cell: number, key: number): void {
  let i = heapCell.length;
  heapCell.push(cell);
  heapKey.push(key);
  while (i > 0) {
    const parent = (i - 1) >> 1;
    if (heapKey[parent] <= key) break;
    heapCell[i] = heapCell[parent];
    heapKey[i] = heapKey[parent];
    i = parent;
  }
  heapCell[i] = cell;
  heapKey[i] = key;
}

function pop({ heapCell, heapKey }: Workspace): number {
  const top = heapCell[0];
  const cell = heapCell.pop()!;
  const key = heapKey.pop()!;
  const count = heapCell.length;
  if (count === 0) return top;
  let i = 0;
  for (;;) {
    let child = 2 * i + 1;
    if (child >= count) break;
    if (child + 1 < count && heapKey[child + 1] < heapKey[child]) child++;
    if (heapKey[child] >= key) break;
    heapCell[i] = heapCell[child];
    heapKey[i] = heapKey[child];
    i = child;
  }
  heapCell[i] = cell;
  heapKey[i] = key;
  return top;
}

/** Cells from start to goal, both included; null where there is no way. */
export function findCells(walkable: Walkable, start: number, goal: number): number[] | null {
  const { columns, rows, open } = walkable;
  const workspace = workspaceOf(walkable);
  const { cost, from, stamp, closed, search } = workspace;
  const goalColumn = goal % columns;
  const goalRow = (goal - goalColumn) / columns;
  const estimate = (c: number, r: number) => {
    const dc = Math.abs(c - goalColumn);
    const dr = Math.abs(r - goalRow);
    return dc > dr ? dc + (DIAGONAL - 1) * dr : dr + (DIAGONAL - 1) * dc;
  };
  cost[start] = 0;
  from[start] = -1;
  stamp[start] = search;
  push(workspace, start, 0);
  while (workspace.heapCell.length > 0) {
    const cell = pop(workspace);
    if (cell === goal) return trace(from, goal);
    if (closed[cell] === search) continue;
    closed[cell] = search;
    const c = cell % columns;
    const r = (cell - c) / columns;
    for (let dr = -1; dr <= 1; dr++) {
      for (let dc = -1; dc <= 1; dc++) {
        const nc = c + dc;
        const nr = r + dr;
        if (nc < 0 || nr < 0 || nc >= columns || nr >= rows) continue;
        const next = nr * columns + nc;
        if (open[next] === 0 || closed[next] === search) continue;
        const slanted = dc !== 0 && dr !== 0;
        if (slanted && (open[r * columns + nc] === 0 || open[nr * columns + c] === 0)) continue;
        const reached = cost[cell] + (slanted ? DIAGONAL : STRAIGHT);
        if (stamp[next] === search && reached >= cost[next]) continue;
        stamp[next] = search;
        cost[next] = reached;
        from[next] = cell;
        push(workspace, next, reached + estimate(nc, nr));
      }
    }
  }
  return null;
}

function trace(from: Int32Array, goal: number): number[] {
  const cells: number[] = [];
  for (let cell = goal; cell >= 0; cell = from[cell]) cells.push(cell);
  return cells.reverse();
}

export type PathResult =
  { ok: true; points: number[] } | { ok: false; reason: 'no way' | 'goal inside a wall' };

/**
 * Way for a body of the walkable area's size as x, y pairs, the start left out and the goal last.
 * A goal the body doesn't fit in is taken as the nearest place it does, within 0.75 m.
 */
export function findPath(
  walls: Walls,
  walkable: Walkable,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): PathResult {
  const clear = (ax: number, ay: number, bx: number, by: number) =>
    castRay(walls, ax, ay, bx, by, walkable.radius) >= 1;
  const { columns, cell, open } = walkable;
  const goal = nearestOpen(walkable, x1, y1, SLACK);
  if (goal < 0) return { ok: false, reason: 'goal inside a wall' };
  const goalFits = open[Math.floor(y1 / cell) * columns + Math.floor(x1 / cell)] === 1;
  const middleX = (index: number) => ((index % columns) + 0.5) * cell;
  const middleY = (index: number) => (Math.floor(index / columns) + 0.5) * cell;
  const endX = goalFits ? x1 : middleX(goal);
  const endY = goalFits ? y1 : middleY(goal);
  if (clear(x0, y0, endX, endY)) return { ok: true, points: [endX, endY] };
  const start = nearestOpen(walkable, x0, y0, SLACK);
  const cells = start < 0 ? null : findCells(walkable, start, goal);
  if (cells === null) return { ok: false, reason: 'no way' };
  const points: number[] = [];
  let fromX = x0;
  let fromY = y0;
  for (let i = 0; i + 1 < cells.length; i++) {
    const last = i + 2 >= cells.length;
    const nextX = last ? endX : middleX(cells[i + 1]);
    const nextY = last ? endY : middleY(cells[i + 1]);
    if (clear(fromX, fromY, nextX, nextY)) continue;
    fromX = middleX(cells[i]);
    fromY = middleY(cells[i]);
    points.push(fromX, fromY);
  }
  points.push(endX, endY);
  return { ok: true, points };
}
