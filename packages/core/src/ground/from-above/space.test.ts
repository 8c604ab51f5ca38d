import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { collectNeighbours, createNeighbours, fillNeighbours } from '../neighbours.ts';
import { castRay } from './rays.ts';
import {
  circleBlocked,
  clearance,
  createWalls,
  isInTheOpen,
  pushed,
  pushOut,
  withRoom,
} from './walls.ts';

const SIZE = 12;
const inside = fc.double({ min: 0, max: SIZE, noNaN: true });
const place = fc.record({ x: inside, y: inside });
const box = fc.record({
  x: fc.double({ min: 0, max: SIZE - 1, noNaN: true }),
  y: fc.double({ min: 0, max: SIZE - 1, noNaN: true }),
  width: fc.double({ min: 0.1, max: 4, noNaN: true }),
  height: fc.double({ min: 0.1, max: 4, noNaN: true }),
});
const boxes = fc.array(box, { maxLength: 10 });

type Box = { x: number; y: number; width: number; height: number };

const within = (b: Box, x: number, y: number, margin = 0) =>
  x > b.x - margin && x < b.x + b.width + margin && y > b.y - margin && y < b.y + b.height + margin;

describe('rays', () => {
  it('stop before the first wall and not earlier, with any margin', () => {
    fc.assert(
      fc.property(boxes, place, place, fc.constantFrom(0, 0.3), (list, from, to, margin) => {
        const walls = createWalls(SIZE, SIZE, list);
        const t = castRay(walls, from.x, from.y, to.x, to.y, margin);
        const at = (share: number) =>
          [from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share] as const;
        const hits = (share: number) => list.some((b) => within(b, ...at(share), margin - 1e-9));
        // Nothing is met on the way there, looked at in small steps.
        for (let share = 0; share < t - 1e-6; share += 0.01) expect(hits(share)).toBe(false);
        if (t < 1 && t > 0) expect(list.some((b) => within(b, ...at(t), margin + 1e-6))).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('along the edge of a wall meet nothing', () => {
    const walls = createWalls(SIZE, SIZE, [{ x: 4, y: 4, width: 2, height: 2 }]);
    expect(castRay(walls, 0, 4, 12, 4)).toBe(1);
    expect(castRay(walls, 0, 4.001, 12, 4.001)).toBeLessThan(1);
    expect(castRay(walls, 5, 5, 5, 5)).toBe(0);
  });
});

describe('clearance', () => {
  it('is the distance to the nearest wall or edge', () => {
    fc.assert(
      fc.property(boxes, place, (list, { x, y }) => {
        const walls = createWalls(SIZE, SIZE, list);
        const distances = list.map((b) =>
          Math.hypot(
            Math.max(b.x - x, 0, x - b.x - b.width),
            Math.max(b.y - y, 0, y - b.y - b.height),
          ),
        );
        const nearest = Math.min(x, y, SIZE - x, SIZE - y, 3, ...distances);
        expect(clearance(walls, x, y, 3)).toBeCloseTo(nearest, 9);
      }),
    );
  });
});

describe('a circle in the open', () => {
  it('touches nothing, whichever gates stand, and most places of an empty ground are in it', () => {
    fc.assert(
      fc.property(
        fc.array(box, { maxLength: 6 }),
        fc.array(place, { minLength: 1, maxLength: 30 }),
        fc.double({ min: 0.1, max: 2, noNaN: true }),
        (boxes, places, radius) => {
          const walls = withRoom(createWalls(SIZE, SIZE, boxes));
          // Open gates at first: what is found out then holds when they close.
          walls.standing.fill(0);
          const open = places.filter(({ x, y }) => isInTheOpen(walls, x, y, radius));
          walls.standing.fill(1);
          for (const { x, y } of open) {
            expect(clearance(walls, x, y, 2 * radius)).toBeGreaterThanOrEqual(radius);
            expect(circleBlocked(walls, x, y, radius)).toBe(false);
            pushOut(walls, x, y, radius);
            expect([pushed.x, pushed.y, pushed.touched]).toEqual([x, y, false]);
          }
        },
      ),
    );
    expect(isInTheOpen(withRoom(createWalls(SIZE, SIZE, [])), 6, 6, 2)).toBe(true);
    expect(isInTheOpen(withRoom(createWalls(SIZE, SIZE, [])), 0.4, 6, 0.5)).toBe(false);
  });
});

describe('pushing out', () => {
  it('leaves a circle that overlaps nothing where it is', () => {
    const walls = createWalls(SIZE, SIZE, [{ x: 4, y: 4, width: 2, height: 2 }]);
    pushOut(walls, 2, 2, 0.5);
    expect([pushed.x, pushed.y, pushed.touched]).toEqual([2, 2, false]);
  });

  it('frees a circle from one wall, by the shortest way', () => {
    const walls = createWalls(SIZE, SIZE, [{ x: 4, y: 4, width: 2, height: 2 }]);
    fc.assert(
      fc.property(place, (at) => {
        fc.pre(!within({ x: 4, y: 4, width: 2, height: 2 }, at.x, at.y, 1e-6));
        pushOut(walls, at.x, at.y, 0.5);
        expect(circleBlocked(walls, pushed.x, pushed.y, 0.5)).toBe(false);
        expect(Math.hypot(pushed.x - at.x, pushed.y - at.y)).toBeLessThan(0.5 * Math.SQRT2 + 1e-6);
      }),
    );
  });
});

describe('neighbours', () => {
  it('come row by row, in a row by column, in a cell by number', () => {
    const bodies = [
      { x: 300, y: 1 },
      { x: 3, y: 9 },
      { x: 130, y: 1 },
      { x: 131, y: 2 },
      { x: 1, y: 1 },
      { x: NaN, y: NaN },
    ];
    const index = createNeighbours(400, 12, bodies.length);
    const found: number[] = [];
    fillNeighbours(index, bodies);
    expect(collectNeighbours(index, 200, 6, 400, found)).toBe(5);
    expect(found.slice(0, 5)).toEqual([4, 2, 3, 0, 1]);
    expect(collectNeighbours(index, 130, 1, 1, found)).toBe(2);
    // Filed again, of the same bodies only some.
    fillNeighbours(index, bodies, Int32Array.of(1, 3));
    const count = collectNeighbours(index, 200, 6, 400, found);
    expect(found.slice(0, count)).toEqual([3, 1]);
  });

  it('miss no agent in reach, and name each once', () => {
    fc.assert(
      fc.property(
        fc.array(place, { maxLength: 40 }),
        place,
        fc.double({ min: 0, max: 6, noNaN: true }),
        (bodies, { x, y }, reach) => {
          const index = createNeighbours(SIZE, SIZE, bodies.length);
          fillNeighbours(index, bodies);
          const found: number[] = [];
          const count = collectNeighbours(index, x, y, reach, found);
          const named = found.slice(0, count);
          expect(new Set(named).size).toBe(count);
          bodies.forEach((body, i) => {
            if (Math.abs(body.x - x) <= reach && Math.abs(body.y - y) <= reach)
              expect(named).toContain(i);
          });
        },
      ),
    );
  });
});
