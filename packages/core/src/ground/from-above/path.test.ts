import fc from 'fast-check';
import createGraph from 'ngraph.graph';
import { aStar } from 'ngraph.path';
import { describe, expect, it } from 'vitest';
import type { Solid } from '../ground.ts';
import { clearance, createWalls, type Walls } from './walls.ts';
import { findPath, findPaths } from './path.ts';
import { createField, findCells, followField } from './search-cells.ts';
import { cellAt, createWalkable, islandsOf, middleX, middleY, type Walkable } from './walkable.ts';

const RADIUS = 0.25;

/**
 * Metres that a step between two cells may cut off a corner, around which a body slides: two middles that
 * both touch the rounded corner, a diagonal of a cell apart.
 */
const GRAZE = RADIUS - Math.sqrt(RADIUS ** 2 - (0.25 * Math.SQRT1_2) ** 2);

const box = fc.record({
  x: fc.double({ min: 0, max: 7.4, noNaN: true }),
  y: fc.double({ min: 0, max: 7.4, noNaN: true }),
  width: fc.double({ min: 0.2, max: 3, noNaN: true }),
  height: fc.double({ min: 0.2, max: 3, noNaN: true }),
});
const boxes = fc.array(box, { maxLength: 12 });
const spot = fc.record({
  x: fc.double({ min: 0.3, max: 7.7, noNaN: true }),
  y: fc.double({ min: 0.3, max: 7.7, noNaN: true }),
});

function groundOf(list: readonly Solid[]) {
  const walls = createWalls(8, 8, list);
  return { walls, walkable: createWalkable(walls, RADIUS) };
}

/** Metres of the shortest way from cell to cell, by a general graph package; Infinity where there is none. */
function optimum({ columns, rows, open, cell }: Walkable, from: number, to: number): number {
  const graph = createGraph<undefined, number>();
  const isOpen = (c: number, r: number) =>
    c >= 0 && r >= 0 && c < columns && r < rows && open[r * columns + c] === 1;
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      if (!isOpen(c, r)) continue;
      const here = r * columns + c;
      graph.addNode(here);
      if (isOpen(c + 1, r)) graph.addLink(here, here + 1, cell);
      if (isOpen(c, r + 1)) graph.addLink(here, here + columns, cell);
      for (const side of [-1, 1]) {
        if (isOpen(c + side, r + 1) && isOpen(c + side, r) && isOpen(c, r + 1))
          graph.addLink(here, here + columns + side, cell * Math.SQRT2);
      }
    }
  }
  const found = aStar(graph, { distance: (_, __, link) => link.data }).find(from, to);
  if (found.length === 0) return Infinity;
  let length = 0;
  for (let i = 1; i < found.length; i++) {
    const [a, b] = [Number(found[i - 1].id), Number(found[i].id)];
    length += Math.abs(a - b) === 1 || Math.abs(a - b) === columns ? cell : cell * Math.SQRT2;
  }
  return length;
}

/** The least clearance on a straight part of a path, looked at in steps of a centimetre. */
function tightest(walls: Walls, x0: number, y0: number, x1: number, y1: number): number {
  const steps = Math.ceil(Math.hypot(x1 - x0, y1 - y0) / 0.01);
  let least = Infinity;
  for (let i = 0; i <= steps; i++) {
    const share = i / Math.max(1, steps);
    least = Math.min(
      least,
      clearance(walls, x0 + (x1 - x0) * share, y0 + (y1 - y0) * share, RADIUS),
    );
  }
  return least;
}

function lengthOf(x: number, y: number, points: readonly number[]): number {
  let length = 0;
  let [fromX, fromY] = [x, y];
  for (let i = 0; i < points.length; i += 2) {
    length += Math.hypot(points[i] - fromX, points[i + 1] - fromY);
    [fromX, fromY] = [points[i], points[i + 1]];
  }
  return length;
}

describe('a path', () => {
  it('is found whenever one exists, clear all along, and within 2 % of the shortest over the grid', () => {
    fc.assert(
      fc.property(boxes, spot, spot, (list, from, to) => {
        const { walls, walkable } = groundOf(list);
        const [start, goal] = [from, to].map(({ x, y }) => cellAt(walkable, x, y));
        fc.pre(walkable.open[start] === 1 && walkable.open[goal] === 1);
        fc.pre([from, to].every(({ x, y }) => clearance(walls, x, y, RADIUS) >= RADIUS));
        const best = optimum(walkable, start, goal);
        const result = findPath(walls, walkable, from.x, from.y, to.x, to.y);
        if (best === Infinity && !result.ok) {
          expect(result.reason).toBe('otherIsland');
          return;
        }
        if (!result.ok) throw new Error(`no path found where one of ${best} m exists`);
        // Both ends may lie off the middle of their cells, by half a diagonal each.
        const slack = walkable.cell * Math.SQRT2;
        expect(lengthOf(from.x, from.y, result.points)).toBeLessThanOrEqual(best * 1.02 + slack);
        let [x, y] = [from.x, from.y];
        for (let i = 0; i < result.points.length; i += 2) {
          const [nextX, nextY] = [result.points[i], result.points[i + 1]];
          expect(tightest(walls, x, y, nextX, nextY)).toBeGreaterThanOrEqual(RADIUS - GRAZE);
          [x, y] = [nextX, nextY];
        }
      }),
      { numRuns: 60 },
    );
  });

  it('shared as a field is as short as each found alone', () => {
    fc.assert(
      fc.property(
        boxes,
        spot,
        fc.array(spot, { minLength: 3, maxLength: 8 }),
        (list, to, starts) => {
          const { walls, walkable } = groundOf(list);
          const shared = findPaths(
            walls,
            walkable,
            starts.flatMap(({ x, y }) => [x, y]),
            to.x,
            to.y,
          );
          starts.forEach(({ x, y }, i) => {
            const alone = findPath(walls, walkable, x, y, to.x, to.y);
            const together = shared[i];
            expect(together.ok).toBe(alone.ok);
            if (!alone.ok || !together.ok) return;
            // Of equally short ways over the cells each may take another, which straighten a little differently,
            // and both ends lie off the middle of their cells, by half a diagonal each.
            const [a, b] = [lengthOf(x, y, alone.points), lengthOf(x, y, together.points)];
            const slack = walkable.cell * Math.SQRT2;
            expect(Math.abs(a - b)).toBeLessThanOrEqual(0.09 * Math.min(a, b) + slack);
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('over cells is the shortest there is, found alone and in a field', () => {
    fc.assert(
      fc.property(boxes, spot, spot, (list, from, to) => {
        const { walkable } = groundOf(list);
        const [start, goal] = [from, to].map(({ x, y }) => cellAt(walkable, x, y));
        fc.pre(walkable.open[start] === 1 && walkable.open[goal] === 1);
        const best = optimum(walkable, start, goal);
        const alone = findCells(walkable, start, goal);
        const shared = followField(createField(walkable, goal, [start]), start);
        for (const cells of [alone, shared]) {
          if (best === Infinity) {
            expect(cells).toBeNull();
            continue;
          }
          const points = cells!.flatMap((cell) => [
            middleX(walkable, cell),
            middleY(walkable, cell),
          ]);
          expect([cells![0], cells!.at(-1)]).toEqual([start, goal]);
          expect(lengthOf(points[0], points[1], points)).toBeCloseTo(best, 9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('of no length is the place itself', () => {
    const { walls, walkable } = groundOf([]);
    expect(findPath(walls, walkable, 5, 5, 5, 5)).toEqual({ ok: true, points: [5, 5] });
  });

  it('into a wall leads to its edge, deep into one nowhere, and each failure says why', () => {
    const block = { x: 3, y: 4, width: 4, height: 3.5 };
    const { walls, walkable } = groundOf([block]);
    const edge = findPath(walls, walkable, 1, 6, 3.2, 6);
    expect(edge.ok && edge.points.at(-2)).toBeLessThan(3 - RADIUS + 0.01);
    expect(findPath(walls, walkable, 1, 6, 5, 6)).toEqual({
      ok: false,
      reason: 'goalInWall',
    });
    expect(findPath(walls, walkable, 5, 6, 1, 6)).toEqual({ ok: false, reason: 'closedIn' });
    const divided = groundOf([{ x: 4, y: 0, width: 0.4, height: 8 }]);
    expect(findPath(divided.walls, divided.walkable, 1, 6, 7, 6)).toEqual({
      ok: false,
      reason: 'otherIsland',
    });
  });
});

describe('islands', () => {
  it('are one where a way leads from cell to cell, and two where none does', () => {
    fc.assert(
      fc.property(boxes, spot, spot, (list, from, to) => {
        const { walkable } = groundOf(list);
        const [start, goal] = [from, to].map(({ x, y }) => cellAt(walkable, x, y));
        fc.pre(walkable.open[start] === 1 && walkable.open[goal] === 1);
        const islands = islandsOf(walkable);
        expect(islands[start] === islands[goal]).toBe(optimum(walkable, start, goal) < Infinity);
      }),
      { numRuns: 40 },
    );
  });
});
