import { describe, expect, it } from 'vitest';
import { cornerProject } from '../testing/orchard.fixture.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProject } from '../model/file/read-project.ts';
import { applyCommand } from './apply-command.ts';
import { findState } from './minds/change-machine.ts';
import { CommandError, type DocumentCommand, type PartChange } from './commands/commands.ts';

const document = cornerProject({
  machine: {
    initial: 'calm',
    states: [
      {
        id: 'calm',
        initial: 'rounds',
        states: [
          {
            id: 'rounds',
            transitions: [
              { to: 'peer', when: 'time > 1' },
              { to: 'chase', when: 'time > 2', for: 1 },
            ],
          },
          { id: 'peer' },
        ],
      },
      {
        id: 'chase',
        entry: [{ do: 'stop' }, { do: 'say', text: 'Stay!' }],
        transitions: [{ to: 'rounds', after: 2 }],
      },
    ],
  },
});

const mind = 'keeper';
const before = JSON.stringify(document);

function apply(command: DocumentCommand): ProjectDocument {
  const after = applyCommand(document, command);
  expect(JSON.stringify(document), 'the document before is left alone').toBe(before);
  const result = readProject(after);
  expect(result.ok ? [] : result.faults).toEqual([]);
  return after;
}

const state = (from: ProjectDocument, id: string) =>
  findState(from.minds.keeper.machine!.states, id);

describe('commands on transitions', () => {
  it('change, add, move and remove', () => {
    expect(
      state(
        apply({
          command: 'changeTransition',
          mind,
          state: 'rounds',
          index: 1,
          change: { for: undefined, when: 'time > 3' },
        }),
        'rounds',
      )!.transitions![1],
    ).toEqual({ to: 'chase', when: 'time > 3' });
    expect(
      state(
        apply({
          command: 'addTransition',
          mind,
          state: 'peer',
          transition: { to: 'rounds', after: 1 },
        }),
        'peer',
      )!.transitions,
    ).toEqual([{ to: 'rounds', after: 1 }]);
    expect(
      state(
        apply({ command: 'moveTransition', mind, state: 'rounds', from: 1, to: 0 }),
        'rounds',
      )!.transitions!.map(({ to }) => to),
    ).toEqual(['chase', 'peer']);
    expect(
      state(apply({ command: 'removeTransition', mind, state: 'chase', index: 0 }), 'chase'),
    ).not.toHaveProperty('transitions');
  });
});

describe('commands on what a state does', () => {
  it('set its lists of actions and its activity, and take them away', () => {
    const set = (change: object, of = 'chase') =>
      state(apply({ command: 'changeState', mind, state: of, change }), of)!;
    expect(set({ exit: [{ do: 'stop' }] }, 'peer').exit).toEqual([{ do: 'stop' }]);
    expect(set({ entry: undefined })).not.toHaveProperty('entry');
    const moving = apply({
      command: 'changeState',
      mind,
      state: 'peer',
      change: { activity: { do: 'wait', seconds: 1 } },
    });
    expect(state(moving, 'peer')!.activity).toEqual({ do: 'wait', seconds: 1 });
    expect(
      state(
        applyCommand(moving, {
          command: 'changeState',
          mind,
          state: 'peer',
          change: { activity: undefined },
        }),
        'peer',
      ),
    ).not.toHaveProperty('activity');
  });
});

describe('commands on states', () => {
  it('adds a state beside and inside, the first inside being entered first', () => {
    expect(
      apply({ command: 'insertState', mind, parent: null, state: { id: 'rest', title: 'Rest' } })
        .minds.keeper.machine!.states,
    ).toHaveLength(3);
    expect(
      state(
        apply({
          command: 'insertState',
          mind,
          parent: 'chase',
          state: { id: 'run', title: 'Run' },
        }),
        'chase',
      ),
    ).toMatchObject({ initial: 'run', states: [{ id: 'run', title: 'Run' }] });
  });

  it('removes a state with all inside it and all that leads there, and finds another to enter first', () => {
    const after = apply({ command: 'removeState', mind, state: 'calm' });
    expect(after.minds.keeper.machine).toEqual({
      initial: 'chase',
      states: [{ id: 'chase', entry: expect.any(Array) as unknown }],
    });
    const inner = apply({ command: 'removeState', mind, state: 'rounds' });
    expect(state(inner, 'calm')!.initial).toBe('peer');
  });

  it('retitles and chooses what is entered first', () => {
    expect(
      state(
        apply({ command: 'changeState', mind, state: 'peer', change: { title: 'Peers' } }),
        'peer',
      )!.title,
    ).toBe('Peers');
    expect(
      state(apply({ command: 'setInitial', mind, parent: 'calm', initial: 'peer' }), 'calm')!
        .initial,
    ).toBe('peer');
    expect(
      apply({ command: 'setInitial', mind, parent: null, initial: 'chase' }).minds.keeper.machine!
        .initial,
    ).toBe('chase');
  });
});

describe('commands that do not fit', () => {
  it.each<[DocumentCommand, RegExp]>([
    [{ command: 'removeState', mind: 'goose', state: 'calm' }, /no mind “goose”/],
    [{ command: 'removeState', mind, state: 'flee' }, /no state “flee”/],
    [
      { command: 'insertState', mind, parent: null, state: { id: 'peer', title: 'Peer' } },
      /already/,
    ],
    [{ command: 'removeTransition', mind, state: 'chase', index: 3 }, /no entry 4; the list has 1/],
    [{ command: 'moveTransition', mind, state: 'rounds', from: 0, to: 2 }, /no entry 3/],
  ])('say why: %o', (command, message) => {
    expect(() => applyCommand(document, command)).toThrow(CommandError);
    expect(() => applyCommand(document, command)).toThrow(message);
  });

  it('does not remove the last state', () => {
    const single = cornerProject({ machine: { initial: 'a', states: [{ id: 'a' }] } });
    expect(() => applyCommand(single, { command: 'removeState', mind, state: 'a' })).toThrow(
      /at least one/,
    );
  });
});

describe('commands on a ground', () => {
  const ground = 'corner';
  const lamp = { at: [3, 3] as [number, number], reach: 4, strength: 0.8 };

  it('add, change and take away several parts in one step', () => {
    const after = apply({
      command: 'changeParts',
      ground,
      what: 'a lamp and a wall',
      changes: [
        { part: 'lamps', name: 'north', value: lamp },
        { part: 'walls', index: 0, value: { at: [4, 4], size: [1, 1] } },
      ],
    });
    expect(after.grounds.corner).toMatchObject({
      lamps: { north: lamp },
      walls: [{ at: [4, 4], size: [1, 1] }],
    });
    const gone = applyCommand(after, {
      command: 'changeParts',
      ground,
      what: 'removal',
      changes: [
        { part: 'lamps', name: 'north', value: null },
        { part: 'walls', index: 0, value: null },
      ],
    });
    expect(gone.grounds.corner).toEqual(document.grounds.corner);
  });

  it('take along what refers to a part that goes', () => {
    const full = apply({
      command: 'changeParts',
      ground,
      what: 'parts',
      changes: [
        {
          part: 'routes',
          name: 'round',
          value: {
            points: [
              [1, 1],
              [2, 2],
            ],
          },
        },
        { part: 'gates', name: 'way', value: { at: [10, 1], size: [1, 0.2] } },
        { part: 'plates', name: 'slab', value: { at: [14, 1], size: [1, 1], opens: 'way' } },
        {
          part: 'agents',
          name: 'keeper',
          value: { archetype: 'keeper', at: [2, 5], route: 'round' },
        },
      ],
    });
    const after = applyCommand(full, {
      command: 'changeParts',
      ground,
      what: 'removal',
      changes: [
        { part: 'routes', name: 'round', value: null },
        { part: 'gates', name: 'way', value: null },
        { part: 'agents', name: 'gleaner', value: null },
      ],
    });
    expect(after.grounds.corner.agents).toEqual({ keeper: { archetype: 'keeper', at: [2, 5] } });
    expect(after.grounds.corner).not.toHaveProperty('plates');
    expect(after.start).not.toHaveProperty('play');
    expect(readProject(after).ok).toBe(true);
  });

  it('say which part is not there', () => {
    const remove = (change: PartChange) => () =>
      applyCommand(document, { command: 'changeParts', ground, what: '', changes: [change] });
    expect(remove({ part: 'lamps', name: 'south', value: null })).toThrow(/no “south”/);
    expect(remove({ part: 'walls', index: 3, value: null })).toThrow(/no wall 4/);
  });

  it('change the ground itself', () => {
    const wide = apply({ command: 'changeGround', ground, change: { width: 30, light: 0.2 } });
    expect(wide.grounds.corner).toMatchObject({ width: 30, light: 0.2 });
    const day = applyCommand(wide, {
      command: 'changeGround',
      ground,
      change: { light: undefined },
    });
    expect(day.grounds.corner).not.toHaveProperty('light');
  });
});
