import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createReaches, drawShade } from './shade.ts';
import type { Painter } from './view.ts';

const SIZE = 100;

/** A canvas that draws nothing; a shade needs no more of it. */
class NoCanvas {
  readonly width: number;
  readonly height: number;
  constructor(width: number, height: number) {
    this.width = width;
    this.height = height;
  }
  getContext() {
    return { setTransform() {}, clearRect() {}, scale() {}, beginPath() {}, fill() {} };
  }
}

let shown: unknown[];
const painter = (left = 0) =>
  ({
    context: { drawImage: (picture: unknown) => void shown.push(picture) },
    view: { scale: 20, left, top: 0 },
    width: SIZE,
    height: SIZE,
  }) as unknown as Painter;

beforeEach(() => {
  shown = [];
  vi.stubGlobal('OffscreenCanvas', NoCanvas);
});

afterEach(() => vi.unstubAllGlobals());

/** How often the outlines were asked for in so many frames. */
function timesDrawn(frames: number, goesOn: boolean, leftOf: (frame: number) => number = () => 0) {
  const reaches = createReaches();
  const outline = vi.fn();
  for (let frame = 0; frame < frames; frame++)
    drawShade(painter(leftOf(frame)), reaches, { color: '#102030', opacity: 0.1, goesOn }, outline);
  return outline.mock.calls.length;
}

describe('the shade of many', () => {
  it('is shown in each frame, and drawn in every third while the run goes on', () => {
    expect(timesDrawn(9, true)).toBe(3);
    expect(shown).toHaveLength(9);
  });

  it('is drawn in each frame of a run that rests: it is looked at closely', () => {
    expect(timesDrawn(4, false)).toBe(4);
  });

  it('follows the view at once', () => {
    expect(timesDrawn(4, true, (frame) => frame)).toBe(4);
  });

  it.each([
    { goesOn: true, coarse: 4 },
    { goesOn: false, coarse: 2 },
  ])('takes no finer outlines than its pixels show (goes on: $goesOn)', ({ goesOn, coarse }) => {
    const outline = vi.fn();
    drawShade(painter(), createReaches(), { color: '#102030', opacity: 0.1, goesOn }, outline);
    expect(outline.mock.calls[0][1]).toBe(20 / coarse);
    expect(shown[0]).toMatchObject({ width: SIZE / coarse, height: SIZE / coarse });
  });
});
