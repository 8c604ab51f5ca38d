import type { Frame } from '../engine/protocol.ts';

/** The stretch of ticks on screen and how wide it is drawn. */
export interface Window {
  from: number;
  to: number;
  width: number;
}

export function xOf({ from, to, width }: Window, tick: number): number {
  return ((tick - from) / (to - from)) * width;
}

export function tickAt({ from, to, width }: Window, x: number): number {
  return from + (x / width) * (to - from);
}

/**
 * The stretch to show: the last `span` ticks, or all there is. While the run is shorter it is as long as the run, and
 * `shortest` ticks at least; it grows to the right before it moves.
 */
export function windowFor(frame: Frame, span: number, shortest: number, width: number): Window {
  const { keptFrom, head, tick } = frame;
  const whole = Math.max(shortest, (head - keptFrom) * (Number.isFinite(span) ? 1.02 : 1));
  if (whole <= span) return { from: keptFrom, to: keptFrom + whole, width };
  const to = Math.max(keptFrom + span, head + span * 0.02);
  let from = to - span;
  // The playhead stays in sight when it goes back past the left edge.
  if (tick < from) from = Math.max(keptFrom, tick - span * 0.1);
  return { from, to: from + span, width };
}
