import type { Body, BodyKind } from '../motion/body.ts';
import type { PathResult } from '../motion/legs.ts';

/**
 * What a ground is to those on it. Senses, minds, groups and the world ask only this, so that worlds of
 * other kinds (seen from the side, or cells to take turns on) can stand beside the one seen from above.
 * Lengths are metres, angles radians; `kind` is the index of an archetype, whose body is meant.
 */
export interface Ground {
  readonly width: number;
  readonly height: number;

  /** Takes in where all bodies are now, for {@link near}. */
  fileBodies(bodies: readonly Body[]): void;
  /** Numbers of the bodies that may be within `reach` of a place, as they were filed, into `found`; returns how many. */
  near(x: number, y: number, reach: number, found: number[]): number;

  /** Whether a body of this radius would overlap something solid, or the edge of the ground. */
  isBlocked(x: number, y: number, radius: number): boolean;
  /** Puts the place nearest to (x, y) where a body of this radius overlaps nothing solid into `place`. */
  moveOut(x: number, y: number, radius: number, place: Float64Array): void;
  /**
   * Share of the segment from (x0, y0) to (x1, y1), 0 to 1, up to where something of this radius meets
   * what is solid; 1 where nothing is met. What is no higher than `over` is no hindrance.
   */
  castRay(x0: number, y0: number, x1: number, y1: number, radius: number, over: number): number;
  /** The same, the edge of the ground counting as solid. */
  freeShare(x0: number, y0: number, x1: number, y1: number, radius: number): number;
  /**
   * Which of several points one above the other at (x1, y1) are in plain view from (x0, y0) at height
   * `eye`: bit i is set for the i-th of `heights`.
   */
  clearPoints(
    x0: number,
    y0: number,
    eye: number,
    x1: number,
    y1: number,
    heights: readonly number[],
  ): number;
  /** Metres that sound goes from (x0, y0) to (x1, y1); Infinity where it is `limit` or more. */
  soundLength(x0: number, y0: number, x1: number, y1: number, limit: number): number;

  /** Ways to one goal for bodies of one kind; `starts` are x, y pairs, the results come in their order. */
  findWays(kind: number, starts: readonly number[], goalX: number, goalY: number): PathResult[];
  /** The places that a body of this kind can get to from (x, y), or from where it fits within `off` metres of that; null where it fits nowhere. */
  reachableFrom(kind: number, x: number, y: number, off: number): Reachable | null;

  /**
   * Moves the body with this number by one tick of `dt` seconds: steering, velocity, collision, position.
   * No overlap is left behind. The numbers of the bodies around it come into `found`; returns how many.
   */
  moveBody(bodies: readonly Body[], self: number, dt: number, found: number[]): number;

  /** Sets whether the gate with this number is closed; raises no event. */
  setGate(gate: number, stands: boolean): void;
}

/** The places that can be got to from somewhere. */
export interface Reachable {
  /**
   * Puts the place nearest to (x, y) into `place`, looked for within `off` metres. Returns a number that
   * places of one spot share, or −1 where there is none.
   */
  nearest(x: number, y: number, off: number, place: Float64Array): number;
}

/** What a ground is made of, and the bodies that will be on it. */
export interface GroundPlan {
  width: number;
  height: number;
  /** All that is solid: the walls, then the gates in their order. */
  solids: readonly Solid[];
  /** How many of the solids, from the end, are gates. */
  gates: number;
  /** By archetype. */
  kinds: readonly BodyKind[];
  /** By agent: its archetype. */
  kindOf: readonly number[];
  /** Metres the fastest body goes in a tick. */
  longestStep: number;
}

/** A box, seen from above. */
export interface Solid {
  x: number;
  y: number;
  width: number;
  height: number;
  /** Metres above the ground; left out: too high to see over. */
  top?: number;
  /** Metres of way that sound loses in going through. */
  muffles?: number;
}

/** What is the same for all runs on a ground, made once; a run enters it with gates of its own. */
export interface PreparedGround {
  enter(): Ground;
}

/** What is solid, without bodies: for checks, editors and pictures, which never build walls themselves. */
export interface GroundSpace {
  readonly width: number;
  readonly height: number;
  /** As {@link Ground.isBlocked}. */
  isBlocked(x: number, y: number, radius: number): boolean;
  /** As {@link Ground.castRay}. */
  castRay(x0: number, y0: number, x1: number, y1: number, radius: number, over: number): number;
  /** Where the middle of a body of this radius can be. */
  walkable(radius: number): WalkableArea;
}

/** The ground in square cells, row by row. */
export interface WalkableArea {
  columns: number;
  rows: number;
  /** Metres. */
  cell: number;
  /** By cell: the number of the connected area it belongs to; −1 where the body can’t be. */
  areas: Int32Array;
}

/** One kind of ground. */
export interface GroundKind {
  /** Makes a ground ready to be entered. `before` is what it made of the same solids, so that work can be kept. */
  prepare(plan: GroundPlan, before?: PreparedGround): PreparedGround;
  /** What is solid, all of `solids` standing. */
  space(plan: Pick<GroundPlan, 'width' | 'height' | 'solids'>): GroundSpace;
}
