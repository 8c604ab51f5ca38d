import type { NumberFunction } from '../../expression/closures.ts';
import type { Host } from '../host.ts';

/** Seconds as ticks; NaN where the time is not known. */
export function ticksOf(host: Host, seconds: NumberFunction): number {
  return Math.round(seconds(host) * host.ticksPerSecond);
}
