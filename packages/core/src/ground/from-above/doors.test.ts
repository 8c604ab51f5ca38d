import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { WallDocument } from '../../model/documents.ts';
import { cornerProject, errand, watch, type Watched } from '../../testing/orchard.fixture.ts';

/** Crowds through a door 1 m wide, and where they come to rest. */

type At = [number, number];

const PACE = 1.6;
const RATES = [10, 60, 120] as const;

/** A wall across a ground of 26 by 26 m, with one door at x 13. */
function wallWithDoor(thickness: number): WallDocument[] {
  const top = 13 - thickness / 2;
  return [
    { at: [0, top], size: [12.5, thickness] },
    { at: [13.5, top], size: [12.5, thickness] },
  ];
}

const DOOR = wallWithDoor(0.4);

interface Group {
  starts: At[];
  goal: At;
}

/** Groups of keepers who each go to one place. */
function crowd(groups: Group[], walls: WallDocument[], ticksPerSecond = 60) {
  const members = groups.flatMap(({ starts }, group) => starts.map((at) => ({ at, group })));
  const document = cornerProject({
    machine: errand({ do: 'moveTo', to: 'self.post', within: 0.1 }),
    ground: {
      width: 26,
      height: 26,
      walls,
      posts: Object.fromEntries(groups.map(({ goal }, i) => [`goal${i}`, { at: goal }])),
      agents: Object.fromEntries(
        members.map(({ at, group }, i) => [
          `keeper${String(i).padStart(2, '0')}`,
          { archetype: 'keeper', at, post: `goal${group}` },
        ]),
      ),
    },
  });
  delete document.start.play;
  document.ticksPerSecond = ticksPerSecond;
  document.archetypes.keeper.gaits = { walk: PACE };
  const watched = watch(document);
  const { world } = watched;
  return {
    ...watched,
    groupOf: members.map(({ group }) => group),
    /** Seconds until something holds; infinite where it does not within `limit` seconds. */
    until(holds: () => boolean, limit: number): number {
      while (world.tick < limit * ticksPerSecond) {
        watched.run(1);
        if (holds()) return world.tick / ticksPerSecond;
      }
      return Infinity;
    },
  };
}

/** Rows of bodies before or behind the door. */
function block(count: number, middle: number, top: number, perRow: number): At[] {
  return Array.from({ length: count }, (_, i) => [
    middle + ((i % perRow) - (perRow - 1) / 2) * 0.7,
    top + Math.floor(i / perRow) * 0.7,
  ]);
}

const areAcross = ({ world }: Watched) => world.agents.every(({ y }) => y > 13.5);
const atRest = ({ world }: Watched) => world.agents.every(({ legs }) => legs !== 1);

/** Who was told that it has arrived, and where it stood then. */
function toldAt({ world, entries }: Watched): At[] {
  return entries.flatMap((entry) => {
    if (entry.kind !== 'enter' || entry.state !== 'there') return [];
    const { x, y } = world.agents.find(({ name }) => name === entry.agent)!;
    return [[x, y] as At];
  });
}

describe('bodies through a door', () => {
  it.each(RATES)('arrive on the other side, three of them, at %i ticks a second', (rate) => {
    const three = crowd(
      [
        {
          starts: [
            [12.2, 8.8],
            [13.8, 9.8],
            [11.1, 11],
          ],
          goal: [13, 20],
        },
      ],
      DOOR,
      rate,
    );
    expect(three.until(() => atRest(three) && areAcross(three), 15)).toBeLessThan(12);
    three.run(1);
    expect(toldAt(three)).toHaveLength(3);
  });

  it('go through at half the rate of a single file, forty of them, and alike at all rates of ticks', () => {
    const times = RATES.map((rate) => {
      const forty = crowd([{ starts: block(40, 13, 4, 8), goal: [13, 20] }], DOOR, rate);
      const time = forty.until(() => {
        expect(toldAt(forty).every(([, y]) => y > 13.5)).toBe(true);
        return areAcross(forty);
      }, 60);
      return time;
    });
    const singleFile = (13.5 - 6.8 + 39 * 0.6) / PACE;
    expect(Math.max(...times)).toBeLessThan(2 * singleFile);
    expect(Math.max(...times) / Math.min(...times)).toBeLessThan(1.1);
  });

  it('pass each other, twenty against twenty', () => {
    const both = crowd(
      [
        { starts: block(20, 13, 4, 5), goal: [13, 20] },
        { starts: block(20, 13, 18, 5), goal: [13, 6] },
      ],
      DOOR,
    );
    const passed = () =>
      both.world.agents.every(({ y }, i) => (both.groupOf[i] === 0 ? y > 13.5 : y < 12.5));
    expect(both.until(passed, 60)).toBeLessThan(50);
  });

  it('never block each other for ever, two from opposite sides, in a door or a passage 6 m long', () => {
    const offset = fc.integer({ min: -15, max: 15 }).map((tenths) => 13 + tenths / 10);
    const distance = fc.integer({ min: 40, max: 70 }).map((tenths) => tenths / 10);
    fc.assert(
      fc.property(
        offset,
        offset,
        distance,
        distance,
        fc.constantFrom(0.4, 6),
        fc.constantFrom(...RATES),
        (xa, xb, da, db, thickness, rate) => {
          const a: At = [xa, 13 - da];
          const b: At = [xb, 13 + db];
          const two = crowd(
            [
              { starts: [a], goal: b },
              { starts: [b], goal: a },
            ],
            wallWithDoor(thickness),
            rate,
          );
          expect(two.until(() => atRest(two), 40)).toBeLessThan(40);
          const [first, second] = two.world.agents;
          expect(Math.hypot(first.x - b[0], first.y - b[1])).toBeLessThan(0.7);
          expect(Math.hypot(second.x - a[0], second.y - a[1])).toBeLessThan(0.7);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('thirty bodies sent to one place', () => {
  /** Of the tightest heap of thirty: circles fill nine tenths of a plane at most. */
  const tightest = (share: number) => 0.3 * Math.sqrt(30 / (0.9 * share));

  it.each([
    { where: 'in a corner', goal: [0.4, 0.4] as At, share: 1 / 4 },
    { where: 'at a wall', goal: [13, 0.4] as At, share: 1 / 2 },
  ])('come to rest close together $where', ({ goal, share }) => {
    for (const rate of RATES) {
      const heap = crowd([{ starts: block(30, 10, 8, 6), goal }], [], rate);
      expect(heap.until(() => atRest(heap), 40)).toBeLessThan(30);
      for (const { x, y } of heap.world.agents)
        expect(Math.hypot(x - goal[0], y - goal[1])).toBeLessThan(1.5 * tightest(share));
    }
  });

  it('go around those who are there, where there is room behind them', () => {
    const goal: At = [10, 10];
    const heap = crowd([{ starts: block(30, 20, 18, 6), goal }], []);
    heap.until(() => atRest(heap), 40);
    const { agents } = heap.world;
    const quarters = [0, 1, 2, 3].map(
      (quarter) =>
        agents.filter(({ x, y }) => (x > goal[0] ? 1 : 0) + (y > goal[1] ? 2 : 0) === quarter)
          .length,
    );
    expect(Math.min(...quarters)).toBeGreaterThan(2);
  });
});

describe('forty bodies ordered to a place for five', () => {
  /** A bay 3 m wide and 0.7 m deep, open below: five bodies of 0.6 m side by side. */
  const BAY: WallDocument[] = [
    { at: [11, 3], size: [4, 0.5] },
    { at: [11, 3], size: [0.5, 1.2] },
    { at: [14.5, 3], size: [0.5, 1.2] },
  ];

  it.each(RATES)('end at rest, at %i ticks a second, with the place full', (rate) => {
    const goal: At = [13, 3.85];
    const heap = crowd([{ starts: block(40, 8, 12, 10), goal }], BAY, rate);
    expect(heap.until(() => atRest(heap), 60)).toBeLessThan(45);
    const inside = heap.world.agents.filter(({ x, y }) => x > 11.5 && x < 14.5 && y < 4.2);
    expect(inside.length).toBeGreaterThanOrEqual(3);
    const rest = heap.world.bodies.map(({ x, y }) => [x, y]);
    heap.run(5 * rate);
    heap.world.bodies.forEach(({ x, y }, i) =>
      expect(Math.hypot(x - rest[i][0], y - rest[i][1])).toBeLessThan(0.05),
    );
  });
});
