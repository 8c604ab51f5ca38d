import { writtenSpace } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { outlineOf, type Fan, type KeptOutlines } from './outlines.ts';

/** A ground of 20 m with one wall, so high, at x = 12. */
const walled = (height: number) =>
  writtenSpace({
    title: 'Walled',
    width: 20,
    height: 20,
    walls: [{ at: [12, 0], size: [1, 20], height }],
    routes: {},
    agents: {},
  });
const space = walled(2);
const SCALE = 10;
const lantern: Fan = { x: 10, y: 10, heading: 0, reach: 4, halfAngle: Math.PI, over: 1 };

function corners(points: Float32Array): [number, number][] {
  return Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]]);
}

describe('an outline', () => {
  it('ends at its reach, at the ground’s edge, and where a wall stands', () => {
    const lit = corners(outlineOf(new Map(), 0, space, SCALE, lantern));
    for (const [x, y] of lit) {
      expect(Math.hypot(x, y)).toBeLessThanOrEqual(4.0001);
      expect(10 + x).toBeLessThanOrEqual(12.0001);
    }
    expect(Math.min(...lit.map(([x]) => x))).toBeCloseTo(-4, 1);
    const edge = { ...lantern, x: 1 };
    for (const [x] of corners(outlineOf(new Map(), 0, space, SCALE, edge)))
      expect(1 + x).toBeGreaterThanOrEqual(-0.0001);
  });

  it('passes over what is no higher than it looks over', () => {
    const low = walled(0.9);
    const lit = corners(outlineOf(new Map(), 0, low, SCALE, lantern));
    expect(Math.max(...lit.map(([x]) => x))).toBeCloseTo(4, 1);
  });

  it('has more rays the larger it is drawn', () => {
    const rays = (scale: number) => outlineOf(new Map(), 0, space, scale, lantern).length;
    expect(rays(30)).toBeGreaterThan(rays(3));
  });

  it('is kept until its source has moved, turned or grown enough to show, or a wall is another', () => {
    const kept: KeptOutlines = new Map();
    const first = outlineOf(kept, 'a', space, SCALE, lantern);
    expect(outlineOf(kept, 'a', space, SCALE, { ...lantern, x: 10.05 })).toBe(first);
    for (const change of [{ x: 10.2 }, { heading: 0.1 }, { reach: 5 }, { halfAngle: 1 }])
      expect(outlineOf(new Map(kept), 'a', space, SCALE, { ...lantern, ...change })).not.toBe(
        first,
      );
    expect(outlineOf(new Map(kept), 'b', space, SCALE, lantern)).not.toBe(first);
    expect(outlineOf(new Map(kept), 'a', { ...space }, SCALE, lantern)).not.toBe(first);
    expect(outlineOf(new Map(kept), 'a', space, 2 * SCALE, lantern)).not.toBe(first);
  });
});
