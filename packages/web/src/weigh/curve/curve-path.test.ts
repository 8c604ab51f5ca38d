import {
  CURVE_SHAPES,
  curveOf,
  freshCurve,
  readProject,
  type CurveDocument,
} from '@crooked-lantern/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newProject } from '../../home/new-project.ts';
import { curvePath, flatShare, handlesOf } from './curve-path.ts';

const SHAPES = CURVE_SHAPES.map(freshCurve);

function hasForm(curve: CurveDocument): boolean {
  const document = structuredClone(newProject('Curves'));
  const [mind] = Object.keys(document.minds);
  document.minds[mind].choices = {
    one: { options: [{ id: 'a', considerations: [{ input: '1', curve }] }] },
  };
  return readProject(document).ok;
}

describe('a handle', () => {
  it.each(SHAPES)('of $shape lies on the curve', (curve) => {
    for (const { x, y, id } of handlesOf(curve)) {
      if (curve.shape === 'step' || id === 'soft') continue;
      expect(curveOf(curve)(x)).toBeCloseTo(y, 6);
    }
  });

  const share = fc.double({ min: 0, max: 1, noNaN: true });

  it.each(SHAPES)(
    'of $shape goes where it is dragged, and leaves a curve of the right form',
    (fresh) => {
      fc.assert(
        fc.property(
          fc.array(fc.tuple(fc.nat(9), share, share), { minLength: 1, maxLength: 6 }),
          (drags) => {
            let curve = fresh;
            for (const [which, x, y] of drags) {
              const handles = handlesOf(curve);
              curve = handles[which % handles.length].move(x, y);
            }
            expect(hasForm(curve)).toBe(true);
            if (curve.shape === 'points')
              expect(curve.points.every(([x], i, all) => i === 0 || x > all[i - 1][0])).toBe(true);
          },
        ),
        { numRuns: 25 },
      );
    },
  );

  it('of a line at its end bends it to pass there', () => {
    const [, end] = handlesOf({ shape: 'linear' });
    expect(curveOf(end.move(1, 0.25))(1)).toBeCloseTo(0.25, 6);
    expect(curveOf(end.move(1, 0.25))(0)).toBe(0);
  });
});

it('is drawn from left to right, 1 at the top', () => {
  expect(curvePath({ shape: 'linear' }, 40, 20, 2)).toBe('M0.00 20.00L20.00 10.00L40.00 0.00');
  expect(curvePath({ shape: 'step', at: 0.5 }, 10, 10, 1)).toMatch(
    /^M0.00 10.00L5.00 10.00L5.00 0.00/,
  );
});

it('tells how much fell where the curve is level', () => {
  const bins = [10, 0, 0, 0, 30];
  expect(flatShare({ shape: 'plateau', from: 0, to: 0.7, soft: 0.3 }, bins)).toBe(0.25);
  expect(flatShare({ shape: 'linear' }, bins)).toBe(0);
  expect(flatShare({ shape: 'linear' }, [0, 0])).toBeNull();
});
