import type { NoPath } from '../../terms/reasons.ts';
import { castRay } from './rays.ts';
import type { Walls } from './walls.ts';
import type { PathResult } from '../../motion/legs.ts';
import { createField, findCells, followField } from './search-cells.ts';
import { cellAt, islandsOf, middleX, middleY, nearestOpen, type Walkable } from './walkable.ts';

/** Ways around walls for a body's size: over walkable cells, then straightened by line of sight. */

/** How far a start or goal may lie from an open cell and still be meant. */
const SLACK = 0.75;

/** A path request with its ends brought onto open cells. */
interface Ends {
  start: number;
  goal: number;
  /** Where the path ends: the goal, or the middle of the open cell nearest to it. */
  x: number;
  y: number;
}

function endsOf(walkable: Walkable, x0: number, y0: number, x1: number, y1: number): Ends | NoPath {
  const goal = nearestOpen(walkable, x1, y1, SLACK);
  if (goal < 0) return 'goalInWall';
  const fits = goal === cellAt(walkable, x1, y1);
  return {
    start: nearestOpen(walkable, x0, y0, SLACK),
    goal,
    x: fits ? x1 : middleX(walkable, goal),
    y: fits ? y1 : middleY(walkable, goal),
  };
}

/** Why no way leads from one cell to another; null where one may. */
function hindrance(walkable: Walkable, start: number, goal: number): NoPath | null {
  if (start < 0) return 'closedIn';
  const islands = islandsOf(walkable);
  if (islands[start] === islands[goal]) return null;
  const ungated = islandsOf(walkable.ungated);
  return ungated[start] === ungated[goal] ? 'gateClosed' : 'otherIsland';
}

/**
 * Leaves out the cells that need not be touched. What remains is not longer than the way over the
 * cells, and every part of it is clear for the body, but for corners of walls that a step between two
 * neighbouring cells cuts by up to 7 cm; a body slides around those.
 */
function straighten(
  walls: Walls,
  walkable: Walkable,
  cells: readonly number[],
  x0: number,
  y0: number,
  ends: Ends,
): number[] {
  const points: number[] = [];
  let fromX = x0;
  let fromY = y0;
  for (let i = 0; i + 1 < cells.length; i++) {
    const last = i + 2 >= cells.length;
    const nextX = last ? ends.x : middleX(walkable, cells[i + 1]);
    const nextY = last ? ends.y : middleY(walkable, cells[i + 1]);
    if (isClear(walls, walkable, fromX, fromY, nextX, nextY)) continue;
    fromX = middleX(walkable, cells[i]);
    fromY = middleY(walkable, cells[i]);
    points.push(fromX, fromY);
  }
  points.push(ends.x, ends.y);
  return points;
}

/** Whether a body of the walkable area's size can go straight. */
function isClear(
  walls: Walls,
  { radius, over }: Walkable,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): boolean {
  return castRay(walls, x0, y0, x1, y1, radius, over) >= 1;
}

/**
 * Way for a body of the walkable area's size as x, y pairs, the start left out and the goal last.
 * A goal the body doesn't fit in is taken as the nearest place it does, within 0.75 m. Ways over cells
 * that are longer than `limit` metres are not looked for.
 */
export function findPath(
  walls: Walls,
  walkable: Walkable,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  limit = Infinity,
): PathResult {
  const ends = endsOf(walkable, x0, y0, x1, y1);
  if (typeof ends === 'string') return { ok: false, reason: ends };
  if (isClear(walls, walkable, x0, y0, ends.x, ends.y))
    return { ok: true, points: [ends.x, ends.y] };
  const hindered = hindrance(walkable, ends.start, ends.goal);
  if (hindered) return { ok: false, reason: hindered };
  // Over cells a way is up to 8 % longer than straightened, and both ends may be half a cell off.
  const cells = findCells(walkable, ends.start, ends.goal, (limit / walkable.cell) * 1.09 + 2);
  if (cells === null) return { ok: false, reason: 'tooFar' };
  return { ok: true, points: straighten(walls, walkable, cells, x0, y0, ends) };
}

/**
 * The ways of several bodies of one size to one goal, which share a field. `starts` are x, y pairs;
 * the results come in their order.
 */
export function findPaths(
  walls: Walls,
  walkable: Walkable,
  starts: readonly number[],
  x1: number,
  y1: number,
): PathResult[] {
  const requests: { ends: Ends | NoPath; x: number; y: number }[] = [];
  for (let i = 0; i < starts.length; i += 2)
    requests.push({
      x: starts[i],
      y: starts[i + 1],
      ends: endsOf(walkable, starts[i], starts[i + 1], x1, y1),
    });
  const apart = requests.flatMap(({ ends, x, y }) =>
    typeof ends === 'string' ||
    isClear(walls, walkable, x, y, ends.x, ends.y) ||
    hindrance(walkable, ends.start, ends.goal)
      ? []
      : [ends],
  );
  const field =
    apart.length > 0
      ? createField(
          walkable,
          apart[0].goal,
          apart.map(({ start }) => start),
        )
      : null;
  return requests.map(({ ends, x, y }): PathResult => {
    if (typeof ends === 'string' || !apart.includes(ends))
      return findPath(walls, walkable, x, y, x1, y1);
    const cells = followField(field!, ends.start)!;
    return { ok: true, points: straighten(walls, walkable, cells, x, y, ends) };
  });
}
