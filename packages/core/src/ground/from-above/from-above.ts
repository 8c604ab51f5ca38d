import type { Body, BodyKind } from '../../motion/body.ts';
import type { PathResult } from '../../motion/legs.ts';
import type {
  Ground,
  GroundKind,
  GroundPlan,
  PreparedGround,
  Reachable,
  Solid,
} from '../ground.ts';
import {
  collectNeighbours,
  createNeighbours,
  fillNeighbours,
  type Neighbours,
} from '../neighbours.ts';
import { moveBody } from './move.ts';
import { findPath, findPaths } from './path.ts';
import { castRay, clearPoints, insideShare } from './rays.ts';
import { SOUND_HEIGHT, SOUND_RADIUS, soundLength } from './sound.ts';
import { AHEAD } from './steer.ts';
import {
  cellAt,
  createWalkable,
  islandsOf,
  lookAgain,
  middleX,
  middleY,
  nearestOpen,
  withOwnCells,
  type Walkable,
} from './walkable.ts';
import {
  circleBlocked,
  createWalls,
  pushed,
  pushOut,
  withOwnGates,
  withRoom,
  type Walls,
} from './walls.ts';

/**
 * A ground seen from above: boxes with heights are in the way, bodies are circles, ways lead over cells
 * that a body fits in.
 */

/** As many bodies of one size that want a way to one place share a field. */
const FIELD_FROM = 3;

/** What all runs share; gates are open in it. */
interface Prepared extends PreparedGround {
  walls: Walls;
  /** Where sound gets through. */
  openings: Walkable;
  /** By archetype; those of one size share an area. */
  areas: Walkable[];
}

function prepare(plan: GroundPlan, before?: PreparedGround): PreparedGround {
  const kept = before as Prepared | undefined;
  const walls = kept?.walls ?? ungatedWalls(plan);
  const bySize = new Map<number, Walkable>((kept?.areas ?? []).map((area) => [area.radius, area]));
  const areas = plan.kinds.map(({ radius }) => {
    const known = bySize.get(radius) ?? createWalkable(walls, radius);
    bySize.set(radius, known);
    return known;
  });
  const openings = kept?.openings ?? createWalkable(walls, SOUND_RADIUS, SOUND_HEIGHT);
  const prepared: Prepared = {
    walls,
    openings,
    areas,
    enter: () => new FromAbove(plan, prepared),
  };
  return prepared;
}

/** The kind of ground that is seen from above. */
export const FROM_ABOVE: GroundKind = {
  prepare,
  space: ({ width, height, solids }) => {
    const walls = createWalls(width, height, solids);
    return {
      width,
      height,
      isBlocked: (x, y, radius) => circleBlocked(walls, x, y, radius),
      castRay: (x0, y0, x1, y1, radius, over) => castRay(walls, x0, y0, x1, y1, radius, over),
      walkable: (radius) => {
        const area = createWalkable(walls, radius);
        const { columns, rows, cell } = area;
        return { columns, rows, cell, areas: islandsOf(area) };
      },
    };
  },
};

function ungatedWalls({ width, height, solids, gates }: GroundPlan): Walls {
  const walls = withRoom(createWalls(width, height, solids));
  walls.standing.fill(0, solids.length - gates);
  return walls;
}

/** A class, because it is asked many times a tick and engines are fastest on one fixed shape. */
class FromAbove implements Ground {
  readonly width: number;
  readonly height: number;
  readonly #walls: Walls;
  readonly #areas: readonly Walkable[];
  readonly #openings: Walkable;
  readonly #bodies: Neighbours;
  readonly #kinds: readonly BodyKind[];
  readonly #kindOf: readonly number[];
  /** By agent. */
  readonly #radii: readonly number[];
  readonly #largestRadius: number;
  readonly #longestStep: number;
  readonly #gates: readonly Solid[];

  constructor(plan: GroundPlan, { walls, areas, openings }: Prepared) {
    const { width, height, solids, gates, kinds, kindOf, longestStep } = plan;
    this.width = width;
    this.height = height;
    this.#walls = gates > 0 ? withOwnGates(walls) : walls;
    // Archetypes of one size share an area, here as in what was prepared.
    const own = new Map([...areas, openings].map((area) => [area, ownArea(area, gates)]));
    this.#areas = areas.map((area) => own.get(area)!);
    this.#openings = own.get(openings)!;
    this.#bodies = createNeighbours(width, height, kindOf.length);
    this.#kinds = kinds;
    this.#kindOf = kindOf;
    this.#radii = kindOf.map((kind) => kinds[kind].radius);
    this.#largestRadius = Math.max(0, ...this.#radii);
    this.#longestStep = longestStep;
    this.#gates = solids.slice(solids.length - gates);
  }

  fileBodies(bodies: readonly Body[]): void {
    fillNeighbours(this.#bodies, bodies);
  }
  near(x: number, y: number, reach: number, found: number[]): number {
    return collectNeighbours(this.#bodies, x, y, reach, found);
  }

  isBlocked(x: number, y: number, radius: number): boolean {
    return circleBlocked(this.#walls, x, y, radius);
  }
  moveOut(x: number, y: number, radius: number, place: Float64Array): void {
    pushOut(this.#walls, x, y, radius);
    place[0] = pushed.x;
    place[1] = pushed.y;
  }
  castRay(x0: number, y0: number, x1: number, y1: number, radius: number, over: number): number {
    return castRay(this.#walls, x0, y0, x1, y1, radius, over);
  }
  freeShare(x0: number, y0: number, x1: number, y1: number, radius: number): number {
    const inside = insideShare(this.#walls, x0, y0, x1, y1, radius);
    return Math.min(inside, castRay(this.#walls, x0, y0, x1, y1, radius));
  }
  clearPoints(
    x0: number,
    y0: number,
    eye: number,
    x1: number,
    y1: number,
    heights: readonly number[],
  ): number {
    return clearPoints(this.#walls, x0, y0, eye, x1, y1, heights);
  }
  soundLength(x0: number, y0: number, x1: number, y1: number, limit: number): number {
    return soundLength(this.#walls, this.#openings, x0, y0, x1, y1, limit);
  }

  findWays(kind: number, starts: readonly number[], goalX: number, goalY: number): PathResult[] {
    const area = this.#areas[kind];
    if (starts.length >= 2 * FIELD_FROM) return findPaths(this.#walls, area, starts, goalX, goalY);
    const results: PathResult[] = [];
    for (let i = 0; i < starts.length; i += 2)
      results.push(findPath(this.#walls, area, starts[i], starts[i + 1], goalX, goalY));
    return results;
  }
  reachableFrom(kind: number, x: number, y: number, off: number): Reachable | null {
    const area = this.#areas[kind];
    const centre = nearestOpen(area, x, y, off);
    if (centre < 0) return null;
    const islands = islandsOf(area);
    return {
      nearest: (placeX, placeY, within, place) => {
        if (placeX < 0 || placeY < 0 || placeX > area.columns * area.cell) return -1;
        if (placeY > area.rows * area.cell) return -1;
        const cell = nearestOpen(area, placeX, placeY, within);
        if (cell < 0 || islands[cell] !== islands[centre]) return -1;
        const here = cell === cellAt(area, placeX, placeY);
        place[0] = here ? placeX : middleX(area, cell);
        place[1] = here ? placeY : middleY(area, cell);
        return cell;
      },
    };
  }

  moveBody(bodies: readonly Body[], self: number, dt: number, found: number[]): number {
    const kind = this.#kinds[this.#kindOf[self]];
    const { x, y } = bodies[self];
    // Others may have moved since they were filed, by as much as a fast body goes in a tick.
    const reach = kind.radius + this.#largestRadius + AHEAD + 2 * this.#longestStep;
    const count = collectNeighbours(this.#bodies, x, y, reach, found);
    moveBody(bodies, this.#radii, self, kind, this.#walls, found, count, dt);
    return count;
  }

  setGate(gate: number, stands: boolean): void {
    const wall = this.#walls.count - this.#gates.length + gate;
    const standing = stands ? 1 : 0;
    if (this.#walls.standing[wall] === standing) return;
    this.#walls.standing[wall] = standing;
    const { x, y, width, height } = this.#gates[gate];
    for (const area of new Set([...this.#areas, this.#openings]))
      lookAgain(area, this.#walls, x, y, x + width, y + height);
  }
}

/** An area whose cells change with gates, where there are any. */
function ownArea(area: Walkable, gates: number): Walkable {
  return gates > 0 ? withOwnCells(area) : area;
}
