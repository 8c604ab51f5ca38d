import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NIGHT } from '../../theme/tokens.ts';
import {
  closeView,
  faded,
  fitView,
  isInSight,
  isMap,
  MARGIN,
  toMetresX,
  toMetresY,
  toX,
  toY,
  type Painter,
} from './view.ts';

const size = fc.integer({ min: 120, max: 2000 });
const metres = fc.integer({ min: 2, max: 300 });

describe('the whole ground', () => {
  it('fits, in the middle, as large as it can be', () => {
    fc.assert(
      fc.property(metres, metres, size, size, (w, h, width, height) => {
        const view = fitView(w, h, width, height, 0);
        // Below two pixels a metre it would be too small to be of use, and may stand over.
        if (view.scale === 2) return;
        expect(toX(view, 0)).toBeGreaterThanOrEqual(MARGIN - 1e-6);
        expect(toY(view, h)).toBeLessThanOrEqual(height - MARGIN + 1e-6);
        const slack = [width - 2 * MARGIN - w * view.scale, height - 2 * MARGIN - h * view.scale];
        expect(Math.min(...slack)).toBeCloseTo(0, 6);
      }),
    );
  });

  it('has each place under the pixel it is drawn at', () => {
    const view = fitView(24, 29, 410, 500, 0);
    expect(toMetresX(view, toX(view, 7.3))).toBeCloseTo(7.3, 9);
    expect(toMetresY(view, toY(view, 21.9))).toBeCloseTo(21.9, 9);
  });

  it('is a map where it is too small to read', () => {
    expect(isMap(fitView(24, 29, 410, 500, 0))).toBe(false);
    expect(isMap(fitView(144, 145, 410, 500, 0))).toBe(true);
  });
});

describe('a close view', () => {
  it('has the agent in its middle, or as near as the edge of the ground allows', () => {
    const middle = closeView(50, 50, 30, 100, 100, 400, 300, 0);
    expect([toX(middle, 50), toY(middle, 50)]).toEqual([200, 150]);
    const corner = closeView(0, 0, 30, 100, 100, 400, 300, 0);
    expect([toX(corner, 0), toY(corner, 0)]).toEqual([MARGIN, MARGIN]);
  });

  it('knows what of the ground can be seen at all', () => {
    const view = closeView(50, 50, 10, 100, 100, 400, 300, 0);
    const painter = { view, width: 400, height: 300, tokens: NIGHT } as Painter;
    expect(isInSight(painter, 50, 50, 1)).toBe(true);
    expect(isInSight(painter, 28, 50, 1)).toBe(false);
    expect(isInSight(painter, 28, 50, 3)).toBe(true);
    expect(isInSight(painter, 50, 90, 5)).toBe(false);
  });
});

it('a faded colour keeps its hue and says its opacity in two digits', () => {
  expect(faded('#102030', 0)).toBe('#10203000');
  expect(faded('#102030', 0.02)).toBe('#10203005');
  expect(faded('#102030', 1)).toBe('#102030ff');
});
