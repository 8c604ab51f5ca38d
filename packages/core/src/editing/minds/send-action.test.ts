import { describe, expect, it } from 'vitest';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { sendAction, type ActionPlace } from './send-action.ts';

const say = (text: string) => ({ do: 'say', text });
const document = cornerProject({
  machine: {
    initial: 'stand',
    states: [
      { id: 'stand', entry: [say('one'), say('two')], exit: [say('bye')] },
      { id: 'walk', states: [{ id: 'run', entry: [say('run')] }], initial: 'run' },
    ],
  },
});

/** What is said on entry and exit of each state, after one action was sent. */
function sent(from: ActionPlace & { index: number }, to: ActionPlace, keep = false) {
  const { minds } = applyCommand(document, sendAction(document, 'keeper', from, to, keep));
  const [stand, walk] = minds.keeper.machine!.states;
  const words = ({ entry = [], exit = [] }: typeof stand) =>
    [entry, exit].map((list) => list.map(({ text }) => text).join(' ')).join(' | ');
  return [stand, walk, walk.states![0]].map(words);
}

const first = { state: 'stand', list: 'entry', index: 0 } as const;

describe('an action of a state', () => {
  it('is moved to another, or copied there', () => {
    expect(sent(first, { state: 'run', list: 'entry' })).toEqual([
      'two | bye',
      ' | ',
      'run one | ',
    ]);
    expect(sent(first, { state: 'walk', list: 'exit' }, true)).toEqual([
      'one two | bye',
      ' | one',
      'run | ',
    ]);
  });

  it('is moved within its state, from one list to the other or to the end of its own', () => {
    expect(sent(first, { state: 'stand', list: 'exit' })[0]).toBe('two | bye one');
    expect(sent(first, { state: 'stand', list: 'entry' })[0]).toBe('two one | bye');
    expect(sent(first, { state: 'stand', list: 'entry' }, true)[0]).toBe('one two one | bye');
  });

  it('leaves no empty list behind', () => {
    const from = { state: 'stand', list: 'exit', index: 0 } as const;
    const after = applyCommand(
      document,
      sendAction(document, 'keeper', from, { state: 'run', list: 'exit' }, false),
    );
    expect(after.minds.keeper.machine!.states[0]).not.toHaveProperty('exit');
  });

  it('that is gone, or has nowhere to go, is said to be so', () => {
    expect(() => sent({ ...first, index: 7 }, { state: 'run', list: 'entry' })).toThrow(
      /not there/,
    );
    expect(() => sent(first, { state: 'nowhere', list: 'entry' })).toThrow(/not there/);
  });
});
