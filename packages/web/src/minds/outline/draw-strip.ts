import type { RowReadout } from '@crooked-lantern/core';
import { HISTORY_TICKS } from '../../engine/row-history.ts';
import type { Tokens } from '../../theme/tokens.ts';
import { sharpCanvas } from '../../ui/canvas.ts';

/** One tick a column, the last at the right: tall for running and success, short for failure, a hairline where it was not reached. */
export function drawStrip(
  canvas: HTMLCanvasElement,
  results: readonly RowReadout['result'][],
  tokens: Tokens,
): void {
  const sharp = sharpCanvas(canvas);
  if (!sharp) return;
  const { context, width, height } = sharp;
  context.clearRect(0, 0, width, height);
  const step = width / HISTORY_TICKS;
  const colours = { running: tokens.ember, success: tokens.done, failure: tokens.refuse };
  results.forEach((result, i) => {
    const x = (HISTORY_TICKS - results.length + i) * step;
    if (result === null || result === 'stopped') {
      context.fillStyle = tokens.line2;
      context.fillRect(x, height - 1, step, 1);
      return;
    }
    const now = i === results.length - 1;
    context.fillStyle = now && result === 'running' ? tokens.lamp : colours[result];
    const size = result === 'failure' ? (height - 2) * 0.4 : height - 2;
    context.fillRect(x, height - size, Math.max(1, step - 0.5), size);
  });
}
