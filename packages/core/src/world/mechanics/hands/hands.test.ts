import { because } from '../../../terms/reasons.ts';
import { describe, expect, it } from 'vitest';
import type { ActionDocument, ProjectDocument } from '../../../model/documents.ts';
import { cornerProject, programOf, watch } from '../../../testing/orchard.fixture.ts';
import { THROW_RANGE } from './hands.ts';
import type { Input } from '../../program/program.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../../handover/snapshot.ts';
import { tick } from '../../phases/tick.ts';
import { createWorld } from '../../world.ts';

const play = (act?: Input['act'], more: Partial<Input> = {}): Input => ({
  agent: 'gleaner',
  x: 0,
  y: 0,
  gait: null,
  ...(act ? { act } : {}),
  ...more,
});

function yard(
  activity: ActionDocument | null = null,
  change: (document: ProjectDocument) => void = () => {},
) {
  const document = cornerProject({
    machine: {
      initial: 'act',
      states: [
        {
          id: 'act',
          ...(activity ? { activity } : {}),
          transitions: [
            { to: 'good', on: 'done.success' },
            { to: 'bad', on: 'done.failure' },
          ],
        },
        { id: 'good' },
        { id: 'bad' },
      ],
    },
    ground: { things: { basket: { at: [8.7, 5] } } },
  });
  change(document);
  const watched = watch(document);
  const agent = (name: string) => watched.world.agents.find((each) => each.name === name)!;
  const trouble = () =>
    watched.entries.flatMap((entry) => (entry.kind === 'input' ? [entry.trouble ?? ''] : []));
  return { ...watched, agent, trouble, gleaner: agent('gleaner'), thing: watched.world.things[0] };
}

describe('hands of a player', () => {
  it('pick up what is near, carry it and set it down', () => {
    const { run, world, gleaner } = yard();
    run(1, [play('pickUp')]);
    expect(gleaner.carried).toBe(0);
    run(30, [play(undefined, { x: 1 })]);
    expect(world.things[0].x).toBe(gleaner.x);
    run(1, [play('drop')]);
    expect(gleaner.carried).toBe(-1);
    const { x } = world.things[0];
    run(30, [play(undefined, { x: 1 })]);
    expect(world.things[0].x).toBe(x);
  });

  it('throw as far as they can, and no farther', () => {
    const { run, world, gleaner } = yard();
    run(1, [play('pickUp')]);
    run(120, [play('throw', { at: [gleaner.x + 50, gleaner.y] })]);
    expect(world.things[0].x - gleaner.x).toBeCloseTo(THROW_RANGE, 6);
    expect(world.things[0].flight).toBe(0);
  });

  it('can’t throw through a wall, but over what is low', () => {
    const thrown = (height: number) => {
      const { run, world } = yard(null, (document) => {
        document.grounds.corner.walls = [{ at: [10, 0], size: [0.4, 10], height }];
      });
      run(1, [play('pickUp')]);
      run(120, [play('throw', { at: [14, 5] })]);
      return world.things[0].x;
    };
    expect(thrown(2.4)).toBeLessThan(10);
    expect(thrown(0.9)).toBeCloseTo(14, 6);
  });

  it('say why they can’t: nothing there, hands empty, no gate', () => {
    const { run, trouble } = yard(null, (document) => {
      document.grounds.corner.things = {};
    });
    run(1, [play('pickUp')]);
    run(1, [play('drop')]);
    run(1, [play('throw', { at: [1, 1] })]);
    run(1, [play('use')]);
    expect(trouble()).toEqual([
      because('nothingInReach'),
      because('handsEmpty'),
      because('handsEmpty'),
      because('noGateInReach'),
    ]);
  });
});

describe('hands of minds', () => {
  const near = (document: ProjectDocument) => {
    document.grounds.corner.agents.keeper.at = [9.4, 5];
  };

  it('pick up a thing they know of, one decision later', () => {
    const { run, state, agent } = yard({ do: 'pickUp', thing: 'basket' }, near);
    run(3);
    expect(state()).toBe('good');
    expect(agent('keeper').carried).toBe(0);
  });

  it('fail at what is out of reach, and say so', () => {
    const { run, state, entries } = yard({ do: 'pickUp', thing: 'basket' });
    run(3);
    expect(state()).toBe('bad');
    expect(entries.find(({ kind }) => kind === 'end')).toMatchObject({
      reason: because('outOfReach'),
    });
  });

  it('of two that want one thing in one tick only the first gets it', () => {
    const { run, world, entries } = yard({ do: 'pickUp', thing: 'basket' }, (document) => {
      near(document);
      document.grounds.corner.agents.keeper2 = { archetype: 'keeper', at: [8.7, 5.8] };
    });
    run(3);
    expect(world.agents.map(({ carried }) => carried)).toEqual([-1, 0, -1]);
    expect(entries.filter(({ kind }) => kind === 'end')).toMatchObject([
      { agent: 'keeper', ending: 'success' },
      { agent: 'keeper2', ending: 'failure', reason: because('alreadyCarried') },
    ]);
  });

  it('wake a sleeper, who then decides as if nothing had been', () => {
    const { run, state, agent } = yard({ do: 'wake', target: 'found.of' }, (document) => {
      const { keeper } = document.minds;
      keeper.machine!.initial = 'look';
      keeper.machine!.states.push({
        id: 'look',
        transitions: [{ to: 'act', when: "found.kind == 'body'" }],
      });
      document.archetypes.keeper.sight = {
        cones: [{ range: 5, halfAngle: 180, gain: 2 }],
        fade: 1,
        grace: 1,
        curious: 0.3,
        certain: 1,
        forgetAfter: 3,
      };
      document.grounds.corner.agents.sleeper = {
        archetype: 'keeper',
        at: [2.9, 5],
        asleep: true,
      };
    });
    expect(agent('sleeper').asleep).toBe(true);
    run(10);
    expect(state()).toBe('good');
    expect(agent('sleeper').asleep).toBe(false);
  });
});

describe('input that was recorded', () => {
  const inputs = [
    { tick: 1, agent: 'gleaner', act: 'pickUp' as const },
    { tick: 10, agent: 'gleaner', x: 1, y: 0.5, gait: 'run' },
    { tick: 70, agent: 'gleaner', act: 'throw' as const, at: [4, 4] as [number, number] },
    { tick: 90, agent: 'gleaner', x: -1 },
    { tick: 140, agent: 'gleaner', control: 'minds' as const },
  ];

  it('gives the same run when a scripted player gives it', () => {
    const document = documentOf();
    const live = createWorld(programOf(document), 3);
    for (let i = 1; i <= 300; i++) {
      const now = inputs.filter((input) => input.tick === i);
      tick(
        live,
        now.map(({ agent, x = 0, y = 0, gait = null, ...rest }) => ({
          agent,
          x,
          y,
          gait,
          ...('act' in rest ? { act: rest.act } : {}),
          ...('at' in rest ? { at: rest.at } : {}),
          ...('control' in rest ? { control: rest.control } : {}),
        })),
      );
    }
    const script = structuredClone(document);
    script.players = { before: { title: 'Before', inputs } };
    script.start.player = 'before';
    const played = createWorld(programOf(script), 3);
    for (let i = 1; i <= 300; i++) tick(played);
    expect(worldHash(played)).toBe(worldHash(live));
  });

  it('restored in mid-flight, a thing lands where it would have', () => {
    const { world, run } = yard();
    run(1, [play('pickUp')]);
    run(10, [play('throw', { at: [2, 8] })]);
    expect(world.things[0].flight).toBeGreaterThan(0);
    const other = createWorld(world.statics.program, 8);
    restoreSnapshot(other, structuredClone(takeSnapshot(world)));
    for (let i = 0; i < 120; i++) {
      tick(world);
      tick(other);
    }
    expect(worldHash(other)).toBe(worldHash(world));
    expect(other.things[0].x).toBeCloseTo(2, 6);
  });

  it('out of order, or for no agent, is an error that says where', () => {
    const document = documentOf();
    document.players = {
      odd: {
        title: 'Odd',
        inputs: [
          { tick: 9, agent: 'gleaner' },
          { tick: 3, agent: 'glaener' },
        ],
      },
    };
    document.start.player = 'odd';
    expect(() => programOf(document)).toThrow(/inputs\[1\]\.agent.*“gleaner”/s);
    expect(() => programOf(document)).toThrow(/inputs\[1\]\.tick.*order/s);
  });

  function documentOf(): ProjectDocument {
    let kept: ProjectDocument | null = null;
    yard(null, (document) => {
      kept = document;
    });
    return kept!;
  }
});
