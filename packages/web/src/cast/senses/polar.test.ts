import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conePath, fitPolar, gridRings, heardWithin, toPixels, toPlace } from './polar.ts';

const cone = fc.record({
  range: fc.double({ min: 0.1, max: 500, noNaN: true }),
  halfAngle: fc.integer({ min: 1, max: 180 }),
  gain: fc.constant(1),
});

describe('the drawing of senses', () => {
  it('holds every cone and ring, whatever their size', () => {
    fc.assert(
      fc.property(
        fc.array(cone, { minLength: 1, maxLength: 4 }),
        fc.array(fc.double({ min: 0, max: 100, noNaN: true }), { maxLength: 3 }),
        (cones, rings) => {
          const polar = fitPolar(cones, rings, 400, 300);
          const places = [
            ...cones.flatMap(({ range, halfAngle }) =>
              [-1, -0.5, 0, 0.5, 1].map((share) => ({ distance: range, angle: halfAngle * share })),
            ),
            ...rings.flatMap((distance) => [0, 90, 180, -90].map((angle) => ({ distance, angle }))),
          ];
          for (const place of places) {
            const { x, y } = toPixels(polar, place);
            expect(x >= 0 && x <= 400 && y >= 0 && y <= 300, JSON.stringify(place)).toBe(true);
          }
        },
      ),
    );
  });

  it('has ahead up and clockwise to the right, and finds the place under a pixel again', () => {
    const polar = { scale: 10, x: 200, y: 150 };
    expect(toPixels(polar, { distance: 5, angle: 0 })).toEqual({ x: 200, y: 100 });
    const { x, y } = toPixels(polar, { distance: 5, angle: 90 });
    expect([x, Math.round(y)]).toEqual([250, 150]);
    const found = toPlace(
      polar,
      ...(Object.values(toPixels(polar, { distance: 7, angle: -130 })) as [number, number]),
    );
    expect(found.distance).toBeCloseTo(7, 9);
    expect(found.angle).toBeCloseTo(-130, 9);
  });

  it('closes a cone that looks all around', () => {
    const path = conePath({ scale: 10, x: 0, y: 0 }, { range: 2, halfAngle: 180, gain: 1 });
    expect(path).toBe('M0 -20A20 20 0 1 1 0 20A20 20 0 1 1 0 -20Z');
  });

  it('has rings at round distances, few enough to read', () => {
    expect(gridRings(11)).toEqual([2, 4, 6, 8, 10]);
    expect(gridRings(2.6)).toEqual([0.5, 1, 1.5, 2, 2.5]);
    for (const reach of [0.7, 3, 17, 80, 499]) {
      expect(gridRings(reach).length).toBeGreaterThan(0);
      expect(gridRings(reach).length).toBeLessThanOrEqual(6);
    }
  });

  it('hears a noise as far as loudness stays above the threshold', () => {
    expect(heardWithin(7, 0.1)).toBeCloseTo(6.3, 12);
    expect(heardWithin(7, 1)).toBe(0);
  });
});
