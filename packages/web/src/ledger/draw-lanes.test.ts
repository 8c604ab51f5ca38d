import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Frame } from '../engine/protocol.ts';
import { dotPlace, laneHeight, placeEdits, RULER, rowsIn, topOfWords } from './draw-lanes.ts';
import { tickAt, windowFor, xOf } from './time-window.ts';

const frame = (tick: number, head: number, keptFrom = 0) => ({ tick, head, keptFrom }) as Frame;

describe('the stretch of time shown', () => {
  it('follows the run once that is longer', () => {
    const later = windowFor(frame(2000, 2000), 600, 300, 900);
    expect(later.to - later.from).toBe(600);
    expect(later.to).toBeGreaterThanOrEqual(2000);
  });

  it('is as long as a run that is shorter, and so many ticks at least', () => {
    const long = (head: number) => windowFor(frame(head, head), 2400, 600, 900).to;
    expect(long(0)).toBe(600);
    expect(long(500)).toBe(600);
    expect(long(1000)).toBeCloseTo(1020);
    expect(long(2390)).toBe(2390 + 0.02 * 2400);
    // What is asked for is never exceeded.
    expect(windowFor(frame(20, 20), 60, 600, 900)).toMatchObject({ from: 0, to: 60 });
  });

  it('keeps the playhead in sight when it goes back', () => {
    const back = windowFor(frame(300, 5000), 600, 300, 900);
    expect(back.from).toBeLessThanOrEqual(300);
    expect(back.to).toBeGreaterThan(300);
  });

  it('shows the whole run where that is asked for, from where it is kept', () => {
    expect(windowFor(frame(900, 5000, 700), Infinity, 600, 900)).toEqual({
      from: 700,
      to: 5000,
      width: 900,
    });
  });

  it('turns a place into a tick and back', () => {
    const stretch = windowFor(frame(2000, 2000), 600, 300, 900);
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
    expect(RULER + 8 * laneHeight(216, 8)).toBeLessThanOrEqual(216);
    expect(laneHeight(184, 200)).toBe(laneHeight(0, 1));
  });
});

describe('marks and labels', () => {
  it('dots end above the words of a band, however low the lane', () => {
    for (let tall = 19; tall <= 36; tall++) {
      const { middle, radius } = dotPlace(tall);
      expect(middle + radius, `${tall} px`).toBeLessThanOrEqual(topOfWords(tall));
    }
  });

  it('labels of edits never stand over each other or over what is covered, and the latest has one', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 0, max: 300 }),
        (ticks, covered) => {
          const edits = ticks.sort((a, b) => a - b).map((tick, i) => ({ tick, edit: i + 1 }));
          const window = { from: 0, to: 1000, width: 900 };
          const placed = placeEdits(edits, window, covered, (text) => text.length * 6);
          expect(placed).toHaveLength(edits.length);
          expect(placed[0].label?.text).toBe(`edit ${edits.length}`);
          const boxes = placed
            .flatMap(({ label }) => label ?? [])
            .sort((one, other) => one.left - other.left);
          for (const [i, { left, right }] of boxes.entries()) {
            expect(right).toBeLessThanOrEqual(900 - covered);
            if (i > 0) expect(left).toBeGreaterThan(boxes[i - 1].right);
          }
        },
      ),
    );
  });
});
