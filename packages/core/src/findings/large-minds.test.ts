import { describe, expect, it } from 'vitest';
import type { StateDocument } from '../model/documents.ts';
import { cornerProject } from '../testing/orchard.fixture.ts';
import { checkDocument } from './check-project.ts';

/** Ten thousand states in a hundred rooms, each with a transition to the next. */
function chainOfRooms(change: (state: StateDocument) => void = () => {}): StateDocument[] {
  const id = (i: number) => `s${i % 10_000}`;
  return Array.from({ length: 100 }, (_, room) => ({
    id: `room${room}`,
    initial: id(room * 100),
    states: Array.from({ length: 100 }, (_, i) => {
      const state: StateDocument = {
        id: id(room * 100 + i),
        transitions: [{ to: id(room * 100 + i + 1), when: 'time > 1' }],
      };
      change(state);
      return state;
    }),
  }));
}

const findings = (states: StateDocument[]) =>
  checkDocument(cornerProject({ machine: { initial: states[0].id, states } })).findings;

describe('a mind of ten thousand states', () => {
  it('is checked as one of ten, however long its chains of transitions are', () => {
    expect(findings(chainOfRooms())).toEqual([]);
  });

  it('is checked where all of them do something: pairs are not gone through one by one', () => {
    const busy = chainOfRooms((state) => (state.activity = { do: 'wander' }));
    expect(findings(busy)).toEqual([]);
    // One around all of one room does the same: each inside has one finding of it.
    busy[7].activity = { do: 'wander' };
    const conflicts = findings(busy);
    expect(conflicts).toHaveLength(100);
    expect(conflicts[0]).toMatchObject({
      code: 'conflict',
      message: expect.stringContaining('“room7” and “s700” are active together') as string,
    });
  });
});
