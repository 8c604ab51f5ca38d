import { describe, expect, it } from 'vitest';
import type { MachineDocument } from '../../model/documents.ts';
import { cornerProject, programOf, watch } from '../../testing/orchard.fixture.ts';
import { leafState } from '../../world/readout/picture.ts';
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
  return { before: watched.world, world };
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
                  leaves: [{ to: 'rest', on: 'done.success' }],
                },
                {
                  id: 'rest',
                  activity: { do: 'wait', seconds: 0.3 },
                  leaves: [{ to: 'walk', on: 'done.success' }],
                },
                { id: 'again', kind: 'deepHistory' },
              ],
              leaves: [{ to: 'shelter', when: 'time % 1.2 > 0.9', for: 0.15 }],
            },
            { id: 'shelter', leaves: [{ to: 'again', after: 0.25 }] },
          ],
        },
        {
          id: 'voice',
          initial: 'quiet',
          states: [
            {
              id: 'quiet',
              leaves: [{ to: 'hums', when: 'time % 0.8 > 0.4', for: 0.1, do: [{ do: 'stop' }] }],
            },
            {
              id: 'hums',
              entry: [{ do: 'say', text: 'Hm' }],
              leaves: [{ to: 'quiet', after: 0.2 }],
            },
            { id: 'tune', kind: 'history' },
          ],
        },
      ],
      leaves: [{ to: 'night', after: 2.1 }],
    },
    {
      id: 'night',
      activity: { do: 'wait', seconds: 0.6 },
      leaves: [
        { to: 'tune', on: 'done.success', when: 'time < 4' },
        { to: 'over', on: 'done.success' },
      ],
    },
    { id: 'over', kind: 'final' },
  ],
};

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
        { id: 'wait', leaves: [{ to: 'over', when: 'time > 0.1', for: 1 }] },
        { id: 'over', leaves: [{ to: 'wait', after: 9 }] },
      ],
    };
    const alone = tickOf(watch(cornerProject({ machine: waiting })).world, 'over');
    const { world } = edited(waiting, 40, ({ states }) => {
      states[1].leaves![0].after = 8;
    });
    expect(tickOf(world, 'over')).toBe(alone);
  });

  it('counts a time from the beginning where its own guard was changed', () => {
    const waiting: MachineDocument = {
      initial: 'wait',
      states: [
        { id: 'wait', leaves: [{ to: 'over', when: 'time > 0.1', for: 1 }] },
        { id: 'over' },
      ],
    };
    const { world } = edited(waiting, 40, ({ states }) => {
      states[0].leaves![0].when = 'time > 0.2';
    });
    expect(tickOf(world, 'over')).toBeGreaterThanOrEqual(100);
  });

  it.each(['history', 'deepHistory'] as const)('leaves what a %s remembers', (kind) => {
    const rooms: MachineDocument = {
      initial: 'house',
      states: [
        {
          id: 'house',
          initial: 'hall',
          states: [
            { id: 'hall', leaves: [{ to: 'cellar', after: 0.2 }] },
            { id: 'cellar' },
            { id: 'back', kind },
          ],
          leaves: [{ to: 'garden', when: 'time > 0.5 && time < 0.6' }],
        },
        { id: 'garden', leaves: [{ to: 'back', after: 1 }] },
      ],
    };
    const { world } = edited(rooms, 45, ({ states }) => {
      states[0].states![0].leaves![0].after = 5;
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
          leaves: [{ to: 'off', after: 30 }],
        },
        { id: 'off' },
      ],
    };
    const { before, world } = edited(walking, 10, ({ states }) => {
      states[0].leaves![0].after = 20;
    });
    const [was, is] = [before, world].map(({ agents }) =>
      agents.find(({ name }) => name === 'keeper')!,
    );
    expect(is.owner(0) > 0).toBe(was.owner(0) > 0);
    expect(is.body.legs).toBe(was.body.legs);
  });
});
