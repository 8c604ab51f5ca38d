/** Hearing: loudness = 1 − length / reach, after as long as sound takes for the way. Which way that is, the ground says. */

/** Metres per second, in air at 20 °C. */
const SPEED_OF_SOUND = 343;

export function loudness(length: number, reach: number): number {
  return length < reach ? 1 - length / reach : 0;
}

/** Ticks until sound arrives: at least one, since it is heard in the tick after it was made. */
export function soundDelay(length: number, ticksPerSecond: number): number {
  return Math.max(1, Math.round((length / SPEED_OF_SOUND) * ticksPerSecond));
}
