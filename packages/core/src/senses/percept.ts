import { SIGHT } from '../terms/senses.ts';

/**
 * What the senses bring besides the tracks of sight: one at a time for each sense, for as long as it
 * holds the attention. Source of the kinds and their order: docs/semantics.md.
 */
export interface Percept {
  /** Index among the senses; never sight, which keeps tracks. */
  sense: number;
  /** Index of the text that says what: a step, a body, a word of the squad’s. */
  what: number;
  /** The agent it is of, where the sense tells; −1 for none. */
  of: number;
  /** The thing it is of; −1 for none. */
  thing: number;
  /** Where the sense places it; for harm only a direction, one metre away. */
  x: number;
  y: number;
  /** 0 to 1. */
  strength: number;
  tick: number;
}

/** Seconds a percept can hold the attention. */
export const PERCEPT_SECONDS = 4;
/** Seconds in which a weaker percept of the same sense does not take its place. */
const STRONGER_STAYS = 1;

/** Whether a new percept takes the place of one of the same sense. */
export function replaces(fresh: Percept, before: Percept | null, ticksPerSecond: number): boolean {
  if (before === null || fresh.strength >= before.strength) return true;
  return fresh.tick - before.tick > STRONGER_STAYS * ticksPerSecond;
}

/**
 * Which sense has the attention: the first of `order` that has something. Sight counts from the
 * `curious` threshold on; below it, it has what attention is left. −1 where there is nothing.
 */
export function attendedSense(
  order: readonly number[],
  percepts: readonly (Percept | null)[],
  awareness: number,
  curious: number,
): number {
  for (let i = 0; i < order.length; i++) {
    const sense = order[i];
    if (sense === SIGHT ? awareness > 0 && awareness >= curious : percepts[sense] !== null)
      return sense;
  }
  return awareness > 0 && order.includes(SIGHT) ? SIGHT : -1;
}
