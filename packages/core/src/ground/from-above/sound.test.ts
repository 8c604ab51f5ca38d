import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Solid } from '../ground.ts';
import { groundOf } from '../../testing/ground.fixture.ts';

const WALL = 12;

function lengths(boxes: readonly Solid[], from: number[], to: number[], limit = 100): number {
  return groundOf(20, 20, boxes).soundLength(from[0], from[1], to[0], to[1], limit);
}

/** A wall from the top edge down to y, across the straight way. */
const wallTo = (y: number): Solid => ({ x: 9.9, y: 0, width: 0.2, height: y, muffles: WALL });

describe('the way sound takes', () => {
  it('is straight where nothing is between', () => {
    expect(lengths([], [3, 4], [6, 8])).toBe(5);
  });

  it('leads around a corner that is near, louder than through the wall', () => {
    const around = lengths([wallTo(11)], [8, 10], [12, 10]);
    expect(around).toBeGreaterThan(4);
    expect(around).toBeLessThan(4 + WALL);
    expect(around).toBeCloseTo(2 * Math.hypot(2, 1), 0);
  });

  it('leads through the wall where the corner is far', () => {
    expect(lengths([wallTo(19)], [8, 10], [12, 10])).toBe(4 + WALL);
  });

  it('is through the wall where there is no way around', () => {
    expect(lengths([wallTo(20)], [8, 10], [12, 10])).toBe(4 + WALL);
  });

  it('goes over what is low', () => {
    expect(lengths([{ ...wallTo(20), top: 0.9 }], [8, 10], [12, 10])).toBe(4);
  });

  it('loses the muffling of every wall it goes through', () => {
    const second = { ...wallTo(20), x: 11, muffles: 3 };
    expect(lengths([wallTo(20), second], [8, 10], [12, 10])).toBe(4 + WALL + 3);
  });

  it('is never shorter than straight nor longer than straight through all walls', () => {
    const box = fc.record({
      x: fc.double({ min: 2, max: 16, noNaN: true }),
      y: fc.double({ min: 2, max: 16, noNaN: true }),
      width: fc.double({ min: 0.2, max: 4, noNaN: true }),
      height: fc.double({ min: 0.2, max: 4, noNaN: true }),
      muffles: fc.double({ min: 0, max: 6, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(box, { maxLength: 6 }), (boxes) => {
        const length = lengths(boxes, [1, 1], [19, 18]);
        const straight = Math.hypot(18, 17);
        const most = straight + boxes.reduce((sum, { muffles }) => sum + muffles, 0);
        expect(length).toBeGreaterThanOrEqual(straight - 1e-9);
        expect(length).toBeLessThanOrEqual(most + 1e-9);
      }),
    );
  });

  it('is not looked for farther than it would be heard', () => {
    expect(lengths([wallTo(20)], [8, 10], [12, 10], 10)).toBe(Infinity);
  });
});
