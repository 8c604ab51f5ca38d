import type { ArchetypeDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { ceilingOf, noticeCases, noticeCurves } from './notice-curves.ts';

const gleaner: ArchetypeDocument = {
  title: 'Gleaner',
  faction: 'gleaners',
  body: { radius: 0.3, acceleration: 10, turnRate: 360 },
  gaits: { walk: 2, creep: { speed: 1, crouched: true, visibility: 0.5 } },
  gait: 'walk',
};
const sight = {
  cones: [
    { range: 10, halfAngle: 20, gain: 2 },
    { range: 3, halfAngle: 90, gain: 1 },
  ],
  fade: 0.5,
  grace: 0.5,
  curious: 0.3,
  certain: 1,
  forgetAfter: 5,
};
const cases = noticeCases(gleaner, 0.25);
const curves = (angle = 0, threshold = 1, reaction = 0) =>
  noticeCurves({ sight, threshold, reaction }, cases, angle);

describe('the ways to stand there', () => {
  it('are two postures in two lights, with what shows of each', () => {
    expect(cases.map(({ id, exposure }) => [id, exposure])).toEqual([
      ['standingLit', 1],
      ['crouchedLit', 0.5],
      ['standingUnlit', 0.25],
      ['crouchedUnlit', 0.125],
    ]);
  });

  it('take the usual share where no gait is crouched, and a standing gait where the usual one is', () => {
    const upright = noticeCases({ ...gleaner, gaits: { walk: 2 } }, 1);
    expect(upright.map(({ exposure }) => exposure)).toEqual([1, 0.6, 1, 0.6]);
    const low = noticeCases({ ...gleaner, gait: 'creep' }, 1);
    expect(low.map(({ exposure }) => exposure)).toEqual([1, 0.5, 1, 0.5]);
  });
});

describe('time to notice', () => {
  it('is threshold over what awareness gains, with the reaction on top', () => {
    const at5 = curves(0, 0.3, 0.2).find(({ distance }) => distance === 5)!;
    // 2 × (1 − 0.25) = 1.5 a second.
    expect(at5.seconds.standingLit).toBeCloseTo(0.3 / 1.5 + 0.2, 12);
    expect(at5.seconds.crouchedUnlit).toBeCloseTo(0.3 / (1.5 * 0.125) + 0.2, 12);
  });

  it('only grows with distance, and ends where the cones that cover the angle end', () => {
    for (const angle of [0, 45]) {
      let before = 0;
      for (const { distance, seconds } of curves(angle)) {
        const time = seconds.standingLit;
        expect(time === null, `${distance} m at ${angle}°`).toBe(
          distance >= (angle === 0 ? 10 : 3),
        );
        if (time === null) continue;
        expect(time).toBeGreaterThanOrEqual(before);
        before = time;
      }
    }
  });

  it('is never beside the cones and in the dark', () => {
    expect(curves(120).every(({ seconds }) => seconds.standingLit === null)).toBe(true);
    const dark = noticeCurves({ sight, threshold: 1, reaction: 0 }, noticeCases(gleaner, 0), 0);
    expect(dark.every(({ seconds }) => seconds.standingUnlit === null)).toBe(true);
  });

  it('fits a chart whose height holds the nearer half', () => {
    expect(ceilingOf(curves())).toBe(6);
    expect(ceilingOf([])).toBe(1);
  });
});
