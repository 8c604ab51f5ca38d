import { because } from '../../terms/reasons.ts';
import { reasonText } from '../../world/readout/reason-text.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ActionDocument, ProjectDocument } from '../../model/documents.ts';
import { cornerProject, watch } from '../../testing/orchard.fixture.ts';

/** Many bodies on one ground. */

const SPOT: [number, number] = [10, 5];

/** `starts.length` keepers, who all do one thing. */
function crowd(
  starts: readonly (readonly [number, number])[],
  activity: ActionDocument,
  change: (document: ProjectDocument) => void = () => {},
) {
  const document = cornerProject({
    machine: {
      initial: 'go',
      states: [
        { id: 'go', activity, transitions: [{ to: 'there', on: 'done.success' }] },
        { id: 'there' },
      ],
    },
    ground: {
      agents: Object.fromEntries(
        starts.map(([x, y], i) => [
          `keeper${i}`,
          { archetype: 'keeper', at: [x, y] as [number, number], post: 'spot' },
        ]),
      ),
      posts: { spot: { at: SPOT } },
    },
  });
  delete document.start.play;
  change(document);
  return watch(document);
}

const speed = ({ vx, vy }: { vx: number; vy: number }) => Math.hypot(vx, vy);

/** Places, written as “x,y x,y”. */
const at = (places: string) =>
  places.split(' ').map((place) => place.split(',').map(Number) as [number, number]);

const fromSpot = ({ x, y }: { x: number; y: number }) => Math.hypot(x - SPOT[0], y - SPOT[1]);

/** Ten on a ring around the spot, not quite evenly. */
const RING = Array.from({ length: 10 }, (_, i) => {
  const angle = (2 * Math.PI * i) / 10 + i * 0.03;
  const away = 3 + (i % 3) * 0.4;
  return [SPOT[0] + Math.cos(angle) * away, SPOT[1] + Math.sin(angle) * away] as const;
});

describe('ten bodies to one point', () => {
  it('stand still around it after three seconds, and none overlaps another', () => {
    const { world, run } = crowd(
      RING,
      { do: 'moveTo', to: 'self.post', within: 0.1 },
      (document) => {
        document.archetypes.keeper.gait = 'run';
      },
    );
    for (let i = 0; i < 180; i++) {
      run(1);
      for (const [n, a] of world.bodies.entries()) {
        for (const b of world.bodies.slice(0, n))
          expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(0.6 - 1e-9);
      }
    }
    const rest = world.bodies.map(({ x, y }) => ({ x, y }));
    for (const body of world.bodies) {
      expect(speed(body)).toBeLessThan(0.05);
      expect(fromSpot(body)).toBeLessThan(2);
    }
    run(120);
    world.bodies.forEach(({ x, y }, i) =>
      expect(Math.hypot(x - rest[i].x, y - rest[i].y)).toBeLessThan(0.005),
    );
  });

  it('come to rest as well where that is all their mind does, and nothing is stuck', () => {
    const corner = Array.from(
      { length: 40 },
      (_, i) => [1 + (i % 8), 1 + Math.floor(i / 8)] as const,
    );
    const rests = (starts: readonly (readonly [number, number])[], spot: [number, number]) => {
      const activity = { do: 'moveTo', to: 'self.post', within: 0.1 } as const;
      const { world, run, entries } = crowd(starts, activity, (document) => {
        document.minds.keeper = { title: 'Keeper', activity };
        document.grounds.corner.posts!.spot.at = spot;
      });
      run(60 * 30);
      const places = world.bodies.map(({ x, y }) => ({ x, y }));
      const before = entries.length;
      run(60 * 5);
      world.bodies.forEach(({ x, y }, i) =>
        expect(Math.hypot(x - places[i].x, y - places[i].y)).toBeLessThan(0.005),
      );
      expect(entries.slice(before).filter(({ kind }) => kind === 'stuck')).toEqual([]);
    };
    rests(RING, SPOT);
    rests(corner, [19, 9]);
  });

  it('come to rest from anywhere, and all know that they are there', () => {
    const place = fc.tuple(fc.integer({ min: 1, max: 19 }), fc.integer({ min: 1, max: 9 }));
    fc.assert(
      fc.property(
        fc.uniqueArray(place, { minLength: 2, maxLength: 10, selector: (at) => at.join() }),
        (starts) => {
          const { world, run } = crowd(starts, { do: 'moveTo', to: 'self.post', within: 0.1 });
          // One that others hold up walks around them first: 8 s of way can take 13 s.
          run(60 * 25);
          for (const agent of world.agents) {
            expect(speed(agent.body)).toBeLessThan(0.05);
            expect(agent.legs).not.toBe(1);
          }
        },
      ),
      {
        numRuns: 25,
        // Cases that once failed.
        examples: [
          [at('14,2 1,3 16,7 5,2 13,8 4,1 9,1 14,1')],
          [at('2,1 4,3 1,1 6,2 3,6 1,8 13,2 7,6')],
          [at('10,4 15,5 18,1 1,1 1,3 11,3 18,4 14,3')],
        ],
      },
    );
  });
});

describe('one held between two that stand farther from the point than it', () => {
  it('makes do with where it stands', () => {
    const { world, run } = crowd(at('14,2 1,3 16,7 5,2 13,8 4,1 9,1 14,1'), {
      do: 'moveTo',
      to: 'self.post',
      within: 0.1,
    });
    run(60 * 12);
    expect(world.agents[5].legs).not.toBe(1);
    const [between, ...others] = [5, 2, 3].map((i) => world.bodies[i]);
    for (const other of others) {
      expect(fromSpot(other)).toBeGreaterThan(fromSpot(between));
      expect(Math.hypot(other.x - between.x, other.y - between.y)).toBeLessThan(0.62);
    }
  });
});

describe('bodies that meet', () => {
  it('pass each other on a way wide enough, rather than stand nose to nose', () => {
    const { world, run } = crowd(
      [
        [4, 5],
        [16, 5],
      ],
      { do: 'moveTo', to: 'self.post', within: 0.3 },
      (document) => {
        document.grounds.corner.posts = { spot: { at: [16, 5] }, other: { at: [4, 5] } };
        document.grounds.corner.agents.keeper1.post = 'other';
      },
    );
    run(60 * 12);
    expect(world.bodies[0].x).toBeGreaterThan(15);
    expect(world.bodies[1].x).toBeLessThan(5);
  });

  it('go around one that stands in the way', () => {
    const { world, run } = crowd(
      [
        [4, 5],
        [8, 5.05],
      ],
      { do: 'moveTo', to: 'self.post', within: 0.3 },
      (document) => {
        document.grounds.corner.agents.keeper1.post = 'here';
        document.grounds.corner.posts!.here = { at: [8, 5.05] };
      },
    );
    run(60 * 8);
    expect(world.bodies[0].x).toBeGreaterThan(9.5);
    expect(world.bodies[1].x).toBeCloseTo(8, 6);
  });
});

describe('stuck', () => {
  it('is raised in a closed cell, and says why', () => {
    const { entries, run, world } = crowd(
      [[4, 5]],
      { do: 'moveTo', to: 'self.post', within: 0.3 },
      (document) => {
        document.grounds.corner.walls = [
          { at: [3.5, 4.4], size: [1, 0.2] },
          { at: [3.5, 5.4], size: [1, 0.2] },
          { at: [3.4, 4.4], size: [0.2, 1.2] },
          { at: [4.4, 4.4], size: [0.2, 1.2] },
        ];
      },
    );
    run(5);
    expect(entries.find(({ kind }) => kind === 'stuck')).toMatchObject({
      agent: 'keeper0',
      reason: because('noWayOut'),
    });
    expect(world.agents[0].body.trouble).toBe('closedIn');
  });

  it('names those who hold a body up', () => {
    const around = [
      [6.62, 5],
      [5.38, 5],
      [6, 5.62],
      [6, 4.38],
    ] as const;
    const { entries, run } = crowd(
      [[6, 5], ...around],
      { do: 'moveTo', to: 'self.post', within: 0.3 },
      (document) => {
        const { agents } = document.grounds.corner;
        for (const name of Object.keys(agents).slice(1)) agents[name].asleep = true;
        agents.keeper1.title = 'The first in the way';
      },
    );
    run(60 * 3);
    const stuck = entries.find(({ kind }) => kind === 'stuck');
    expect(stuck).toMatchObject({ agent: 'keeper0' });
    expect(stuck?.kind === 'stuck' && reasonText(stuck.reason)).toMatch(
      /^held up by The first in the way, /,
    );
  });
});

describe('forces', () => {
  it('never ask for more than the body can do, and come in their order', () => {
    const { world, run } = crowd(RING, { do: 'moveTo', to: 'self.post', within: 0.1 });
    let separated = 0;
    for (let i = 0; i < 180; i++) {
      run(1);
      for (const { forces, pace } of world.bodies) {
        const [x, y] = [forces[0] + forces[2] + forces[4], forces[1] + forces[3] + forces[5]];
        expect(Math.hypot(x, y)).toBeLessThanOrEqual(pace + 1e-9);
        if (Math.hypot(forces[0], forces[1]) > 0) separated++;
      }
    }
    expect(separated).toBeGreaterThan(0);
  });
});

describe('rest', () => {
  it('far from every player agents do nothing at all, and wake as one comes near', () => {
    const document = cornerProject({
      machine: { initial: 'stroll', states: [{ id: 'stroll', activity: { do: 'wander' } }] },
    });
    document.archetypes.keeper.sleepDistance = 5;
    document.grounds.corner.agents.gleaner.at = [18, 5];
    const { world, run, entries } = watch(document);
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    run(120);
    expect([keeper.x, keeper.y]).toEqual([2, 5]);
    expect(entries.filter(({ agent }) => agent === 'keeper')).toEqual([
      expect.objectContaining({ tick: 1, kind: 'sleeps' }),
    ]);
    run(60 * 9, [{ agent: 'gleaner', x: -1, y: 0, gait: null }]);
    const later = entries.filter(({ agent }) => agent === 'keeper').slice(1);
    expect(later.slice(0, 2).map(({ kind }) => kind)).toEqual(['wakes', 'enter']);
    expect(Math.hypot(keeper.x - 2, keeper.y - 5)).toBeGreaterThan(0.1);
  });
});
