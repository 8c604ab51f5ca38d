import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { NIGHT } from '../../theme/tokens.ts';
import { createBackdrop, drawBackdrop } from './backdrop.ts';
import type { Painter } from './view.ts';

/** What reaches the screen: `drawn` as it goes, or a kept picture. */
function screen() {
  const log: string[] = [];
  const context = {
    canvas: { width: 200, height: 100 },
    drawImage: () => log.push('kept picture'),
  };
  const painter = (scale: number, left = 0): Painter =>
    ({
      context,
      view: { scale, left, top: 0 },
      tokens: NIGHT,
      width: 200,
      height: 100,
    }) as unknown as Painter;
  const draw = vi.fn(() => undefined);
  return { log, painter, draw };
}

beforeEach(() => {
  vi.stubGlobal(
    'OffscreenCanvas',
    class {
      getContext() {
        return { setTransform: () => undefined };
      }
    },
  );
});
afterEach(() => vi.unstubAllGlobals());

describe('what stands still', () => {
  it('is drawn twice, once as it goes and once to keep, and then no more', () => {
    const { log, painter, draw } = screen();
    const kept = createBackdrop();
    for (let frame = 0; frame < 5; frame++) drawBackdrop(kept, painter(10), ['ground'], draw);
    expect(draw).toHaveBeenCalledTimes(2);
    expect(log).toHaveLength(4);
  });

  it('is drawn again when a part of it, the view or the size is another', () => {
    const { painter, draw } = screen();
    const kept = createBackdrop();
    const settle = (scale: number, parts: unknown[], left = 0) => {
      draw.mockClear();
      for (let frame = 0; frame < 3; frame++) drawBackdrop(kept, painter(scale, left), parts, draw);
      return draw.mock.calls.length;
    };
    expect(settle(10, ['a', true])).toBe(2);
    expect(settle(10, ['a', true])).toBe(0);
    expect(settle(10, ['b', true])).toBe(2);
    expect(settle(10, ['b', false])).toBe(2);
    expect(settle(12, ['b', false])).toBe(2);
    expect(settle(12, ['b', false], 5)).toBe(2);
  });

  it('is never kept while the view moves', () => {
    const { log, painter, draw } = screen();
    const kept = createBackdrop();
    for (let frame = 0; frame < 6; frame++)
      drawBackdrop(kept, painter(10, frame), ['ground'], draw);
    expect(draw).toHaveBeenCalledTimes(6);
    expect(log).toEqual([]);
  });
});
