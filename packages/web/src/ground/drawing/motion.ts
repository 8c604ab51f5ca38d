import { actionTitle } from '../../engine/action-title.ts';
import { FORCES, type WalkableArea } from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import { bodyAt } from './bodies.ts';
import { faded, toX, toY, type Painter, type View } from './view.ts';

/** How bodies move: their ways, the forces on them, and where they can be. */

/** Ways to where they go; of the chosen agent also which action set it going, and how long ago. */
export function drawPaths(
  { context, view, tokens, width }: Painter,
  paths: NonNullable<Frame['paths']>,
  chosen: number,
): void {
  context.strokeStyle = faded(tokens.done, 0.8);
  context.lineWidth = 1.3;
  // All in one stroke: with hundreds on their way, strokes are what costs.
  context.beginPath();
  for (const { points } of paths) {
    context.moveTo(toX(view, points[0]), toY(view, points[1]));
    for (let i = 2; i < points.length; i += 2)
      context.lineTo(toX(view, points[i]), toY(view, points[i + 1]));
    const [x, y] = endOf(view, points);
    context.moveTo(x + 3, y);
    context.arc(x, y, 3, 0, 2 * Math.PI);
  }
  context.stroke();
  for (const { points, agent, age, by } of paths) {
    if (agent !== chosen) continue;
    const [x, y] = endOf(view, points);
    context.font = `11px 'Atkinson Hyperlegible Next Variable', sans-serif`;
    context.textAlign = 'left';
    context.fillStyle = tokens.done;
    const words = `${by === '' ? 'goal' : actionTitle(by)} ${age.toFixed(1)} s`;
    context.fillText(words, Math.min(x + 6, width - context.measureText(words).width - 4), y + 4);
  }
}

function endOf(view: View, points: ArrayLike<number>): [number, number] {
  return [toX(view, points[points.length - 2]), toY(view, points[points.length - 1])];
}

/** Seconds of way that a force is drawn long. */
const FORCE_SECONDS = 0.5;

/** The forces on each body, as arrows from it; each in a colour of its own. */
export function drawForces({ context, view, tokens }: Painter, frame: Frame): void {
  if (!frame.forces) return;
  const tints = [tokens.harm, tokens.refuse, tokens.done];
  const stride = 2 * FORCES.length;
  context.lineWidth = 1.6;
  for (let force = 0; force < FORCES.length; force++) {
    context.strokeStyle = tints[force];
    context.beginPath();
    for (let body = 0; body * stride < frame.forces.length; body++) {
      const fx = frame.forces[body * stride + 2 * force] * FORCE_SECONDS;
      const fy = frame.forces[body * stride + 2 * force + 1] * FORCE_SECONDS;
      if (Math.abs(fx) + Math.abs(fy) < 0.05) continue;
      const { x, y } = bodyAt(frame, body);
      context.moveTo(toX(view, x), toY(view, y));
      context.lineTo(toX(view, x + fx), toY(view, y + fy));
    }
    context.stroke();
  }
}

/** Where bodies of one size can be, and in another shade the areas no way leads to. */
export function drawWalkable(
  { context, view, tokens }: Painter,
  { columns, rows, cell, areas }: WalkableArea,
): void {
  const main = largest(areas);
  // On whole pixels, so that rows meet without seam or overlap.
  const [left, top] = [
    (c: number) => Math.round(toX(view, c * cell)),
    (r: number) => Math.round(toY(view, r * cell)),
  ];
  for (const [apart, color] of [
    [false, faded(tokens.done, 0.1)],
    [true, faded(tokens.harm, 0.3)],
  ] as const) {
    context.fillStyle = color;
    for (let r = 0; r < rows; r++) {
      let from = -1;
      for (let c = 0; c <= columns; c++) {
        const at = r * columns + c;
        const inside = c < columns && areas[at] >= 0 && (areas[at] !== main) === apart;
        if (inside && from < 0) from = c;
        if (inside || from < 0) continue;
        context.fillRect(left(from), top(r), left(c) - left(from), top(r + 1) - top(r));
        from = -1;
      }
    }
  }
}

/** The area most cells belong to. */
export function largest(areas: Int32Array): number {
  const counts: number[] = [];
  for (const area of areas) if (area >= 0) counts[area] = (counts[area] ?? 0) + 1;
  return counts.reduce((best, count, area) => (count > (counts[best] ?? 0) ? area : best), 0);
}
