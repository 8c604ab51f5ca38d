import { describe, expect, it } from 'vitest';
import type { ActionDocument, GroundDocument, RouteDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, story, watch } from '../../testing/orchard.fixture.ts';

/** A keeper that does one thing, and says `good` or `bad` when it has come to its end. */
function doing(
  activity: ActionDocument,
  options: {
    ground?: Partial<GroundDocument>;
    entry?: ActionDocument[];
    route?: string;
    sight?: boolean;
  } = {},
) {
  const document = cornerProject({
    machine: {
      initial: 'act',
      states: [
        {
          id: 'act',
          ...(options.entry ? { entry: options.entry } : {}),
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
    memory: { spot: { type: 'point' }, mood: { type: 'number', default: 3 } },
    ground: options.ground,
    ...(options.sight ? { sight: KEEN_SIGHT } : {}),
  });
  if (options.route) document.grounds.corner.agents.keeper.route = options.route;
  const watched = watch(document);
  return { ...watched, keeper: watched.world.agents.find(({ name }) => name === 'keeper')! };
}

const route = (end: RouteDocument['end'], wait = 0): Partial<GroundDocument> => ({
  routes: {
    round: {
      points: [
        [3, 5],
        [5, 5],
        [5, 7],
      ],
      end,
      wait,
    },
  },
});

/** Numbers of the waypoints come near, in order, repeats dropped. */
function visited(
  run: (ticks: number) => void,
  place: () => { x: number; y: number },
  ticks: number,
): number[] {
  const points = [
    [3, 5],
    [5, 5],
    [5, 7],
  ];
  const order: number[] = [];
  for (let i = 0; i < ticks; i++) {
    run(1);
    const { x, y } = place();
    const near = points.findIndex(([px, py]) => Math.hypot(px - x, py - y) < 0.2);
    if (near >= 0 && order[order.length - 1] !== near + 1) order.push(near + 1);
  }
  return order;
}

describe('move to', () => {
  it('a point succeeds within the distance asked for', () => {
    const { run, state, keeper } = doing(
      { do: 'moveTo', to: 'lastSeen(attention.of)', within: 1.5 },
      { sight: true },
    );
    run(300);
    expect(state()).toBe('good');
    expect(8 - keeper.x).toBeLessThanOrEqual(1.5);
    expect(8 - keeper.x).toBeGreaterThan(1);
  });

  it('what is not known fails at once', () => {
    const { run, state } = doing({ do: 'moveTo', to: 'spot' });
    run(1);
    expect(state()).toBe('bad');
  });

  it('a place without a way fails, and the ledger says so', () => {
    // Through the gap it sees what it can't reach.
    const walls: GroundDocument['walls'] = [
      { at: [5, 0], size: [0.2, 4.85] },
      { at: [5, 5.15], size: [0.2, 4.85] },
    ];
    const { run, state, entries } = doing(
      { do: 'moveTo', to: 'attention.of', within: 1 },
      { ground: { walls }, entry: [{ do: 'raise', event: 'look' }], sight: true },
    );
    run(3);
    expect(state()).toBe('bad');
    expect(entries.filter(({ kind }) => kind === 'noWay')).toEqual([
      expect.objectContaining({ agent: 'keeper', x: 8, y: 5 }),
    ]);
  });

  it('takes how near as an expression', () => {
    const { run, state, keeper } = doing(
      { do: 'moveTo', to: 'attention.of', within: 'mood - 1' },
      { sight: true },
    );
    run(240);
    expect(state()).toBe('good');
    expect(8 - keeper.x).toBeGreaterThan(1.8);
  });
});

describe('follow route', () => {
  it('walks a loop for ever, from the nearest waypoint', () => {
    const { run, state, keeper } = doing(
      { do: 'followRoute', route: 'round' },
      { ground: route('loop') },
    );
    expect(visited(run, () => keeper, 900).slice(0, 6)).toEqual([1, 2, 3, 1, 2, 3]);
    expect(state()).toBe('act');
  });

  it('turns at the ends of a way there and back', () => {
    const { run, keeper } = doing(
      { do: 'followRoute', route: 'round' },
      { ground: route('thereAndBack') },
    );
    expect(visited(run, () => keeper, 1000).slice(0, 7)).toEqual([1, 2, 3, 2, 1, 2, 3]);
  });

  it('succeeds at the last waypoint of a way that stops', () => {
    const { run, state, keeper } = doing(
      { do: 'followRoute', route: 'round' },
      { ground: route('stop') },
    );
    expect(visited(run, () => keeper, 400)).toEqual([1, 2, 3]);
    expect(state()).toBe('good');
  });

  it('stands at each waypoint as long as the route says', () => {
    const ticksToThird = (wait: number) => {
      const { run, state } = doing(
        { do: 'followRoute', route: 'round' },
        { ground: route('stop', wait) },
      );
      for (let ticks = 1; ticks < 2000; ticks++) {
        run(1);
        if (state() === 'good') return ticks;
      }
      throw new Error('It never arrives.');
    };
    const waiting = ticksToThird(1) - ticksToThird(0);
    expect(Math.abs(waiting - 3 * 60)).toBeLessThanOrEqual(3);
  });

  it('follows the agent’s own route, and fails without one', () => {
    const own = doing(
      { do: 'followRoute', route: 'self.route' },
      { ground: route('stop'), route: 'round' },
    );
    own.run(400);
    expect(own.state()).toBe('good');
    const none = doing({ do: 'followRoute', route: 'self.route' });
    none.run(1);
    expect(none.state()).toBe('bad');
  });
});

describe('facing and turning', () => {
  it('faces a place no faster than the body turns', () => {
    const { run, state, keeper } = doing({ do: 'face', toward: 'self.post' }, { sight: true });
    run(1);
    expect(state()).toBe('good');
    const away = doing({ do: 'face', toward: 'attention.place' }, { sight: true });
    away.run(1);
    expect(away.state()).toBe('good');
    expect(keeper.heading).toBe(0);
  });

  it.each([90, -90, 200, -270, 360])('turns by %d° and stops there', (by) => {
    const { run, state, keeper } = doing({ do: 'turn', by });
    let turned = 0;
    let last = keeper.heading;
    for (let i = 0; i < 90; i++) {
      run(1);
      const change = keeper.heading - last;
      turned += change - Math.round(change / (2 * Math.PI)) * 2 * Math.PI;
      last = keeper.heading;
    }
    expect(state()).toBe('good');
    expect(Math.abs(turned - (by * Math.PI) / 180)).toBeLessThan(0.07);
  });
});

describe('the rest', () => {
  it('wait is over after its time, to the tick', () => {
    const { run, state } = doing({ do: 'wait', seconds: 0.5 });
    run(30);
    expect(state()).toBe('act');
    run(1);
    expect(state()).toBe('good');
  });

  it('a gait sets the speed of what follows', () => {
    const speedWith = (gait: string) => {
      const { run, keeper } = doing(
        { do: 'followRoute', route: 'round' },
        { ground: route('loop'), entry: [{ do: 'setGait', gait }] },
      );
      run(60);
      return Math.hypot(keeper.self.vx, keeper.self.vy);
    };
    expect(speedWith('run')).toBeCloseTo(3, 1);
    expect(speedWith('walk')).toBeCloseTo(1.5, 1);
  });

  it('forget sets a key back to its default', () => {
    const { run, memory } = doing(
      { do: 'wait', seconds: 9 },
      {
        entry: [
          { do: 'remember', key: 'mood', value: '9' },
          { do: 'forget', key: 'mood' },
          { do: 'remember', key: 'spot', value: 'self.place' },
        ],
      },
    );
    run(1);
    expect(memory()).toEqual({ mood: '3', spot: '(2, 5)' });
  });

  it('what is said is heard in the ledger, and shown for a while', () => {
    const { run, entries, keeper } = doing(
      { do: 'wait', seconds: 1 },
      { entry: [{ do: 'say', text: 'Hm?' }] },
    );
    run(1);
    expect(story(entries)).toContain('say Hm?');
    expect([keeper.speech, keeper.spokenAt]).toEqual(['Hm?', 1]);
  });
});
