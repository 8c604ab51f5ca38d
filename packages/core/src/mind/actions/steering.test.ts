import { describe, expect, it } from 'vitest';
import type { ActionDocument, ProjectDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, watch } from '../../testing/orchard.fixture.ts';
import { MOST_LEARNED } from '../../terms/limits.ts';
import { learn } from '../../world/mechanics/ways/learned.ts';

/** A keeper that sees all around and does one thing, about a gleaner that a player moves. */
function doing(activity: ActionDocument, change: (document: ProjectDocument) => void = () => {}) {
  const document = cornerProject({
    machine: {
      initial: 'see',
      states: [
        { id: 'see', transitions: [{ to: 'act', when: 'known(attention.of) || time > 1' }] },
        {
          id: 'act',
          activity,
          transitions: [
            { to: 'good', on: 'done.success' },
            { to: 'bad', on: 'done.failure' },
          ],
        },
        { id: 'good' },
        { id: 'bad' },
      ],
    },
    sight: { ...KEEN_SIGHT, cones: [{ range: 30, halfAngle: 180, gain: 5 }] },
  });
  change(document);
  const watched = watch(document);
  const agent = (name: string) => watched.world.agents.find((each) => each.name === name)!;
  const [keeper, gleaner] = [agent('keeper'), agent('gleaner')];
  const apart = () => Math.hypot(keeper.x - gleaner.x, keeper.y - gleaner.y);
  return { ...watched, keeper, gleaner, apart };
}

const AWAY = (document: ProjectDocument) => {
  document.archetypes.keeper.sight = undefined;
};

describe('wandering', () => {
  it('goes on within its radius, and stands at each place', () => {
    const { run, keeper, state } = doing({ do: 'wander', radius: 1.5, pause: 0.5 }, AWAY);
    run(70);
    let [moved, stood] = [0, 0];
    for (let i = 0; i < 900; i++) {
      run(1);
      if (Math.hypot(keeper.self.vx, keeper.self.vy) > 0.1) moved++;
      else stood++;
      expect(Math.hypot(keeper.x - 2, keeper.y - 5)).toBeLessThan(1.6);
    }
    expect(state()).toBe('act');
    expect(Math.min(moved, stood)).toBeGreaterThan(100);
  });

  it('is another way for each agent, by its own luck', () => {
    const place = (seed: number) => {
      const document = cornerProject({
        machine: { initial: 'a', states: [{ id: 'a', activity: { do: 'wander' } }] },
      });
      const { world, run } = watch(document, seed);
      run(100);
      return world.bodies.map(({ x, y }) => [x, y]);
    };
    expect(place(1)).toEqual(place(1));
    expect(place(1)).not.toEqual(place(2));
  });
});

describe('fleeing', () => {
  it('gets away as far as it is told, and then ends well', () => {
    const { run, apart, state } = doing({ do: 'flee', from: 'attention.of', until: 9 }, (d) => {
      d.grounds.corner.agents.keeper.at = [8, 6];
    });
    run(60 * 8);
    expect(state()).toBe('good');
    expect(apart()).toBeGreaterThanOrEqual(9);
  });

  it('finds the way out of a corner', () => {
    const { run, apart } = doing({ do: 'flee', from: 'attention.of', until: 7 }, (d) => {
      d.grounds.corner.agents.keeper.at = [1, 1];
      d.grounds.corner.agents.gleaner.at = [3, 3];
    });
    run(60 * 8);
    expect(apart()).toBeGreaterThan(4);
  });
});

describe('circling', () => {
  it.each([
    ['clockwise', 1],
    ['counterclockwise', -1],
  ])('goes round %s at its distance', (turn, sign) => {
    const { run, keeper, gleaner, apart } = doing(
      { do: 'circle', around: 'attention.of', distance: 2, turn },
      (d) => {
        d.grounds.corner.agents.keeper.at = [6, 5];
      },
    );
    run(120);
    let turned = 0;
    let before = Math.atan2(keeper.y - gleaner.y, keeper.x - gleaner.x);
    for (let i = 0; i < 300; i++) {
      run(1);
      const now = Math.atan2(keeper.y - gleaner.y, keeper.x - gleaner.x);
      let change = now - before;
      if (Math.abs(change) > Math.PI) change -= Math.sign(change) * 2 * Math.PI;
      turned += change;
      before = now;
      expect(Math.abs(apart() - 2)).toBeLessThan(0.5);
    }
    expect(turned * sign).toBeGreaterThan(1.5);
  });
});

describe('keeping a distance', () => {
  it('steps back from who comes near, and follows who goes away', () => {
    const { run, apart, state } = doing({
      do: 'keepDistance',
      from: 'attention.of',
      min: 3,
      max: 5,
    });
    run(240);
    expect(apart()).toBeLessThanOrEqual(5.01);
    run(60, [{ agent: 'gleaner', x: -1, y: 0, gait: null }]);
    run(60, [{ agent: 'gleaner', x: 0, y: 0, gait: null }]);
    expect(apart()).toBeGreaterThan(2.5);
    run(180, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    run(240, [{ agent: 'gleaner', x: 0, y: 0, gait: null }]);
    expect(apart()).toBeLessThanOrEqual(5.1);
    expect(state()).toBe('act');
  });
});

describe('returning to the post', () => {
  it('goes there and turns as it stood', () => {
    const { run, keeper, state } = doing({ do: 'returnToPost' }, (d) => {
      AWAY(d);
      d.grounds.corner.posts = { door: { at: [6, 3], heading: 90 } };
      d.grounds.corner.agents.keeper.post = 'door';
    });
    run(60 * 6);
    expect(state()).toBe('good');
    expect(Math.hypot(keeper.x - 6, keeper.y - 3)).toBeLessThan(0.35);
    expect(keeper.heading).toBeCloseTo(Math.PI / 2, 1);
  });
});

/** A route of two waypoints; who has it stays out of the gleaner's way. */
const WITH_ROUND = (d: ProjectDocument) => {
  AWAY(d);
  d.grounds.corner.routes = {
    round: {
      points: [
        [3, 5],
        [6, 5],
      ],
    },
  };
};

describe('a learned waypoint', () => {
  it('is walked to from then on, after the waypoint it is nearest to, in this run only', () => {
    const { run, world } = doing({ do: 'followRoute', route: 'round' }, (d) => {
      WITH_ROUND(d);
      d.minds.keeper.machine!.states[1].entry = [
        { do: 'learnWaypoint', route: 'round', at: 'self.post' },
      ];
      d.grounds.corner.posts = { nook: { at: [6, 8] } };
      d.grounds.corner.agents.keeper.post = 'nook';
    });
    run(70);
    expect([...world.routes[0]]).toEqual([3, 5, 6, 5, 6, 8]);
    let lowest = 0;
    for (let i = 0; i < 60 * 8; i++) {
      run(1);
      lowest = Math.max(lowest, world.bodies[1].y);
    }
    expect(lowest).toBeGreaterThan(7.7);
    expect(world.statics.program.ground.routes[0].points).toEqual([3, 5, 6, 5]);
  });

  it('is one of sixteen at most: the nearest that was learned is then moved', () => {
    const { run, world } = doing({ do: 'wander' }, WITH_ROUND);
    run(1);
    for (let i = 0; i < 40; i++) learn(world, 0, 1 + i * 0.4, 8);
    expect(world.learned[0]).toHaveLength(2 * MOST_LEARNED);
    expect(world.routes[0]).toHaveLength(4 + 2 * MOST_LEARNED);
    // The last of them all took the place of the last of the first sixteen.
    expect(world.learned[0].slice(-2)).toEqual([1 + 39 * 0.4, 8]);
  });
});
