import { because } from '../../../terms/reasons.ts';
import { describe, expect, it } from 'vitest';
import type { ActionDocument, GateDocument, ProjectDocument } from '../../../model/documents.ts';
import { cornerProject, errand, programOf, watch } from '../../../testing/orchard.fixture.ts';
import { use } from './hands.ts';
import { moveGate } from './gates.ts';
import {
  GATE_CLOSED,
  GATE_LOCKED,
  GATE_OPEN,
  type GateStatus,
  type Input,
} from '../../program/program.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../../handover/snapshot.ts';
import { tick } from '../../phases/tick.ts';
import type { PathResult } from '../../../motion/legs.ts';
import { createWorld, type World } from '../../world.ts';

/** The ground cut in two by a wall at x = 10 with a gate in it at y = 5, and a hole at its lower end where `hole`. */
function divided(
  gate: Partial<GateDocument> = {},
  { hole = false, activity }: { hole?: boolean; activity?: ActionDocument } = {},
  change: (document: ProjectDocument) => void = () => {},
) {
  const document = cornerProject({
    machine: errand(activity ?? { do: 'moveTo', to: 'self.post', within: 0.3 }),
    ground: {
      walls: [
        { at: [9.8, 0], size: [0.4, 4.4] },
        { at: [9.8, 5.6], size: [0.4, hole ? 3.4 : 4.4] },
      ],
      gates: { way: { at: [9.8, 4.4], size: [0.4, 1.2], ...gate } },
      posts: { far: { at: [16, 5] } },
    },
  });
  const { agents } = document.grounds.corner;
  agents.keeper.post = 'far';
  agents.gleaner.at = [9.2, 5];
  change(document);
  const watched = watch(document);
  const agent = (name: string) => watched.world.agents.find((each) => each.name === name)!;
  return { ...watched, keeper: agent('keeper'), gleaner: agent('gleaner') };
}

const hand: Input = { agent: 'gleaner', x: 0, y: 0, gait: null, act: 'use' };

describe('gates', () => {
  it('let no agent through while they are closed, and say that this is why', () => {
    const { run, state, entries } = divided();
    run(10);
    expect(state()).toBe('lost');
    expect(entries.find(({ kind }) => kind === 'end')).toMatchObject({
      reason: because('noPath', 'gateClosed'),
    });
    expect(entries.find(({ kind }) => kind === 'noWay')).toMatchObject({
      reason: because('gateClosed'),
    });
  });

  it('open to a hand, and let through', () => {
    const { run, state, world } = divided({ state: 'open' }, {}, (document) => {
      document.grounds.corner.agents.gleaner.at = [9.2, 8];
    });
    run(60 * 12);
    expect(state()).toBe('there');
    expect(world.gates).toEqual([1]);
  });

  it('closed before one who is on the way through send them around', () => {
    const { run, keeper, state, world } = divided({ state: 'open' }, { hole: true });
    run(30);
    expect(keeper.body.path).toHaveLength(2);
    run(1, [hand]);
    expect(world.gates).toEqual([0]);
    run(30);
    expect(keeper.body.path.length).toBeGreaterThan(2);
    run(60 * 14);
    expect(state()).toBe('there');
  });

  it('closed with no other way make the legs fail', () => {
    const { run, state } = divided({ state: 'open' });
    run(30);
    expect(state()).toBe('go');
    run(10, [hand]);
    expect(state()).toBe('lost');
  });

  it('do not close on a body, nor open to a hand when they are locked', () => {
    const open = divided({ state: 'open' });
    open.gleaner.body.x = 10;
    open.run(1, [hand]);
    expect(open.world.gates).toEqual([1]);
    expect(open.entries.find(({ kind }) => kind === 'input')).toMatchObject({
      trouble: because('gateOccupied'),
    });
    const locked = divided({ state: 'locked' });
    locked.run(1, [hand]);
    expect(locked.world.gates).toEqual([2]);
    expect(locked.entries.find(({ kind }) => kind === 'input')).toMatchObject({
      trouble: because('gateLocked'),
    });
  });

  it('are opened by minds too, and heard', () => {
    const { run, state, world, entries } = divided(
      {},
      { activity: { do: 'use', gate: 'way' } },
      (document) => {
        document.grounds.corner.agents.keeper.at = [9, 4.6];
        document.grounds.corner.agents.gleaner.at = [15, 8];
      },
    );
    run(3);
    expect(state()).toBe('there');
    expect(world.gates).toEqual([1]);
    expect(entries.some(({ kind }) => kind === 'noise')).toBe(true);
  });

  it('with a plate stay open as long as an agent stands on it', () => {
    const { run, gleaner, world } = divided({ state: 'locked' }, {}, (document) => {
      document.grounds.corner.plates = { slab: { at: [14, 1], size: [1, 1], opens: 'way' } };
      document.grounds.corner.agents.gleaner.at = [12, 1.5];
    });
    run(1);
    expect(world.gates).toEqual([2]);
    gleaner.body.x = 14.5;
    run(1);
    expect(world.gates).toEqual([1]);
    gleaner.body.x = 12;
    run(1);
    expect(world.gates).toEqual([2]);
  });

  it('come back with a snapshot: for bodies, paths and sight', () => {
    const { world } = divided({ state: 'open' }, { hole: true });
    const before = takeSnapshot(world);
    use(world, world.agents[0], 0);
    expect(world.gates).toEqual([0]);
    const other = createWorld(world.statics.program);
    restoreSnapshot(other, takeSnapshot(world));
    expect(isShut(other)).toBe(isShut(world));
    expect(waysThrough(other)).toEqual(waysThrough(world));
    restoreSnapshot(world, before);
    expect(world.gates).toEqual([1]);
    for (let i = 0; i < 90; i++) {
      tick(world);
      tick(other);
    }
    expect(worldHash(world)).not.toBe(worldHash(other));
  });

  it('in two worlds of one program are apart', () => {
    const program = programOf(baseDocument());
    const [one, two] = [createWorld(program), createWorld(program)];
    use(
      one,
      one.agents.find(({ name }) => name === 'gleaner')!,
      0,
    );
    expect(one.gates).toEqual([1]);
    expect(two.gates).toEqual([0]);
    expect([isShut(one), isShut(two)]).toEqual([false, true]);
  });
});

/** Whether the gate stands in the way of a look through it. */
function isShut({ ground }: World): boolean {
  return ground.castRay(8, 5, 12, 5, 0, 0) < 1;
}

function waysThrough({ ground }: World): PathResult[] {
  return ground.findWays(0, [8, 5], 12, 5);
}

function baseDocument(): ProjectDocument {
  const document = cornerProject({
    machine: { initial: 'stand', states: [{ id: 'stand' }] },
    ground: { gates: { way: { at: [9.8, 4.4], size: [0.4, 1.2] } } },
  });
  document.grounds.corner.agents.gleaner.at = [9.2, 5];
  return document;
}

describe('a gate that is moved', () => {
  /** The gate lies from (9.8, 4.4) to (10.2, 5.6); bodies of 0.3 m keep 0.3 m more from it on their way. */
  const gate = 0;
  const walking = (path: number[], pathAt = 0, status: GateStatus = GATE_CLOSED) => {
    const { world, gleaner } = divided({ state: status === GATE_OPEN ? 'closed' : 'open' });
    const [x, y] = path;
    Object.assign(gleaner.body, { x, y, path: path.slice(2), pathAt, pathX: 1, pathY: 1 });
    expect(moveGate(world, gate, status)).toBeNull();
    return Number.isNaN(gleaner.body.pathX) ? 'looks again' : 'goes on';
  };

  it.each([
    ['leads through it', [5, 5, 15, 5], 'looks again'],
    ['leads through it later', [5, 2, 5, 5, 15, 5], 'looks again'],
    ['ends near before it', [5, 5, 9.3, 5], 'looks again'],
    ['ends a little farther before it', [5, 5, 9.1, 5], 'goes on'],
    ['begins near behind it', [10.7, 5, 15, 5], 'looks again'],
    ['begins a little farther behind it', [10.9, 5, 15, 5], 'goes on'],
    ['passes near above it', [5, 3.9, 15, 3.9], 'looks again'],
    ['passes a little farther above it', [5, 3.7, 15, 3.7], 'goes on'],
    ['passes near below it', [5, 6.1, 15, 6.1], 'looks again'],
    ['passes a little farther below it', [5, 6.3, 15, 6.3], 'goes on'],
    ['leads away from it', [5, 5, 5, 9], 'goes on'],
  ] as const)('closed, has who is on a way that %s look again or not', (_, path, what) => {
    expect(walking([...path])).toBe(what);
  });

  it('closed, leaves those alone who are past it already', () => {
    expect(walking([12, 5, 8, 5, 14, 5, 16, 5], 2)).toBe('goes on');
    expect(walking([12, 5, 14, 5, 8, 5, 16, 5], 2)).toBe('looks again');
  });

  it('opened, may be a shorter way for every agent that is on one, and for no other', () => {
    expect(walking([5, 5, 5, 9], 0, GATE_OPEN)).toBe('looks again');
    expect(walking([5, 5], 0, GATE_OPEN)).toBe('goes on');
  });

  it('stays where an agent stands in it, and where it is so already', () => {
    const { world, gleaner } = divided({ state: 'open' });
    gleaner.body.x = 10;
    expect(moveGate(world, gate, GATE_CLOSED)).toEqual(because('gateOccupied'));
    expect([world.gates[gate], world.noises.length]).toEqual([GATE_OPEN, 0]);
    expect(moveGate(world, gate, GATE_OPEN)).toBeNull();
    expect(world.noises).toHaveLength(0);
    gleaner.body.x = 9.51;
    expect(moveGate(world, gate, GATE_CLOSED)).toEqual(because('gateOccupied'));
    gleaner.body.x = 9.49;
    expect(moveGate(world, gate, GATE_LOCKED)).toBeNull();
    expect(world.gates[gate]).toBe(GATE_LOCKED);
    expect(world.noises.map(({ x, y, maker }) => [x, y, maker])).toEqual([[10, 5, -1]]);
    // One who has come to stand in it does not keep it from being opened.
    gleaner.body.x = 10;
    expect(moveGate(world, gate, GATE_OPEN)).toBeNull();
    expect(world.gates[gate]).toBe(GATE_OPEN);
  });
});
