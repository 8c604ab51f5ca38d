import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Solid } from '../ground.ts';
import { LEGS_ARRIVED, LEGS_FAILED, LEGS_MOVING } from '../../motion/legs.ts';
import { castRay } from './rays.ts';
import { circleBlocked, clearance, createWalls } from './walls.ts';
import {
  commandLegs,
  createBody,
  needsPath,
  stopLegs,
  takePath,
  type Body,
  type BodyKind,
} from '../../motion/body.ts';
import { moveBody } from './move.ts';
import { findPath } from './path.ts';
import { createWalkable } from './walkable.ts';

const KIND: BodyKind = { radius: 0.3, acceleration: 15, turnRate: 6 };
const DT = 1 / 60;

function walk(
  bodies: Body[],
  walls: ReturnType<typeof createWalls>,
  ticks: number,
  after?: () => void,
): void {
  const walkable = createWalkable(walls, KIND.radius);
  const radii = bodies.map(() => KIND.radius);
  const all = bodies.map((_, i) => i);
  for (let i = 0; i < ticks; i++) {
    bodies.forEach((body, self) => {
      if (needsPath(body)) {
        const { x, y, goalX, goalY } = body;
        const result = findPath(walls, walkable, x, y, goalX, goalY);
        if (result.ok) takePath(body, result.points);
        else {
          stopLegs(body);
          body.legs = LEGS_FAILED;
        }
      }
      moveBody(bodies, radii, self, KIND, walls, all, all.length, DT);
    });
    after?.();
  }
}

function reach(body: Body, x: number, y: number): number {
  return Math.hypot(body.x - x, body.y - y);
}

const WALL: Solid = { x: 4, y: 2, width: 1, height: 6 };

describe('bodies and walls', () => {
  const box = fc.record({
    x: fc.double({ min: 0, max: 9, noNaN: true }),
    y: fc.double({ min: 0, max: 9, noNaN: true }),
    width: fc.double({ min: 0.1, max: 3, noNaN: true }),
    height: fc.double({ min: 0.1, max: 3, noNaN: true }),
  });
  const push = fc.record({
    x: fc.double({ min: -1, max: 1, noNaN: true }),
    y: fc.double({ min: -1, max: 1, noNaN: true }),
  });

  it('never overlap, whatever way they are pushed and however fast', () => {
    fc.assert(
      fc.property(
        fc.array(box, { maxLength: 8 }),
        fc.array(push, { minLength: 1, maxLength: 12 }),
        fc.double({ min: 0.5, max: 30, noNaN: true }),
        (boxes, pushes, pace) => {
          const walls = createWalls(10, 10, boxes);
          const bodies = [createBody(1, 1, 0, pace), createBody(9, 9, 0, pace)].filter(
            (body) => !circleBlocked(walls, body.x, body.y, KIND.radius),
          );
          for (const { x, y } of pushes) {
            for (const body of bodies) {
              body.steerX = x;
              body.steerY = y;
            }
            walk(bodies, walls, 10, () => {
              for (const body of bodies)
                expect(clearance(walls, body.x, body.y, 1)).toBeGreaterThanOrEqual(KIND.radius);
              if (bodies.length === 2)
                expect(reach(bodies[0], bodies[1].x, bodies[1].y)).toBeGreaterThanOrEqual(
                  2 * KIND.radius,
                );
            });
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('slide along a wall they are pushed against', () => {
    const walls = createWalls(10, 10, [{ x: 5, y: 0, width: 1, height: 10 }]);
    const body = createBody(4, 5, 0, 2);
    body.steerX = 1;
    body.steerY = 1;
    walk([body], walls, 60);
    expect(body.x).toBeCloseTo(5 - KIND.radius, 3);
    expect(body.y).toBeGreaterThan(6);
    expect(body.vx).toBeCloseTo(0, 3);
  });

  it('stop at another body', () => {
    const walls = createWalls(10, 10, []);
    const [a, b] = [createBody(2, 5, 0, 2), createBody(6, 5, 0, 2)];
    a.steerX = 1;
    a.steerY = 0;
    walk([a, b], walls, 240);
    expect(b.x).toBe(6);
    expect(reach(a, b.x, b.y)).toBeGreaterThanOrEqual(2 * KIND.radius);
  });

  it('accelerate and turn no faster than they can', () => {
    const walls = createWalls(10, 10, []);
    const body = createBody(5, 5, 0, 3);
    body.steerX = 0;
    body.steerY = -1;
    walk([body], walls, 1);
    expect(Math.hypot(body.vx, body.vy)).toBeCloseTo(KIND.acceleration * DT, 9);
    expect(body.heading).toBeCloseTo(-KIND.turnRate * DT, 9);
  });
});

describe('walking to a place', () => {
  it('goes around a wall and arrives within the distance asked for', () => {
    const walls = createWalls(10, 10, [WALL]);
    const body = createBody(2, 5, 0, 2);
    commandLegs(body, 8, 5, 0.2, 0);
    walk([body], walls, 60 * 8);
    expect(body.legs).toBe(LEGS_ARRIVED);
    expect(reach(body, 8, 5)).toBeLessThanOrEqual(0.2);
  });

  it('stands still once it has arrived', () => {
    const walls = createWalls(10, 10, []);
    const body = createBody(2, 5, 0, 3);
    commandLegs(body, 6, 5, 0.05, 0);
    walk([body], walls, 180);
    const { x, y } = body;
    walk([body], walls, 60);
    expect(Math.hypot(body.x - x, body.y - y)).toBeLessThan(1e-6);
  });

  it('fails where there is no way, and where the goal lies deep in a wall', () => {
    const closed = createWalls(10, 10, [{ x: 4, y: 0, width: 1, height: 10 }]);
    const body = createBody(2, 5, 0, 2);
    commandLegs(body, 8, 5, 0.2, 0);
    walk([body], closed, 1);
    expect(body.legs).toBe(LEGS_FAILED);
    const walkable = createWalkable(
      createWalls(10, 10, [{ x: 4, y: 4, width: 4, height: 4 }]),
      0.3,
    );
    expect(
      findPath(createWalls(10, 10, [{ x: 4, y: 4, width: 4, height: 4 }]), walkable, 1, 1, 6, 6),
    ).toEqual({ ok: false, reason: 'goalInWall' });
  });

  it('follows a goal that moves', () => {
    const walls = createWalls(10, 10, [WALL]);
    const body = createBody(2, 5, 0, 3);
    for (let i = 0; i < 60; i++) {
      commandLegs(body, 8, 4 + i / 30, 0.2, 0);
      walk([body], walls, 5);
    }
    expect(body.legs).not.toBe(LEGS_FAILED);
    walk([body], walls, 120);
    expect(body.legs).not.toBe(LEGS_MOVING);
    expect(reach(body, 8, 4 + 59 / 30)).toBeLessThan(0.3);
  });
});

describe('paths', () => {
  const cells = fc.array(
    fc.record({ x: fc.integer({ min: 0, max: 18 }), y: fc.integer({ min: 0, max: 18 }) }),
    { maxLength: 60 },
  );

  /** Cells reached by flooding, the plainest way to know whether there is a way. */
  function floods(
    walkable: ReturnType<typeof createWalkable>,
    start: number,
    goal: number,
  ): boolean {
    const { columns, rows, open } = walkable;
    const seen = new Set([start]);
    const queue = [start];
    for (let cell = queue.pop(); cell !== undefined; cell = queue.pop()) {
      const c = cell % columns;
      const r = Math.floor(cell / columns);
      for (const [dc, dr] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ]) {
        const next = (r + dr) * columns + c + dc;
        if (
          c + dc < 0 ||
          c + dc >= columns ||
          r + dr < 0 ||
          r + dr >= rows ||
          open[next] === 0 ||
          seen.has(next)
        )
          continue;
        seen.add(next);
        queue.push(next);
      }
    }
    return seen.has(goal);
  }

  it('are found exactly when there is a way, and never cut a wall', () => {
    fc.assert(
      fc.property(cells, (blocks) => {
        const walls = createWalls(
          10,
          10,
          blocks.map(({ x, y }) => ({ x: x / 2 + 0.25, y: y / 2 + 0.25, width: 0.5, height: 0.5 })),
        );
        const walkable = createWalkable(walls, 0.2);
        const [from, to] = [
          [0.3, 0.3],
          [9.7, 9.7],
        ];
        const cell = ([x, y]: number[]) =>
          Math.floor(y / walkable.cell) * walkable.columns + Math.floor(x / walkable.cell);
        fc.pre(walkable.open[cell(from)] === 1 && walkable.open[cell(to)] === 1);
        const result = findPath(walls, walkable, from[0], from[1], to[0], to[1]);
        // A gap between two cells can be wide enough for the straight line, though not for the cells.
        const straight = castRay(walls, from[0], from[1], to[0], to[1], 0.2) >= 1;
        expect(result.ok).toBe(straight || floods(walkable, cell(from), cell(to)));
        if (!result.ok) return;
        let [x, y] = from;
        for (let i = 0; i < result.points.length; i += 2) {
          const [nx, ny] = [result.points[i], result.points[i + 1]];
          for (let t = 0; t <= 1; t += 0.05)
            expect(clearance(walls, x + (nx - x) * t, y + (ny - y) * t, 1)).toBeGreaterThan(0.19);
          [x, y] = [nx, ny];
        }
      }),
      { numRuns: 60 },
    );
  });
});
