import { firstFrom } from '../engine/first-from.ts';
import type { Lane, Point } from '../engine/lanes.ts';
import type { Tokens } from '../theme/tokens.ts';
import type { Playhead } from './draw-bands.ts';
import { healthTint } from './mark-words.ts';
import { xOf, type Window } from './time-window.ts';

/** What a lane shows as lines: awareness, health, scores. */

interface Steps {
  points: readonly Point[];
  /** The tick it begins at, and its value there. */
  since: number;
  start: number;
  /** The most it can be. */
  full: number;
}

/** Where a line stands: `height` is that of the most, in pixels. */
export interface Foot {
  bottom: number;
  height: number;
}

/** A line that steps from point to point; `color` says how it looks at each share of the most. */
function drawSteps(
  context: CanvasRenderingContext2D,
  { points, since, start, full }: Steps,
  { bottom, height }: Foot,
  window: Window,
  frame: Playhead,
  color: (share: number) => string,
): void {
  const end = Math.min(window.width, xOf(window, frame.head));
  const line = (fromX: number, toX: number, from: number, to: number) => {
    if (toX < 0 || fromX > window.width) return;
    context.strokeStyle = color(Math.max(from, to));
    context.lineWidth = from === 0 && to === 0 ? 1 : 1.6;
    context.beginPath();
    context.moveTo(Math.max(0, fromX), bottom - from * height);
    context.lineTo(toX, bottom - to * height);
    context.stroke();
  };
  const first = firstFrom(points, ({ tick }) => tick < window.from);
  let x = xOf(window, points[first - 1]?.tick ?? since);
  let value = (points[first - 1]?.value ?? start) / full;
  for (let i = first; i < points.length; i++) {
    const point = points[i];
    if (point.tick > window.to) break;
    const next = Math.min(end, xOf(window, point.tick));
    line(x, next, value, value);
    line(next, next, value, point.value / full);
    x = next;
    value = point.value / full;
  }
  line(x, end, value, value);
}

/** How much it has noticed, and after its first damage what is left of its health. */
export function drawFoot(
  context: CanvasRenderingContext2D,
  { awareness, health, fullHealth }: Lane,
  foot: Foot,
  window: Window,
  frame: Playhead,
  tokens: Tokens,
): void {
  drawSteps(
    context,
    { points: awareness, since: 0, start: 0, full: 1 },
    foot,
    window,
    frame,
    (share) => (share === 0 ? tokens.line2 : tokens.ember),
  );
  if (health.length === 0 || health[0].tick > window.to) return;
  const left = { points: health, since: health[0].tick, start: fullHealth, full: fullHealth };
  drawSteps(context, left, foot, window, frame, (share) => healthTint(share, tokens));
}

/** What each of its picks scored, of the most that any did. */
export function drawScores(
  context: CanvasRenderingContext2D,
  { scores, fullScore: full }: Lane,
  foot: Foot,
  window: Window,
  frame: Playhead,
  tokens: Tokens,
): void {
  const points = { points: scores, since: scores[0].tick, start: 0, full };
  drawSteps(context, points, foot, window, frame, () => tokens.sight);
}
