import { describe, expect, it } from 'vitest';
import type { Frame } from '../engine/protocol.ts';
import { laneHeight, RULER, rowsIn } from './draw-lanes.ts';
import { tickAt, windowFor, xOf } from './time-window.ts';

const frame = (tick: number, head: number, keptFrom = 0) => ({ tick, head, keptFrom }) as Frame;

describe('the stretch of time shown', () => {
  it('stands still until the run reaches its right edge, then follows', () => {
    expect(windowFor(frame(100, 100), 600, 900)).toEqual({ from: 0, to: 600, width: 900 });
    const later = windowFor(frame(2000, 2000), 600, 900);
    expect(later.to - later.from).toBe(600);
    expect(later.to).toBeGreaterThanOrEqual(2000);
  });

  it('keeps the playhead in sight when it goes back', () => {
    const back = windowFor(frame(300, 5000), 600, 900);
    expect(back.from).toBeLessThanOrEqual(300);
    expect(back.to).toBeGreaterThan(300);
  });

  it('shows the whole run where that is asked for, from where it is kept', () => {
    expect(windowFor(frame(900, 5000, 700), Infinity, 900)).toEqual({
      from: 700,
      to: 5000,
      width: 900,
    });
  });

  it('turns a place into a tick and back', () => {
    const stretch = windowFor(frame(2000, 2000), 600, 900);
    for (const tick of [stretch.from, 1700, 2000])
      expect(tickAt(stretch, xOf(stretch, tick))).toBeCloseTo(tick, 9);
  });
});

describe('the lanes in sight', () => {
  it('are those that the scrolled window touches', () => {
    const lane = 36;
    const height = RULER + 3 * lane;
    expect(rowsIn({ top: 0, height, lane }, 200)).toEqual([0, 2]);
    expect(rowsIn({ top: lane / 2, height, lane }, 200)).toEqual([0, 3]);
    expect(rowsIn({ top: 10 * lane, height, lane }, 200)).toEqual([10, 12]);
    expect(rowsIn({ top: 0, height, lane }, 2)).toEqual([0, 1]);
    const [first, last] = rowsIn({ top: 0, height, lane }, 0);
    expect(last).toBeLessThan(first);
  });

  it('are as high as what is there allows: all of a few, and never too low to be read', () => {
    expect(laneHeight(184, 2)).toBe(36);
    // Picks and moves stand below the states where there is room.
    expect(laneHeight(184, 2, 2)).toBe(36 + 2 * 15);
    expect(laneHeight(184, 8, 2)).toBe(laneHeight(184, 8));
    expect(RULER + 8 * laneHeight(184, 8)).toBeLessThanOrEqual(184);
    expect(laneHeight(184, 200)).toBe(laneHeight(0, 1));
  });
});
