import type { NoPath } from '../terms/reasons.ts';

/** What the legs of a body are doing, for what moves bodies and what commands them. */

export const LEGS_IDLE = 0;
export const LEGS_MOVING = 1;
export const LEGS_ARRIVED = 2;
export const LEGS_FAILED = 3;
export type LegsStatus =
  typeof LEGS_IDLE | typeof LEGS_MOVING | typeof LEGS_ARRIVED | typeof LEGS_FAILED;

/** A way as x, y pairs, the start left out and the goal last; or why there is none. */
export type PathResult = { ok: true; points: number[] } | { ok: false; reason: NoPath };
