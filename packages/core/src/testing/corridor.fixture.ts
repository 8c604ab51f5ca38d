import type { Ground, GroundKind, GroundPlan, Reachable } from '../ground/ground.ts';
import { arrive, type Body } from '../motion/body.ts';
import { LEGS_MOVING, type PathResult } from '../motion/legs.ts';

/**
 * A ground of another kind: a corridor of one dimension. Only x counts; what is solid are barriers across
 * it, over which no agent sees. It stands for all kinds that are not seen from above.
 */
class Corridor implements Ground {
  readonly width: number;
  readonly height: number;
  readonly #plan: GroundPlan;
  /** By solid. */
  readonly #stands: boolean[];
  #places: number[] = [];

  constructor(plan: GroundPlan) {
    this.#plan = plan;
    this.width = plan.width;
    this.height = plan.height;
    this.#stands = plan.solids.map((_, i) => i < plan.solids.length - plan.gates);
  }

  fileBodies(bodies: readonly Body[]): void {
    this.#places = bodies.map(({ x }) => x);
  }
  near(x: number, _y: number, reach: number, found: number[]): number {
    let count = 0;
    this.#places.forEach((place, body) => {
      if (Math.abs(place - x) <= reach) found[count++] = body;
    });
    return count;
  }

  /** Left and right ends of the barriers that stand. */
  #barriers(): [number, number][] {
    return this.#plan.solids.flatMap(({ x, width }, i): [number, number][] =>
      this.#stands[i] ? [[x, x + width]] : [],
    );
  }
  isBlocked(x: number, _y: number, radius: number): boolean {
    if (x < radius || x > this.width - radius) return true;
    return this.#barriers().some(([left, right]) => x > left - radius && x < right + radius);
  }
  moveOut(x: number, y: number, radius: number, place: Float64Array): void {
    place[0] = Math.max(radius, Math.min(this.width - radius, x));
    place[1] = y;
  }
  castRay(x0: number, _y0: number, x1: number, _y1: number, radius: number): number {
    if (x0 === x1) return 1;
    const shares = this.#barriers().map(([left, right]) => {
      const face = x1 > x0 ? left - radius : right + radius;
      const share = (face - x0) / (x1 - x0);
      return share >= 0 && share < 1 ? share : 1;
    });
    return Math.min(1, ...shares);
  }
  freeShare(x0: number, y0: number, x1: number, y1: number, radius: number): number {
    const edge = x1 > x0 ? this.width - radius : radius;
    const inside = x1 === x0 ? 1 : Math.max(0, (edge - x0) / (x1 - x0));
    return Math.min(inside, this.castRay(x0, y0, x1, y1, radius));
  }
  clearPoints(
    x0: number,
    y0: number,
    _eye: number,
    x1: number,
    y1: number,
    heights: readonly number[],
  ): number {
    return this.castRay(x0, y0, x1, y1, 0) < 1 ? 0 : (1 << heights.length) - 1;
  }
  soundLength(x0: number, y0: number, x1: number, y1: number, limit: number): number {
    const length = Math.abs(x1 - x0) + (this.castRay(x0, y0, x1, y1, 0) < 1 ? 6 : 0);
    return length < limit ? length : Infinity;
  }

  findWays(kind: number, starts: readonly number[], goalX: number, goalY: number): PathResult[] {
    const { radius } = this.#plan.kinds[kind];
    const results: PathResult[] = [];
    for (let i = 0; i < starts.length; i += 2) {
      const free = this.castRay(starts[i], starts[i + 1], goalX, goalY, radius) >= 1;
      results.push(
        free ? { ok: true, points: [goalX, starts[i + 1]] } : { ok: false, reason: 'gateClosed' },
      );
    }
    return results;
  }
  reachableFrom(kind: number, x: number, y: number): Reachable | null {
    const { radius } = this.#plan.kinds[kind];
    if (this.isBlocked(x, y, radius)) return null;
    return {
      nearest: (placeX, placeY, _off, place) => {
        if (this.isBlocked(placeX, placeY, radius)) return -1;
        if (this.castRay(x, y, placeX, placeY, radius) < 1) return -1;
        place[0] = placeX;
        place[1] = y;
        return Math.round(placeX * 2);
      },
    };
  }

  moveBody(bodies: readonly Body[], self: number, dt: number, found: number[]): number {
    const body = bodies[self];
    const { radius, turnRate } = this.#plan.kinds[this.#plan.kindOf[self]];
    const speed = this.#speed(body, dt);
    const next = body.x + speed * dt;
    const blocked = this.isBlocked(next, body.y, radius);
    body.vx = blocked ? 0 : speed;
    if (!blocked) body.x = next;
    const facing = speed === 0 ? body.heading : speed < 0 ? Math.PI : 0;
    const goal = Number.isNaN(body.eyes) ? facing : Math.abs(body.eyes) > Math.PI / 2 ? Math.PI : 0;
    const left = goal - body.heading;
    body.heading += Math.sign(left) * Math.min(Math.abs(left), turnRate * dt);
    return this.near(body.x, body.y, 2, found);
  }
  #speed(body: Body, dt: number): number {
    if (!Number.isNaN(body.steerX)) return body.steerX * body.pace;
    if (body.legs !== LEGS_MOVING || body.path.length === 0) return 0;
    const way = body.goalX - body.x;
    if (Math.abs(way) <= Math.max(body.within, 0.01)) {
      arrive(body);
      return 0;
    }
    return Math.sign(way) * Math.min(body.pace, Math.abs(way) / dt);
  }

  setGate(gate: number, stands: boolean): void {
    this.#stands[this.#plan.solids.length - this.#plan.gates + gate] = stands;
  }
}

export const CORRIDOR: GroundKind = {
  prepare: (plan) => ({ enter: () => new Corridor(plan) }),
  space: ({ width, height, solids }) => {
    const plan = { width, height, solids, gates: 0, kinds: [], kindOf: [], longestStep: 0 };
    const ground = new Corridor(plan);
    return {
      width,
      height,
      isBlocked: (x, y, radius) => ground.isBlocked(x, y, radius),
      castRay: (x0, y0, x1, y1, radius) => ground.castRay(x0, y0, x1, y1, radius),
      walkable: (radius) => {
        const columns = Math.ceil(width);
        const areas = Int32Array.from({ length: columns }, (_, x) =>
          ground.isBlocked(x + 0.5, 0, radius) ? -1 : 0,
        );
        return { columns, rows: 1, cell: 1, areas };
      },
    };
  },
};
