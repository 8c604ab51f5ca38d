import { ROW_CODES } from '@crooked-lantern/core';
import { HISTORY_TICKS } from '../../engine/protocol.ts';
import type { Tokens } from '../../theme/tokens.ts';
import { sharpCanvas } from '../../ui/canvas.ts';

/**
 * What one of `rows` rows came to in the last ticks: one tick a column, the last at the right; tall for running
 * and success, short for failure, a hairline where it was not reached. `past` as in a frame.
 */
export function drawStrip(
  canvas: HTMLCanvasElement,
  past: Uint8Array | undefined,
  rows: number,
  row: number,
  tokens: Tokens,
): void {
  const sharp = sharpCanvas(canvas);
  if (!sharp) return;
  const { context, width, height } = sharp;
  context.clearRect(0, 0, width, height);
  if (!past || row < 0 || rows === 0) return;
  const step = width / HISTORY_TICKS;
  const colours = { running: tokens.ember, success: tokens.done, failure: tokens.refuse };
  const ticks = past.length / rows;
  for (let i = 0; i < ticks; i++) {
    const x = (HISTORY_TICKS - ticks + i) * step;
    const result = ROW_CODES[past[i * rows + row]];
    if (result === null || result === 'stopped') {
      context.fillStyle = tokens.line2;
      context.fillRect(x, height - 1, step, 1);
      continue;
    }
    const now = i === ticks - 1;
    context.fillStyle = now && result === 'running' ? tokens.lamp : colours[result];
    const size = result === 'failure' ? (height - 2) * 0.4 : height - 2;
    context.fillRect(x, height - size, Math.max(1, step - 0.5), size);
  }
}
