import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { groundOf } from '../testing/ground.fixture.ts';
import { atan2, cos, sin, wrapAngle } from '../numeric/trigonometry.ts';
import { cornerProject, KEEN_SIGHT, watch } from '../testing/orchard.fixture.ts';
import {
  coneGain,
  coneGainAt,
  crossing,
  secondsToNotice,
  sightKind,
  sightStrength,
  type Looker,
} from './sight.ts';

const STILL = { initial: 'stand', states: [{ id: 'stand' }] };
const kind = sightKind({
  cones: [
    { range: 10, halfAngle: 0.5, gain: 1 },
    { range: 4, halfAngle: 1.5, gain: 2 },
  ],
  fade: 0.5,
  graceTicks: 30,
  curious: 0.3,
  certain: 1,
  forgetTicks: 60,
  points: 2,
});
const open = groundOf(20, 20);
const looker: Looker = { x: 10, y: 10, heading: 0, faceX: 1, faceY: 0, eye: 1.6 };
const standing = (x: number, y: number) => ({ x, y, height: 1.7, posture: 1 });

function percepts(seconds: number, options: Partial<Parameters<typeof cornerProject>[0]> = {}) {
  const watched = watch(cornerProject({ machine: STILL, sight: KEEN_SIGHT, ...options }));
  watched.run(Math.round(seconds * 60));
  return { ...watched, percepts: watched.entries.filter((entry) => entry.kind === 'percept') };
}

describe('heights', () => {
  const low = groundOf(20, 20, [{ x: 14, y: 0, width: 0.3, height: 20, top: 0.9 }]);
  const crouched = (x: number) => ({ x, y: 10, height: 1.02, posture: 1 });

  it('past low cover a body that stands is seen by chest and head, a crouched one is not', () => {
    const open15 = sightStrength(kind, open, looker, standing(15, 10));
    expect(sightStrength(kind, low, looker, standing(15, 10))).toBeCloseTo((2 / 3) * open15, 12);
    expect(sightStrength(kind, low, looker, crouched(15))).toBe(0);
    expect(sightStrength(kind, open, looker, crouched(15))).toBeGreaterThan(0);
  });

  it('farther behind the cover the line falls over it, and a crouched body is seen again', () => {
    const near = groundOf(20, 20, [{ x: 11, y: 0, width: 0.3, height: 20, top: 0.9 }]);
    expect(sightStrength(kind, near, looker, crouched(17))).toBeGreaterThan(0);
  });

  it('from low down the same cover hides those who stand close behind it', () => {
    const crawling = { ...looker, eye: 0.5 };
    expect(sightStrength(kind, low, crawling, { ...standing(14.5, 10), height: 0.95 })).toBe(0);
  });

  it('takes as many points in plain view as it is told to', () => {
    const one = { ...kind, points: 1 };
    const high = groundOf(20, 20, [{ x: 14, y: 0, width: 0.3, height: 20, top: 1.3 }]);
    expect(sightStrength(kind, high, looker, standing(15, 10))).toBe(0);
    const share = sightStrength(one, high, looker, standing(15, 10));
    expect(share).toBeCloseTo(sightStrength(kind, open, looker, standing(15, 10)) / 3, 12);
  });

  it('is in the open gain × posture × (1 − (d / range)²), whatever the height', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 2.5, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: 4.1, max: 9.9, noNaN: true }),
        (height, posture, away) => {
          const seen = sightStrength(kind, open, looker, { x: 10 + away, y: 10, height, posture });
          expect(seen).toBeCloseTo(posture * (1 - (away / 10) ** 2), 9);
        },
      ),
    );
  });
});

describe('time to notice', () => {
  /** Ticks until the keeper at (2, 5) is certain of the gleaner `away` in front of it. */
  function ticksUntilCertain(
    away: number,
    { light = 1, crouched = false }: { light?: number; crouched?: boolean },
  ): number {
    const document = cornerProject({ machine: STILL, sight: KEEN_SIGHT, ground: { light } });
    document.grounds.corner.agents.gleaner.at = [2 + away, 5];
    document.archetypes.gleaner.gaits.creep = { speed: 1, crouched: true, visibility: 0.5 };
    if (crouched) document.archetypes.gleaner.gait = 'creep';
    const { world, run } = watch(document);
    const gleaner = world.agents.findIndex(({ name }) => name === 'gleaner');
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    for (let ticks = 1; ticks < 3000; ticks++) {
      run(1);
      if (keeper.known.awareness(gleaner) >= 1) return ticks;
    }
    return Infinity;
  }

  it('is what the formula says, within a tick', () => {
    const [{ range, gain }] = KEEN_SIGHT.cones;
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 8.5, noNaN: true }),
        fc.double({ min: 0.2, max: 1, noNaN: true }),
        fc.boolean(),
        (away, light, crouched) => {
          const exposure = light * (crouched ? 0.5 : 1);
          const rate = gain * exposure * (1 - (away / range) ** 2);
          const { cones } = KEEN_SIGHT;
          expect(secondsToNotice({ cones }, away, 0, exposure, 1)).toBeCloseTo(1 / rate, 9);
          const ticks = ticksUntilCertain(away, { light, crouched });
          expect(Math.abs(ticks - 60 / rate)).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('what a cone covers', () => {
  it('sees within range and angle, weaker with distance', () => {
    expect(sightStrength(kind, open, looker, standing(15, 10))).toBeCloseTo(1 - 0.25, 12);
    expect(sightStrength(kind, open, looker, standing(20, 10))).toBe(0);
    expect(sightStrength(kind, open, looker, standing(5, 10))).toBe(0);
    expect(sightStrength(kind, open, looker, standing(12, 14.5))).toBe(0);
  });

  it('takes the best of several cones', () => {
    expect(sightStrength(kind, open, looker, standing(12, 10))).toBeCloseTo(2 * (1 - 0.25), 12);
    expect(sightStrength(kind, open, looker, standing(10.5, 13))).toBeGreaterThan(0);
  });

  it('needs no angle, and says the same as with one', () => {
    const coordinate = fc.double({ min: -12, max: 12, noNaN: true });
    fc.assert(
      fc.property(
        coordinate,
        coordinate,
        fc.double({ min: -7, max: 7, noNaN: true }),
        (dx, dy, turn) => {
          const heading = wrapAngle(turn);
          const facing = { ...looker, heading, faceX: cos(heading), faceY: sin(heading) };
          const away = Math.hypot(dx, dy);
          // Straight at it, and at both sides of the edges of both cones.
          for (const off of [
            0,
            ...kind.cones.flatMap(({ halfAngle }) => [halfAngle, -halfAngle]),
          ]) {
            for (const slip of [0, 1e-15, -1e-15, 1e-10, -1e-10, 1e-6, -1e-6]) {
              const angle = heading + off + slip;
              for (const [x, y] of [
                [dx, dy],
                [away * cos(angle), away * sin(angle)],
              ])
                expect(coneGainAt(kind, facing, x, y, away)).toBe(
                  coneGain(kind, away, wrapAngle(atan2(y, x) - heading)),
                );
            }
          }
        },
      ),
      // So near that products are rounded to nothing.
      { examples: [[2.5e-323, -2.5e-323, -6.490688639389801]] },
    );
  });

  it('sees nothing through a wall, and past its end', () => {
    const walls = groundOf(20, 20, [{ x: 12, y: 9, width: 0.5, height: 2 }]);
    expect(sightStrength(kind, walls, looker, standing(15, 10))).toBe(0);
    expect(sightStrength(kind, walls, looker, standing(15, 12.6))).toBeGreaterThan(0);
  });

  it('is the same both ways: a ray that meets a wall meets it from the other end', () => {
    const at = fc.double({ min: 0, max: 20, noNaN: true });
    const walls = groundOf(20, 20, [
      { x: 3, y: 3, width: 4, height: 0.5 },
      { x: 12, y: 5, width: 0.7, height: 9 },
      { x: 6, y: 14, width: 2, height: 2 },
    ]);
    fc.assert(
      fc.property(at, at, at, at, (x0, y0, x1, y1) => {
        expect(walls.castRay(x0, y0, x1, y1, 0, 0) < 1).toBe(
          walls.castRay(x1, y1, x0, y0, 0, 0) < 1,
        );
      }),
    );
  });
});

describe('awareness', () => {
  it('reaches certainty within a tick of what the formula says', () => {
    // 6 m of 10 m with gain 2: 2 × (1 − 0.36) = 1.28 a second.
    const { percepts: seen } = percepts(2);
    const certain = seen.find(({ how }) => how === 'certain')!;
    expect(Math.abs(certain.tick - (1 / 1.28) * 60)).toBeLessThanOrEqual(1);
    expect(seen.map(({ how }) => how)).toEqual(['curious', 'certain']);
  });

  it('stays through the grace time, then fades and is lost, and the last place is forgotten', () => {
    const { world, run, entries } = percepts(1.2);
    run(1, [{ agent: 'gleaner', x: -1, y: 0, gait: 'run' }]);
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    keeper.body.heading = Math.PI - 1e-9;
    run(30);
    expect(keeper.known.awareness(0)).toBe(1);
    expect(keeper.here.sees(0)).toBe(false);
    run(60 * 2);
    expect(keeper.known.awareness(0)).toBeLessThan(0.35);
    run(60);
    expect(entries.some((entry) => entry.kind === 'percept' && entry.how === 'lost')).toBe(true);
    expect(keeper.known.x(0)).toBeGreaterThan(0);
    run(60 * 5);
    expect(keeper.known.x(0)).toBeNaN();
  });

  it('is not built by members of one’s own faction', () => {
    const document = cornerProject({ machine: STILL, sight: KEEN_SIGHT });
    document.archetypes.gleaner.faction = 'keepers';
    const { run, entries } = watch(document);
    run(120);
    expect(entries.filter(({ kind: entryKind }) => entryKind === 'percept')).toEqual([]);
  });

  it('tells each threshold once, each way', () => {
    expect(crossing(kind, 0.2, 0.4)).toBe('curious');
    expect(crossing(kind, 0.2, 1)).toBe('certain');
    expect(crossing(kind, 1, 0.9)).toBe('unsure');
    expect(crossing(kind, 1, 0.1)).toBe('lost');
    expect(crossing(kind, 0.4, 0.9)).toBe(null);
  });

  it('comes to minds as events', () => {
    const { run, state } = watch(
      cornerProject({
        sight: KEEN_SIGHT,
        machine: {
          initial: 'stand',
          states: [
            { id: 'stand', transitions: [{ to: 'sure', on: 'sight.certain' }] },
            { id: 'sure' },
          ],
        },
      }),
    );
    run(60);
    expect(state()).toBe('sure');
  });
});
