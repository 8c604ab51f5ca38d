import { reserve, type CellLayout } from './cells.ts';
import type { Host } from './host.ts';

/**
 * Rules of conduct: whether one is heeded is drawn once per occasion, from when its guard begins to hold
 * until it has been seen not to.
 */

/** Whether something may start, or go on. */
export type Guard = (host: Host) => boolean;

/** What the cell of an occasion holds. */
const NO_OCCASION = 0;
const HEEDED = 1;
const PASSED_OVER = 2;

/** The cell of an occasion. */
export function reserveOccasion(layout: CellLayout): number {
  return reserve(layout, 1, NO_OCCASION);
}

/** Whether the rule whose guard holds is heeded on this occasion; draws where that is not settled yet. */
export function isHeeded(host: Host, at: number): boolean {
  const { memory } = host;
  if (memory[at] === NO_OCCASION)
    memory[at] = host.random() < host.obedience ? HEEDED : PASSED_OVER;
  return memory[at] === HEEDED;
}

/** Whether it was settled that the rule is not heeded on this occasion. */
export function isPassedOver(memory: Float64Array, at: number): boolean {
  return memory[at] === PASSED_OVER;
}

/** Its guard does not hold: the next time it does is another occasion. */
export function endOccasion(memory: Float64Array, at: number): void {
  memory[at] = NO_OCCASION;
}

/** The guard of a rule of conduct: holds where the rule is heeded too. */
export function heeded(guard: Guard, layout: CellLayout): Guard {
  const at = reserveOccasion(layout);
  return (host) => {
    if (guard(host)) return isHeeded(host, at);
    endOccasion(host.memory, at);
    return false;
  };
}
