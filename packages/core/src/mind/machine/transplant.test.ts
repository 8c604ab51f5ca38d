import { describe, expect, it } from 'vitest';
import type { MachineDocument, TransitionDocument } from '../../model/documents.ts';
import { cornerProject, programOf, story, watch } from '../../testing/orchard.fixture.ts';
import { leafState } from '../../world/readout/picture.ts';
import { readMind } from '../../world/readout/readout.ts';
import { swapProgram } from '../../world/handover/swap.ts';
import { tick } from '../../world/phases/tick.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { restoreSnapshot, takeSnapshot } from '../../world/handover/snapshot.ts';
import { createWorld, setRecorder, type World } from '../../world/world.ts';
import { withSheds } from './sheds.fixture.ts';

/** A keeper's machine, and the same with another note on some state: an edit that is about something else. */
function edited(
  machine: MachineDocument,
  ticks: number,
  change: (machine: MachineDocument) => void,
) {
  const watched = watch(cornerProject({ machine }));
  watched.run(ticks);
  const after = structuredClone(machine);
  change(after);
  const world = swapProgram(watched.world, programOf(cornerProject({ machine: after })), 2, 1);
  return { before: watched.world, world, entries: watched.entries };
}

function stateOf(world: World): string {
  const keeper = world.agents.find(({ name }) => name === 'keeper')!;
  return keeper.minds[0].program.machine.states[leafState(keeper)]?.id ?? '';
}

/** The tick in which the keeper comes into a state. */
function tickOf(world: World, state: string, limit = 400): number {
  while (world.tick < limit) {
    tick(world);
    if (stateOf(world) === state) return world.tick;
  }
  return -1;
}

/** Regions, histories of both kinds, guards that must hold for a while, actions that are not interrupted, an end. */
const busy: MachineDocument = {
  initial: 'day',
  states: [
    {
      id: 'day',
      kind: 'parallel',
      states: [
        {
          id: 'legs',
          initial: 'orchard',
          states: [
            {
              id: 'orchard',
              initial: 'walk',
              states: [
                {
                  id: 'walk',
                  activity: { do: 'turn', by: 60, uninterrupted: true },
                  transitions: [{ to: 'rest', on: 'done.success' }],
                },
                {
                  id: 'rest',
                  activity: { do: 'wait', seconds: 0.3 },
                  transitions: [{ to: 'walk', on: 'done.success' }],
                },
                { id: 'again', kind: 'deepHistory' },
              ],
              transitions: [{ to: 'shelter', when: 'time % 1.2 > 0.9', for: 0.15 }],
            },
            { id: 'shelter', transitions: [{ to: 'again', after: 0.25 }] },
          ],
        },
        {
          id: 'voice',
          initial: 'quiet',
          states: [
            {
              id: 'quiet',
              transitions: [
                { to: 'hums', when: 'time % 0.8 > 0.4', for: 0.1, do: [{ do: 'stop' }] },
              ],
            },
            {
              id: 'hums',
              entry: [{ do: 'say', text: 'Hm' }],
              transitions: [{ to: 'quiet', after: 0.2 }],
            },
            { id: 'tune', kind: 'history' },
          ],
        },
      ],
      transitions: [{ to: 'night', after: 2.1 }],
    },
    {
      id: 'night',
      activity: { do: 'wait', seconds: 0.6 },
      transitions: [
        { to: 'tune', on: 'done.success', when: 'time < 4' },
        { to: 'over', on: 'done.success' },
      ],
    },
    { id: 'over', kind: 'final' },
  ],
};

/** A house whose history brings back where the keeper was when it went to the garden: the cellar. */
const rooms = (kind: 'history' | 'deepHistory'): MachineDocument => ({
  initial: 'house',
  states: [
    {
      id: 'house',
      initial: 'hall',
      states: [
        { id: 'hall', transitions: [{ to: 'cellar', after: 0.2 }] },
        { id: 'cellar' },
        { id: 'back', kind },
      ],
      transitions: [{ to: 'garden', when: 'time > 0.5 && time < 0.6' }],
    },
    { id: 'garden', transitions: [{ to: 'back', after: 1 }] },
  ],
});

describe('an edit of what a machine isn’t in', () => {
  it('changes nothing of what it does, whenever it comes', () => {
    const begun = watch(cornerProject({ machine: busy }), 5);
    begun.run(400);
    expect(new Set(begun.entries.flatMap((e) => (e.kind === 'enter' ? [e.state] : [])))).toEqual(
      new Set([
        'day',
        'legs',
        'orchard',
        'walk',
        'rest',
        'shelter',
        'voice',
        'quiet',
        'hums',
        'night',
        'over',
      ]),
    );
    const program = programOf(cornerProject({ machine: withSheds(busy) }));
    const { world, run } = watch(cornerProject({ machine: busy }), 5);
    const copy = createWorld(world.statics.program, 5, world.statics);
    while (world.tick < 330) {
      run(4);
      restoreSnapshot(copy, takeSnapshot(world));
      const entries: LedgerEntry[] = [];
      const edited = swapProgram(copy, program, 2, 5);
      const enteredBy = (of: World) => readMind(of, 'keeper', null)!.enteredBy;
      expect(enteredBy(edited)).toEqual(enteredBy(world));
      setRecorder(edited, (entry) => entries.push(entry));
      while (edited.tick < world.tick + 40) tick(edited);
      const asBefore = begun.entries.filter((e) => e.tick > world.tick && e.tick <= edited.tick);
      expect(entries, `an edit after tick ${world.tick}`).toEqual(asBefore);
    }
  });
});

describe('an edit of another part of a machine', () => {
  it('leaves the time that a guard has held as it is', () => {
    const waiting: MachineDocument = {
      initial: 'wait',
      states: [
        { id: 'wait', transitions: [{ to: 'over', when: 'time > 0.1', for: 1 }] },
        { id: 'over', transitions: [{ to: 'wait', after: 9 }] },
      ],
    };
    const alone = tickOf(watch(cornerProject({ machine: waiting })).world, 'over');
    const { world } = edited(waiting, 40, ({ states }) => {
      states[1].transitions![0].after = 8;
    });
    expect(tickOf(world, 'over')).toBe(alone);
  });

  it('counts a time from the beginning where its own guard was changed', () => {
    const waiting: MachineDocument = {
      initial: 'wait',
      states: [
        { id: 'wait', transitions: [{ to: 'over', when: 'time > 0.1', for: 1 }] },
        { id: 'over' },
      ],
    };
    const { world } = edited(waiting, 40, ({ states }) => {
      states[0].transitions![0].when = 'time > 0.2';
    });
    expect(tickOf(world, 'over')).toBeGreaterThanOrEqual(100);
  });

  it.each(['history', 'deepHistory'] as const)('leaves what a %s remembers', (kind) => {
    const { world } = edited(rooms(kind), 45, ({ states }) => {
      states[0].states![0].transitions![0].after = 5;
    });
    expect(stateOf(world)).toBe('garden');
    expect(tickOf(world, 'cellar', 120)).toBeGreaterThan(0);
  });

  it('leaves an action where it is, with the part of the body it has', () => {
    const walking: MachineDocument = {
      initial: 'walk',
      states: [
        {
          id: 'walk',
          activity: { do: 'moveTo', to: 'self.post' },
          transitions: [{ to: 'off', after: 30 }],
        },
        { id: 'off' },
      ],
    };
    const { before, world } = edited(walking, 10, ({ states }) => {
      states[0].transitions![0].after = 20;
    });
    const [was, is] = [before, world].map(({ agents }) =>
      agents.find(({ name }) => name === 'keeper')!,
    );
    expect(is.owner(0) > 0).toBe(was.owner(0) > 0);
    expect(is.body.legs).toBe(was.body.legs);
  });
});

describe('the transition that was taken last', () => {
  const walks = (leave: Partial<TransitionDocument> = {}): MachineDocument => ({
    initial: 'stand',
    states: [
      {
        id: 'stand',
        transitions: [
          { to: 'walk', on: 'bell' },
          { to: 'walk', after: 0.1, ...leave },
        ],
      },
      { id: 'walk', transitions: [{ to: 'stand', when: 'time > 1000' }] },
    ],
  });
  const remembered = (
    leave: Partial<TransitionDocument>,
    change: (machine: MachineDocument) => void,
  ) => readMind(edited(walks(leave), 20, change).world, 'keeper', null)!.enteredBy;

  it('is remembered as long as it is the same: by its place, event and guard', () => {
    const taken = { from: 'stand', order: 2 };
    expect(remembered({}, ({ states }) => states.push({ id: 'shed' }))).toEqual(taken);
    expect(
      remembered({}, ({ states }) => {
        states[0].transitions![1].to = 'stand';
      }),
    ).toEqual(taken);
    expect(
      remembered({}, ({ states }) => {
        states[0].transitions![1].when = 'time > 0';
      }),
    ).toBeNull();
    expect(
      remembered({}, ({ states }) => {
        states[0].transitions!.pop();
      }),
    ).toBeNull();
  });
});

describe('an edit that takes away what is active', () => {
  /** A house of two floors beside a garden; the keeper is in the pantry from tick 7 on. */
  const house = (): MachineDocument => ({
    initial: 'house',
    states: [
      {
        id: 'house',
        initial: 'hall',
        states: [
          { id: 'hall', transitions: [{ to: 'pantry', after: 0.1 }] },
          {
            id: 'cellar',
            initial: 'stairs',
            states: [
              { id: 'stairs' },
              { id: 'pantry', transitions: [{ to: 'garden', after: 60 }] },
            ],
          },
        ],
      },
      { id: 'garden' },
    ],
  });
  const without = (change: (machine: MachineDocument) => void) => {
    const { before, world, entries: recorded } = edited(house(), 20, change);
    const moved = recorded.flatMap((e) => (e.kind === 'moved' ? [`${e.from} → ${e.to}`] : []));
    const entries: LedgerEntry[] = [];
    setRecorder(world, (entry) => entries.push(entry));
    for (let i = 0; i < 3; i++) tick(world);
    const active = (of: World) => readMind(of, 'keeper', null)!.active;
    return { was: active(before), active: active(world), told: story(entries), moved };
  };

  it('gives way to the nearest state around it that is left, and enters that', () => {
    const { was, active, told, moved } = without(({ states: [{ states }] }) => {
      states![1].states!.pop();
      states![0].transitions = [];
    });
    expect(moved).toEqual(['pantry → cellar']);
    expect(was).toEqual(['house', 'cellar', 'pantry']);
    expect(active).toEqual(['house', 'cellar', 'stairs']);
    expect(told).toEqual(['enter stairs']);
  });

  it('goes farther out where that is gone as well', () => {
    const { active, told } = without(({ states: [{ states }] }) => {
      states!.pop();
      states![0].transitions = [];
    });
    expect(active).toEqual(['house', 'hall']);
    expect(told).toEqual(['enter hall']);
  });

  it('begins again where nothing around it is left', () => {
    const { active, told, moved } = without((machine) => {
      machine.states.shift();
      machine.initial = 'garden';
    });
    expect(moved).toEqual(['pantry → garden']);
    expect(active).toEqual(['garden']);
    expect(told).toEqual(['enter garden']);
  });

  it('keeps what it can where a state is moved to another place', () => {
    const { active, told, moved } = without((machine) => {
      const [{ states }] = machine.states;
      const [pantry] = states![1].states!.splice(1, 1);
      machine.states.push({ ...pantry, transitions: [] });
    });
    expect(moved).toEqual([]);
    expect(active).toEqual(['pantry']);
    expect(told).toEqual([]);
  });

  it('leaves the other regions alone', () => {
    const both = (): MachineDocument => ({
      initial: 'both',
      states: [
        {
          id: 'both',
          kind: 'parallel',
          states: [
            {
              id: 'legs',
              initial: 'stand',
              states: [
                { id: 'stand', transitions: [{ to: 'walk', after: 0.1 }] },
                { id: 'walk' },
                { id: 'run' },
              ],
            },
            {
              id: 'voice',
              initial: 'still',
              states: [{ id: 'still', transitions: [{ to: 'hums', after: 0.1 }] }, { id: 'hums' }],
            },
          ],
        },
      ],
    });
    const { world } = edited(both(), 20, ({ states: [{ states }] }) => {
      states![0].initial = 'run';
      states![0].states!.splice(0, 2);
    });
    const entries: LedgerEntry[] = [];
    setRecorder(world, (entry) => entries.push(entry));
    for (let i = 0; i < 3; i++) tick(world);
    expect(story(entries)).toEqual(['enter run']);
    expect(readMind(world, 'keeper', null)!.active).toEqual([
      'both',
      'legs',
      'run',
      'voice',
      'hums',
    ]);
  });
});

describe('an edit of what a state does', () => {
  const waits = (seconds: number, other: number): MachineDocument => ({
    initial: 'wait',
    states: [
      {
        id: 'wait',
        activity: { do: 'wait', seconds },
        transitions: [{ to: 'over', on: 'done.success' }],
      },
      { id: 'over', activity: { do: 'wait', seconds: other } },
    ],
  });

  it('begins it again, where that was changed, and goes on with it where it was not', () => {
    const { world: kept } = edited(waits(1, 5), 30, ({ states }) => {
      states[1].activity = { do: 'wait', seconds: 6 };
    });
    expect(tickOf(kept, 'over')).toBe(61);
    const { world: changed } = edited(waits(1, 5), 30, ({ states }) => {
      states[0].activity = { do: 'wait', seconds: 0.8 };
    });
    expect(tickOf(changed, 'over')).toBeGreaterThanOrEqual(30 + 48);
  });

  it('leaves a machine that has come to its end there, unless its end is taken away', () => {
    const ends: MachineDocument = {
      initial: 'first',
      states: [
        { id: 'first', transitions: [{ to: 'last', after: 0.1 }] },
        { id: 'last', kind: 'final' },
      ],
    };
    const { world: over } = edited(ends, 20, ({ states }) => {
      states.unshift({ id: 'shed' });
    });
    const entries: LedgerEntry[] = [];
    setRecorder(over, (entry) => entries.push(entry));
    for (let i = 0; i < 20; i++) tick(over);
    expect(story(entries)).toEqual([]);
    const { world: begun } = edited(ends, 20, ({ states }) => {
      states[1] = { id: 'other', kind: 'final' };
      states[0].transitions![0].to = 'other';
    });
    setRecorder(begun, (entry) => entries.push(entry));
    for (let i = 0; i < 20; i++) tick(begun);
    expect(story(entries)).toEqual(['enter first', 'first#1 → other', 'exit first', 'enter other']);
  });

  it('forgets what a history remembers where that is gone', () => {
    const { world } = edited(rooms('history'), 45, ({ states: [{ states }] }) => {
      states!.splice(1, 1);
      states![0].transitions = [];
    });
    expect(stateOf(world)).toBe('garden');
    expect(tickOf(world, 'hall', 200)).toBeGreaterThan(60);
  });
});
