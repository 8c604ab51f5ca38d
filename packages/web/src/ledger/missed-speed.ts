/** A moment of a run that goes on: when it was looked at, in ms, and the tick it had come to. */
export interface Sample {
  time: number;
  tick: number;
}

/** Of the speed that was chosen less than this share counts as missed. */
const ENOUGH = 0.9;

/** How fast a run went between two samples, in seconds of the run a second; null where it keeps up with `wanted`. */
export function missedSpeed(
  from: Sample,
  to: Sample,
  wanted: number,
  ticksPerSecond: number,
): number | null {
  const seconds = (to.time - from.time) / 1000;
  const reached = (to.tick - from.tick) / ticksPerSecond / seconds;
  // A run that was taken back in between says nothing.
  return seconds <= 0 || reached < 0 || reached >= wanted * ENOUGH ? null : reached;
}
