import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MachineDocument, ProjectDocument, StateDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { findState, idsOf, parentOf, withFreeIds } from './change-machine.ts';
import { CommandError, type DocumentCommand } from '../commands/commands.ts';

const MACHINE: MachineDocument = {
  initial: 'calm',
  states: [
    {
      id: 'calm',
      initial: 'rounds',
      states: [
        { id: 'rounds', transitions: [{ to: 'peer', when: 'time > 1' }] },
        { id: 'peer', transitions: [{ to: 'chase', when: 'time > 2' }] },
      ],
    },
    { id: 'chase', transitions: [{ to: 'rounds', after: 3 }] },
  ],
};
const document = cornerProject({ machine: MACHINE });
const mind = 'keeper';

function machine(command: DocumentCommand, of: ProjectDocument = document): MachineDocument {
  return applyCommand(of, command).minds.keeper.machine!;
}
const shape = ({ states }: Pick<MachineDocument, 'states'>): unknown =>
  states.map(({ id, states: inner }) => (inner ? [id, shape({ states: inner })] : id));

describe('moving a state', () => {
  it('takes everything along that leads there', () => {
    const moved = machine({ command: 'moveState', mind, state: 'peer', parent: null, at: 1 });
    expect(shape(moved)).toEqual([['calm', ['rounds']], 'peer', 'chase']);
    expect(findState(moved.states, 'rounds')!.transitions).toEqual([
      { to: 'peer', when: 'time > 1' },
    ]);
  });

  it('leaves the room with another to enter first, and an empty one as a plain state', () => {
    const without = machine({ command: 'moveState', mind, state: 'rounds', parent: null, at: 0 });
    expect(findState(without.states, 'calm')!.initial).toBe('peer');
    const both = applyCommand(document, {
      command: 'several',
      what: 'both',
      commands: ['rounds', 'peer'].map((state) => ({
        command: 'moveState',
        mind,
        state,
        parent: 'chase',
        at: 0,
      })),
    });
    const { states } = both.minds.keeper.machine!;
    expect(findState(states, 'calm')).toEqual({ id: 'calm' });
    expect(findState(states, 'chase')!.initial).toBe('rounds');
  });

  it('within a room only changes the order', () => {
    const swapped = machine({ command: 'moveState', mind, state: 'rounds', parent: 'calm', at: 1 });
    expect(shape(swapped)).toEqual([['calm', ['peer', 'rounds']], 'chase']);
    expect(findState(swapped.states, 'calm')!.initial).toBe('rounds');
  });

  it('is refused into itself', () => {
    const into = { command: 'moveState', mind, state: 'calm', parent: 'peer', at: 0 } as const;
    expect(() => machine(into)).toThrow('A state can’t be moved into itself.');
  });
});

describe('wrapping a state', () => {
  it('puts a new one around it that is entered instead', () => {
    const wrapped = machine({ command: 'wrapState', mind, state: 'calm', id: 'all', title: 'All' });
    expect(wrapped.initial).toBe('all');
    expect(wrapped.states[0]).toMatchObject({ id: 'all', title: 'All', initial: 'calm' });
    expect(() =>
      machine({ command: 'wrapState', mind, state: 'calm', id: 'peer', title: 'x' }),
    ).toThrow(/already/);
  });
});

describe('copying a state', () => {
  it('gives it and all inside free ids, and leads inside where it led inside', () => {
    const copy = withFreeIds(MACHINE, MACHINE.states[0]);
    expect(idsOf(copy)).toEqual(['calm2', 'rounds2', 'peer2']);
    expect(copy.initial).toBe('rounds2');
    expect(copy.states![0].transitions).toEqual([{ to: 'peer2', when: 'time > 1' }]);
    expect(copy.states![1].transitions).toEqual([{ to: 'chase', when: 'time > 2' }]);
    const put = machine({ command: 'insertState', mind, parent: null, state: copy });
    expect(put.states).toHaveLength(3);
    expect(() =>
      machine({ command: 'insertState', mind, parent: null, state: MACHINE.states[0] }),
    ).toThrow(/a state “calm” already/);
  });
});

describe('any changes of states', () => {
  it('keep every state once, each room with one of its own to enter first, and the form', () => {
    const id = fc.constantFrom('calm', 'rounds', 'peer', 'chase', 'new1', 'new2');
    const parent = fc.option(id);
    const commands = fc.array(
      fc.oneof(
        fc.record({ command: fc.constant('moveState' as const), state: id, parent, at: fc.nat(3) }),
        fc.record({
          command: fc.constant('wrapState' as const),
          state: id,
          id: fc.constantFrom('new1', 'new2'),
          title: fc.constant('New'),
        }),
        fc.record({ command: fc.constant('removeState' as const), state: id }),
      ),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(commands, (list) => {
        let now = document;
        for (const each of list) {
          try {
            now = applyCommand(now, { ...each, mind } as DocumentCommand);
          } catch (error) {
            if (!(error instanceof CommandError)) throw error;
            continue;
          }
          const form = readProject(now);
          expect(form.ok ? [] : form.faults).toEqual([]);
          const { states, initial } = now.minds.keeper.machine!;
          const ids = states.flatMap(idsOf);
          expect(new Set(ids).size).toBe(ids.length);
          expect(states.map((state) => state.id)).toContain(initial);
          for (const state of ids.map((name) => findState(states, name)!)) expectEntered(state);
          for (const name of ids) {
            const around = parentOf(states, name);
            if (around) expect(around.states!.some((inner) => inner.id === name)).toBe(true);
          }
        }
      }),
      { numRuns: 300 },
    );
  });
});

function expectEntered({ initial, states }: StateDocument): void {
  if (states) expect(states.map(({ id }) => id)).toContain(initial);
  else expect(initial).toBeUndefined();
}
