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

/** The stretch to show: the last `span` ticks, or all there is; it grows to the right before it moves. */
export function windowFor(frame: Frame, span: number, width: number): Window {
  if (!Number.isFinite(span))
    return { from: frame.keptFrom, to: Math.max(frame.head, frame.keptFrom + 600), width };
  const to = Math.max(frame.keptFrom + span, frame.head + span * 0.02);
  let from = to - span;
  // The playhead stays in sight when it goes back past the left edge.
  if (frame.tick < from) from = Math.max(frame.keptFrom, frame.tick - span * 0.1);
  return { from, to: from + span, width };
}
