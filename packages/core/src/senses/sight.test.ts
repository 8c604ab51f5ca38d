import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { castRay } from '../space/rays.ts';
import { createWalls } from '../space/walls.ts';
import { cornerProject, KEEN_SIGHT, watch } from '../testing/orchard.fixture.ts';
import { crossing, sightStrength, type SightKind } from './sight.ts';

const STILL = { initial: 'stand', states: [{ id: 'stand' }] };
const kind: SightKind = {
  cones: [
    { range: 10, halfAngle: 0.5, gain: 1 },
    { range: 4, halfAngle: 1.5, gain: 2 },
  ],
  reach: 10,
  fade: 0.5,
  graceTicks: 30,
  curious: 0.3,
  certain: 1,
  forgetTicks: 60,
  points: 2,
};
const open = createWalls(20, 20, []);
const looker = { x: 10, y: 10, heading: 0, eye: 1.6 };
const standing = (x: number, y: number) => ({ x, y, height: 1.7, posture: 1 });

function percepts(seconds: number, options: Partial<Parameters<typeof cornerProject>[0]> = {}) {
  const watched = watch(cornerProject({ machine: STILL, sight: KEEN_SIGHT, ...options }));
  watched.run(Math.round(seconds * 60));
  return { ...watched, percepts: watched.entries.filter((entry) => entry.kind === 'percept') };
}

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

  it('sees nothing through a wall, and past its end', () => {
    const walls = createWalls(20, 20, [{ x: 12, y: 9, width: 0.5, height: 2 }]);
    expect(sightStrength(kind, walls, looker, standing(15, 10))).toBe(0);
    expect(sightStrength(kind, walls, looker, standing(15, 12.6))).toBeGreaterThan(0);
  });

  it('is the same both ways: a ray that meets a wall meets it from the other end', () => {
    const at = fc.double({ min: 0, max: 20, noNaN: true });
    const walls = createWalls(20, 20, [
      { x: 3, y: 3, width: 4, height: 0.5 },
      { x: 12, y: 5, width: 0.7, height: 9 },
      { x: 6, y: 14, width: 2, height: 2 },
    ]);
    fc.assert(
      fc.property(at, at, at, at, (x0, y0, x1, y1) => {
        expect(castRay(walls, x0, y0, x1, y1) < 1).toBe(castRay(walls, x1, y1, x0, y0) < 1);
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
    expect(keeper.awareness(0)).toBe(1);
    expect(keeper.sees(0)).toBe(false);
    run(60 * 2);
    expect(keeper.awareness(0)).toBeLessThan(0.35);
    run(60);
    expect(entries.some((entry) => entry.kind === 'percept' && entry.how === 'lost')).toBe(true);
    expect(keeper.knownX(0)).toBeGreaterThan(0);
    run(60 * 5);
    expect(keeper.knownX(0)).toBeNaN();
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
          states: [{ id: 'stand', leaves: [{ to: 'sure', on: 'sight.certain' }] }, { id: 'sure' }],
        },
      }),
    );
    run(60);
    expect(state()).toBe('sure');
  });
});
