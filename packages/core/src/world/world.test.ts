import { readMind } from './readout/readout.ts';
import { readList } from '../mind/machine/cells.ts';
import { leafState } from './readout/picture.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MachineDocument, ProjectDocument } from '../model/documents.ts';
import { cornerProject, KEEN_SIGHT, programOf, watch } from '../testing/orchard.fixture.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from './handover/snapshot.ts';
import { swapProgram } from './handover/swap.ts';
import type { Input } from './program/program.ts';
import { tick } from './phases/tick.ts';
import { createWorld, setRecorder, type World } from './world.ts';

/** Chases what it sees, looks around where it lost it. */
const HUNTER: MachineDocument = {
  initial: 'rounds',
  states: [
    {
      id: 'rounds',
      activity: { do: 'followRoute', route: 'self.route' },
      transitions: [{ to: 'roused', when: 'attention.strength > 0.5', for: 0.1 }],
    },
    {
      id: 'roused',
      initial: 'chase',
      entry: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
      states: [
        {
          id: 'chase',
          activity: { do: 'moveTo', to: 'quarry', within: 1 },
          transitions: [{ to: 'look', when: '!sees(quarry)', for: 0.5 }],
        },
        {
          id: 'look',
          activity: { do: 'turn', by: 360 },
          transitions: [{ to: 'chase', when: 'sees(quarry)' }],
        },
      ],
      transitions: [{ to: 'rounds', when: '!known(quarry)' }],
    },
  ],
};

function hunt(machine = HUNTER): ProjectDocument {
  const document = cornerProject({
    machine,
    memory: { quarry: { type: 'agent', forgetAfter: 4 } },
    sight: KEEN_SIGHT,
    ground: {
      walls: [{ at: [9, 2], size: [0.5, 5] }],
      routes: {
        round: {
          points: [
            [4, 5],
            [6, 8],
            [2, 8],
          ],
          wait: 0.3,
        },
      },
    },
  });
  document.grounds.corner.agents.keeper.route = 'round';
  document.grounds.corner.agents.keeper2 = {
    archetype: 'keeper',
    at: [15, 8],
    heading: 180,
    route: 'round',
  };
  return document;
}

const input = (x: number, y: number, gait: string | null = null): Input => ({
  agent: 'gleaner',
  x,
  y,
  gait,
});

function run(world: World, ticks: number, inputs: ReadonlyMap<number, Input> = new Map()): string {
  for (let i = 0; i < ticks; i++) {
    const given = inputs.get(world.tick + 1);
    tick(world, given ? [given] : []);
  }
  return worldHash(world);
}

const WALK = new Map([
  [20, input(1, 0.2)],
  [90, input(0, -1, 'run')],
  [200, input(-1, 0.5)],
  [400, input(0, 0)],
]);

describe('determinism', () => {
  it('gives the same hash for the same edit, seed and input, and another for others', () => {
    const program = programOf(hunt());
    const hash = run(createWorld(program, 7), 600, WALK);
    expect(run(createWorld(program, 7), 600, WALK)).toBe(hash);
    expect(run(createWorld(program, 8), 600, WALK)).not.toBe(hash);
    expect(run(createWorld(program, 7), 600)).not.toBe(hash);
  });

  it('does not depend on whether a ledger is kept', () => {
    const program = programOf(hunt());
    const recorded = createWorld(program, 7);
    setRecorder(recorded, () => {});
    expect(run(recorded, 600, WALK)).toBe(run(createWorld(program, 7), 600, WALK));
  });

  it('does not depend on the order names are written in', () => {
    const document = hunt();
    const reversed = structuredClone(document);
    const backwards = <T extends object>(record: T): T =>
      Object.fromEntries(Object.entries(record).reverse()) as T;
    reversed.archetypes = backwards(reversed.archetypes);
    reversed.grounds.corner.agents = backwards(reversed.grounds.corner.agents);
    expect(run(createWorld(programOf(reversed), 7), 600, WALK)).toBe(
      run(createWorld(programOf(document), 7), 600, WALK),
    );
  });

  it('leaves the others’ luck alone when an agent is added', () => {
    const document = hunt();
    const more = structuredClone(document);
    more.grounds.corner.agents.aaron = { archetype: 'gleaner', at: [19, 1] };
    const streams = (source: ProjectDocument) =>
      new Map(
        createWorld(programOf(source), 7).agents.map(({ name, stream }) => [name, [...stream]]),
      );
    const after = streams(more);
    for (const [name, stream] of streams(document)) expect(after.get(name)).toEqual(stream);
  });
});

describe('snapshots', () => {
  it('restored and continued equals never interrupted, at any tick', () => {
    const program = programOf(hunt());
    const whole = run(createWorld(program, 7), 500, WALK);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), (at) => {
        const world = createWorld(program, 7);
        run(world, at, WALK);
        const snapshot = structuredClone(takeSnapshot(world));
        const other = createWorld(program, 99);
        restoreSnapshot(other, snapshot);
        run(world, 3, WALK);
        expect(run(other, 500 - at, WALK)).toBe(whole);
      }),
      { numRuns: 25 },
    );
  });

  it('refuses a snapshot of other agents', () => {
    const snapshot = takeSnapshot(createWorld(programOf(hunt()), 7));
    const other = createWorld(
      programOf(cornerProject({ machine: HUNTER, memory: { quarry: { type: 'agent' } } })),
      7,
    );
    expect(() => restoreSnapshot(other, snapshot)).toThrow(/agents/);
  });
});

describe('minds decide on the same facts', () => {
  it('lets no agent see what another did in the same tick', () => {
    const document = cornerProject({
      machine: {
        initial: 'a',
        states: [
          { id: 'a', transitions: [{ to: 'b', when: 'attention.strength > 0' }] },
          { id: 'b' },
        ],
      },
      sight: KEEN_SIGHT,
    });
    document.archetypes.other = { ...document.archetypes.keeper, faction: 'others' };
    document.grounds.corner.agents = {
      keeper: { archetype: 'keeper', at: [2, 5] },
      zed: { archetype: 'other', at: [8, 5], heading: 180 },
    };
    delete document.start.play;
    const { world, run: go } = watch(document);
    go(1);
    const [keeper, zed] = world.agents;
    expect(leafState(keeper)).toBe(leafState(zed));
  });
});

describe('edits while running', () => {
  const edited = (change: (document: ProjectDocument) => void): ProjectDocument => {
    const document = hunt();
    change(document);
    return document;
  };

  function chasing(): { world: World; entries: { kind: string }[] } {
    const { world, run: go, entries } = watch(hunt(), 7);
    go(90, [input(0, 0)]);
    return { world, entries };
  }

  const active = (world: World) => {
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    const { program, machine } = keeper.minds[0];
    return readList(keeper.memory, machine.cells.active).map(
      (state) => program.machine.states[state].id,
    );
  };

  it('keeps memory, state, body and awareness through a change of a number', () => {
    const { world, entries } = chasing();
    expect(active(world)).toEqual(['roused', 'chase']);
    const recorded = entries.length;
    const next = swapProgram(
      world,
      programOf(
        edited(
          (document) =>
            (document.minds.keeper.machine!.states[1].states![0].transitions![0].for = 3),
        ),
      ),
      2,
      7,
    );
    expect(active(next)).toEqual(['roused', 'chase']);
    const [before, after] = [world, next].map((w) =>
      w.agents.find(({ name }) => name === 'keeper')!,
    );
    const remembered = (of: World) => readMind(of, 'keeper', null)!.memory;
    expect(remembered(next)).toEqual(remembered(world));
    expect(after.body).toEqual(before.body);
    expect(after.tracks).toEqual(before.tracks);
    tick(next);
    expect(active(next)).toEqual(['roused', 'chase']);
    // What it was doing goes on: nothing begins or ends.
    const kinds = entries.slice(recorded).map(({ kind }) => kind);
    expect(kinds.filter((kind) => kind !== 'awareness')).toEqual(['edit']);
  });

  it('an edit that changes nothing leaves no trace in what follows', () => {
    const { world } = chasing();
    const next = swapProgram(world, programOf(hunt()), 2, 7);
    expect(run(next, 200, WALK)).toBe(run(world, 200, WALK));
  });

  it('moves an agent whose state is gone to the nearest state around it that is left, and says so', () => {
    const { world, entries } = chasing();
    const without = edited((document) => {
      const roused = document.minds.keeper.machine!.states[1];
      roused.states = [roused.states![1]];
      roused.initial = 'look';
      roused.states[0].transitions = undefined;
    });
    const next = swapProgram(
      world,
      programOf(JSON.parse(JSON.stringify(without)) as ProjectDocument),
      2,
      7,
    );
    tick(next);
    expect(active(next)).toEqual(['roused', 'look']);
    expect(entries.filter(({ kind }) => kind === 'moved')).toEqual([
      expect.objectContaining({ agent: 'keeper', from: 'chase', to: 'roused' }),
    ]);
  });

  it('starts again where no state is left', () => {
    const { world } = chasing();
    const next = swapProgram(
      world,
      programOf(
        edited(
          (document) =>
            (document.minds.keeper.machine = { initial: 'rest', states: [{ id: 'rest' }] }),
        ),
      ),
      2,
      7,
    );
    tick(next);
    expect(active(next)).toEqual(['rest']);
  });

  it('starts an agent that is new where it is placed', () => {
    const { world } = chasing();
    const next = swapProgram(
      world,
      programOf(
        edited(
          (document) =>
            (document.grounds.corner.agents.keeper3 = { archetype: 'keeper', at: [18, 2] }),
        ),
      ),
      2,
      7,
    );
    const added = next.agents.find(({ name }) => name === 'keeper3')!;
    expect([added.x, added.y]).toEqual([18, 2]);
    tick(next);
    expect(leafState(added)).toBeGreaterThanOrEqual(0);
  });
});

it('an edit that takes an agent away forgets what was of it, and nothing else', () => {
  const made = (withMate: boolean) => {
    const document = cornerProject({
      memory: {
        first: { type: 'agent' },
        mates: { type: 'list of agent' },
        spot: { type: 'point' },
        tally: { type: 'number', default: 1 },
      },
      machine: {
        initial: 'note',
        states: [
          {
            id: 'note',
            entry: [
              { do: 'remember', key: 'spot', value: 'self.place' },
              { do: 'remember', key: 'tally', value: '5' },
            ],
          },
        ],
      },
    });
    if (withMate) document.grounds.corner.agents.aMate = { archetype: 'gleaner', at: [2, 2] };
    return programOf(document);
  };
  const world = createWorld(made(true), 1);
  tick(world);
  const keeper = world.agents.find(({ name }) => name === 'keeper')!;
  const key = (name: string) => keeper.stack!.program.keys.findIndex((each) => each.name === name);
  const mate = world.agents.find(({ name }) => name === 'aMate')!.index;
  const gleaner = world.agents.find(({ name }) => name === 'gleaner')!.index;
  keeper.remember(key('first'), mate, NaN);
  keeper.add(key('mates'), mate, NaN);
  keeper.add(key('mates'), gleaner, NaN);
  const after = swapProgram(world, made(false), 2, 1);
  const { memory } = readMind(after, 'keeper', null)!;
  expect(Object.fromEntries(memory.map(({ key: name, value }) => [name, value]))).toEqual({
    first: 'nothing',
    mates: '1 of 16, last gleaner',
    spot: expect.stringMatching(/^\(/),
    tally: '5',
  });
});

describe('edits of trees and shared memory', () => {
  /** A keeper that walks to its post again and again, and counts for its squad. */
  const walking = (seconds: number): ProjectDocument => {
    const document = cornerProject({
      memory: {
        tally: { type: 'number', scope: 'squad', default: 0 },
        seen: { type: 'list of agent' },
      },
      machine: {
        initial: 'act',
        states: [
          {
            id: 'act',
            entry: [
              { do: 'remember', key: 'tally', value: 'tally + 1' },
              { do: 'add', key: 'seen', value: 'attention.of' },
            ],
            activity: { tree: 'walk' },
            transitions: [{ to: 'act', after: 60 }],
          },
        ],
      },
    });
    document.squads = { west: { title: 'West' } };
    document.archetypes.keeper.squad = 'west';
    document.minds.keeper.trees = {
      walk: {
        root: {
          parallel: [
            { limit: { do: 'wait', seconds: 9, uninterrupted: true }, times: 1 },
            { delay: { do: 'say', text: 'late' }, seconds },
          ],
        },
      },
    };
    return document;
  };

  it('go on where the activity is the same, and start again where it is not', () => {
    const { world, entries, run: go } = watch(walking(1));
    go(20);
    const recorded = entries.length;
    const same = walking(1);
    same.minds.keeper.title = 'Renamed';
    const next = swapProgram(world, programOf(same), 2, 1);
    for (let i = 0; i < 45; i++) tick(next);
    // The wait goes on, still uninterrupted, so nothing of the tree is decided meanwhile.
    expect(entries.slice(recorded).map(({ kind }) => kind)).toEqual(['edit']);
    expect(readMind(next, 'keeper', null)!.memory.map(({ value }) => value)).toEqual([
      'empty',
      '1',
    ]);
    const changed = swapProgram(next, programOf(walking(0.5)), 3, 1);
    for (let i = 0; i < 3; i++) tick(changed);
    expect(entries.filter(({ kind }) => kind === 'begin').map(({ tick: at }) => at)).toEqual([
      1, 1, 66, 66,
    ]);
  });
});

describe('memory', () => {
  it('is forgotten when its time is over, and says so', () => {
    const {
      run: go,
      entries,
      world,
    } = watch(
      cornerProject({
        memory: { mood: { type: 'number', default: 1, forgetAfter: 0.5 } },
        machine: {
          initial: 'a',
          states: [{ id: 'a', entry: [{ do: 'remember', key: 'mood', value: '5' }] }],
        },
      }),
    );
    go(30);
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    expect(keeper.memory[0]).toBe(5);
    go(3);
    expect(keeper.memory[0]).toBe(1);
    expect(entries.filter(({ kind }) => kind === 'forgot')).toHaveLength(1);
  });

  it('keeps its value when what is to be remembered is missing', () => {
    const { run: go, memory } = watch(
      cornerProject({
        memory: { mood: { type: 'number', default: 1 }, lair: { type: 'point' } },
        machine: {
          initial: 'a',
          states: [
            {
              id: 'a',
              entry: [
                { do: 'remember', key: 'mood', value: '1 / 0' },
                { do: 'remember', key: 'lair', value: 'attention.place' },
              ],
            },
          ],
        },
      }),
    );
    go(1);
    expect(memory()).toEqual({ lair: 'nothing', mood: '1' });
  });
});
