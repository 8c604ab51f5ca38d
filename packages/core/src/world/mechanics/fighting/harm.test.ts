import { because } from '../../../terms/reasons.ts';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../../findings/check-project.ts';
import type { ProjectDocument, StateDocument } from '../../../model/documents.ts';
import { act, cornerProject, KEEN_SIGHT, watch } from '../../../testing/orchard.fixture.ts';
import { DEAD, pictureBodies, BODY_STRIDE } from '../../readout/picture.ts';
import type { Input } from '../../program/program.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../../handover/snapshot.ts';
import { swapProgram } from '../../handover/swap.ts';
import { tick } from '../../phases/tick.ts';
import { createWorld } from '../../world.ts';

/** A stone at the gleaner's feet, and a keeper at (2, 5) who faces +x, with the states given. */
function yard(
  states: StateDocument[] = [{ id: 'stand' }],
  change: (document: ProjectDocument) => void = () => {},
) {
  const document = cornerProject({
    machine: { initial: states[0].id, states },
    memory: { felt: { type: 'number', default: 0 } },
    ground: { things: { stone: { kind: 'stone', at: [8.4, 5], damage: 40 } } },
  });
  document.archetypes.keeper.health = 100;
  change(document);
  const watched = watch(document);
  const agent = (name: string) => watched.world.agents.find((each) => each.name === name)!;
  const of = (kind: string) => watched.entries.filter((entry) => entry.kind === kind);
  const { run } = watched;
  /** Picks the stone up, throws it, and lets it fly. */
  const throwAt = (x: number, y: number) => {
    run(1, [act('pickUp')]);
    run(1, [act('throw', [x, y])]);
    run(70);
  };
  return { ...watched, document, agent, keeper: agent('keeper'), of, throwAt };
}

const walk = (x: number, y: number): Input => ({ agent: 'gleaner', x, y, gait: null });

describe('a thing in flight', () => {
  it('hits the body in its way, falls before it, and is felt from where it came', () => {
    const { keeper, throwAt, world, of } = yard();
    keeper.body.heading = Math.PI / 2;
    throwAt(0.5, 5);
    const [{ how, sense, x, y }] = of('percept') as {
      how: string;
      sense: string;
      x: number;
      y: number;
    }[];
    expect([sense, how]).toEqual(['harm', 'hit']);
    // One metre off, toward the thrower at (8, 5).
    expect([x, y]).toEqual([3, 5]);
    expect(world.things[0].x).toBeGreaterThan(keeper.x + keeper.archetype.radius);
    expect(world.things[0].x).toBeLessThan(keeper.x + 1);
    expect([keeper.self.health, of('harm')]).toEqual([
      60,
      [expect.objectContaining({ agent: 'keeper', amount: 40, left: 60, by: 'gleaner' })],
    ]);
  });

  it('passes beside a body, over one that is low, and never hits its thrower', () => {
    const beside = yard();
    beside.throwAt(0.5, 6.5);
    expect(beside.of('harm')).toEqual([]);
    const low = yard(undefined, ({ archetypes, grounds }) => {
      archetypes.keeper.body.height = 0.3;
      grounds.corner.agents.keeper.at = [5, 5];
    });
    low.throwAt(1, 5);
    expect(low.of('harm')).toEqual([]);
    const self = yard(undefined, ({ archetypes }) => (archetypes.gleaner.health = 10));
    self.throwAt(8.2, 5);
    expect(self.agent('gleaner').self.health).toBe(10);
  });

  it('does not reach through a wall', () => {
    const { throwAt, of } = yard(undefined, ({ grounds }) => {
      grounds.corner.walls.push({ at: [4, 3], size: [0.4, 4] });
    });
    throwAt(0.5, 5);
    expect(of('harm')).toEqual([]);
  });

  it('wakes who sleeps, and hurts no agent without health', () => {
    const { keeper, throwAt, of } = yard(undefined, ({ archetypes, grounds }) => {
      delete archetypes.keeper.health;
      grounds.corner.agents.keeper.asleep = true;
      grounds.corner.agents.keeper.at = [2, 5];
    });
    expect(keeper.asleep).toBe(true);
    // A sleeper lies: only what has almost landed hits it.
    throwAt(1.9, 5);
    expect([keeper.asleep, of('harm')]).toEqual([false, []]);
  });
});

describe('touch', () => {
  const STATES: StateDocument[] = [
    {
      id: 'stand',
      transitions: [
        {
          to: 'turn',
          on: 'harm.touch',
          do: [{ do: 'remember', key: 'felt', value: 'harmed.bearing' }],
        },
      ],
    },
    { id: 'turn' },
  ];
  /** The gleaner comes from behind and leans on the keeper. */
  const sneak = (change: (document: ProjectDocument) => void = () => {}) => {
    const yardOf = yard(STATES, (document) => {
      document.grounds.corner.agents.gleaner.at = [1, 5];
      document.grounds.corner.agents.keeper.at = [3, 5];
      change(document);
    });
    yardOf.run(240, [walk(1, 0)]);
    return yardOf;
  };
  const touches = ({ of }: ReturnType<typeof yard>) =>
    of('percept').filter((entry) => (entry as { how: string }).how === 'touch');

  it('is felt from behind, once for as long as it lasts, and tells the direction', () => {
    const met = sneak();
    expect(touches(met)).toEqual([expect.objectContaining({ agent: 'keeper', of: 'gleaner' })]);
    const written = met.of('memory').map((entry) => (entry as { value: string }).value);
    expect(Math.abs(Math.abs(Number(written[0])) - 180)).toBeLessThan(2);
    // Apart, and together again, is another touch.
    met.run(40, [walk(-1, 0)]);
    met.run(120, [walk(1, 0)]);
    expect(touches(met)).toHaveLength(2);
  });

  it('of friends is nothing', () => {
    const met = sneak(({ archetypes }) => (archetypes.gleaner.faction = 'keepers'));
    expect(touches(met)).toEqual([]);
  });
});

describe('death', () => {
  const deadly = (change: (document: ProjectDocument) => void = () => {}) =>
    yard(
      [{ id: 'stand', activity: { do: 'wander', around: 'self.post', radius: 1 } }],
      (document) => {
        document.grounds.corner.things!.stone.damage = 100;
        change(document);
      },
    );

  it('leaves a body that decides nothing, carries nothing, and can’t be woken or hit again', () => {
    const { keeper, throwAt, of, world, run } = deadly();
    throwAt(0.5, 5);
    expect(of('death')).toEqual([expect.objectContaining({ agent: 'keeper', by: 'gleaner' })]);
    const at = [keeper.x, keeper.y];
    run(120);
    expect([keeper.x, keeper.y]).toEqual(at);
    const index = world.agents.indexOf(keeper);
    expect(pictureBodies(world)[index * BODY_STRIDE + 6]).toBe(DEAD);
    expect(world.agents.find(({ name }) => name === 'gleaner')!.wake(index)).toEqual(
      because('sleeperDead'),
    );
  });

  it('ends sight of it as a target, and friends find the body', () => {
    const { agent, throwAt, of } = deadly(({ archetypes, grounds }) => {
      archetypes.seer = {
        ...archetypes.keeper,
        title: 'Seer',
        faction: 'gleaners',
        sight: KEEN_SIGHT,
      };
      delete archetypes.seer.mind;
      archetypes.mate = { ...archetypes.seer, title: 'Mate', faction: 'keepers' };
      grounds.corner.agents.seer = { archetype: 'seer', at: [6, 8], heading: -140 };
      grounds.corner.agents.mate = { archetype: 'mate', at: [6, 2], heading: 140 };
    });
    const keeper = agent('keeper').index;
    throwAt(0.5, 5);
    expect(agent('seer').here.sees(keeper)).toBe(false);
    expect(of('percept')).toContainEqual(
      expect.objectContaining({ agent: 'mate', sense: 'found', how: 'body', of: 'keeper' }),
    );
  });

  const again = (change: (document: ProjectDocument) => void = () => {}) =>
    deadly((document) => {
      document.archetypes.keeper.respawnDelay = 1;
      document.minds.keeper.machine!.states[0].entry = [
        { do: 'remember', key: 'felt', value: 'time' },
      ];
      document.grounds.corner.spawns = { gate: { at: [15, 2], heading: 90 } };
      change(document);
    });

  it('with recycle respawns at a spawn place, with nothing remembered and all its health', () => {
    const { keeper, throwAt, of, run } = again();
    throwAt(0.5, 5);
    run(60);
    expect(of('recycled')).toEqual([expect.objectContaining({ agent: 'keeper', x: 15, y: 2 })]);
    run(2);
    expect([keeper.asleep, keeper.self.health]).toEqual([false, 100]);
    expect(Math.hypot(keeper.x - 15, keeper.y - 2)).toBeLessThan(1.5);
    const entered = of('enter').filter((entry) => (entry as { state: string }).state === 'stand');
    expect(entered.length, 'its machine is entered once more').toBe(2);
  });

  it('waits until there is room, and without spawn places begins where it was placed', () => {
    const { throwAt, of, run } = again(({ grounds }) => {
      delete grounds.corner.spawns;
      grounds.corner.agents.other = { archetype: 'gleaner', at: [2, 8] };
    });
    throwAt(0.5, 5);
    run(1, [{ agent: 'other', x: 0, y: 0, gait: null, place: [2, 5.9] }]);
    expect(of('recycled')).toEqual([]);
    run(60);
    expect(of('recycled')).toEqual([expect.objectContaining({ x: 2, y: 5 })]);
    const blocked = again(({ grounds }) => {
      grounds.corner.agents.other = { archetype: 'gleaner', at: [15, 2] };
    });
    blocked.throwAt(0.5, 5);
    blocked.run(120);
    expect(blocked.of('recycled')).toEqual([]);
    blocked.run(1, [{ agent: 'other', x: 0, y: 0, gait: null, place: [15, 8] }]);
    blocked.run(1);
    expect(blocked.of('recycled')).toHaveLength(1);
  });

  it('is the same from a snapshot taken at any point on the way', () => {
    const { document } = again();
    const { program } = checkProject(document);
    const world = createWorld(program!);
    const inputs: Record<number, Input> = { 1: act('pickUp'), 2: act('throw', [0.5, 5]) };
    const steps = (target: typeof world, from: number, to: number) => {
      for (let t = from; t <= to; t++) tick(target, inputs[t] ? [inputs[t]] : []);
    };
    steps(world, 1, 200);
    const hash = worldHash(world);
    expect(world.agents.find(({ name }) => name === 'keeper')!.isDead).toBe(false);
    for (const at of [10, 40, 60, 100, 130]) {
      const other = createWorld(program!);
      steps(other, 1, at);
      const restored = createWorld(program!);
      restoreSnapshot(restored, takeSnapshot(other));
      steps(restored, at + 1, 200);
      expect(worldHash(restored), `from tick ${at}`).toBe(hash);
    }
  });

  it('stays through an edit, as does what health was lost', () => {
    const hurt = yard();
    hurt.throwAt(0.5, 5);
    const edited = (health: number) => {
      const document = structuredClone(hurt.document);
      document.archetypes.keeper.health = health;
      return checkProject(document).program!;
    };
    const keeperIn = (world: typeof hurt.world) =>
      world.agents.find(({ name }) => name === 'keeper')!;
    expect(keeperIn(swapProgram(hurt.world, edited(150), 2, 1)).self.health).toBe(110);
    const gone = deadly();
    gone.throwAt(0.5, 5);
    const after = keeperIn(swapProgram(gone.world, checkProject(gone.document).program!, 2, 1));
    expect([after.asleep, after.self.health, after.isDead]).toEqual([true, 0, true]);
  });

  it('that never comes is a finding where one would respawn', () => {
    const { document } = yard(undefined, ({ archetypes }) => {
      delete archetypes.keeper.health;
      archetypes.keeper.respawnDelay = 5;
    });
    expect(checkProject(document).findings).toContainEqual(
      expect.objectContaining({ severity: 'warning', path: 'archetypes.keeper.respawnDelay' }),
    );
  });
});
