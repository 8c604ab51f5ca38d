import { readParts } from '../../expression/readout.ts';
import type { MindRecorder, Onlooker } from '../../mind/host.ts';
import type { AgentState } from '../state/agent-state.ts';
import { recordFor, type Unplaced } from '../state/record.ts';
import type { Recorder } from '../state/recorder.ts';
import { figureOfKey, nameTables, candidateText } from './names.ts';

/** With it all options are scored even where no panel shows them: the ledger records which came next. */
const unwatched: Onlooker = () => {};

/** Turns what one of an agent's minds does into ledger entries with names and values. */
export function createMindRecorder(
  agent: AgentState,
  mind: number,
  record: Recorder,
): MindRecorder {
  const { program } = agent.minds[mind];
  const { states, transitions } = program.machine;
  const names = nameTables(agent.program);
  const which = mind === 0 ? {} : { mind: program.name };
  const put = (entry: Unplaced) => recordFor(agent, record, { ...entry, ...which });
  const inRow = (row: number) => (row < 0 ? {} : { row });
  return {
    entered: (state) => put({ kind: 'enter', state: states[state].id }),
    exited: (state) => put({ kind: 'exit', state: states[state].id }),
    took(index, event) {
      const { source, order, target, when } = transitions[index];
      put({
        kind: 'transition',
        from: states[source].id,
        order,
        to: target < 0 ? null : states[target].id,
        ...(event === '' ? {} : { on: event }),
        ...(when ? { when: when.source, values: readParts(when, agent, names) } : {}),
      });
    },
    began: (state, action, row) =>
      put({ kind: 'begin', state: states[state].id, action, ...inRow(row) }),
    ended: (state, action, row, ending, reason) =>
      put({
        kind: 'end',
        state: states[state].id,
        action,
        ...inRow(row),
        ending,
        ...(reason && { reason }),
      }),
    did: (action) => put({ kind: 'did', action }),
    fired: (state, row) => put({ kind: 'fired', state: states[state].id, row }),
    overruled: (state, row, action, by) =>
      put({ kind: 'overruled', state: states[state].id, row, action, by }),
    looksOn: () => unwatched,
    picked(state, row, { name, options }, { option, a, b, score, next, margin, ties }) {
      const picked = options[option];
      put({
        kind: 'picked',
        state: states[state].id,
        row,
        choice: name,
        option: picked?.id ?? null,
        ...(picked?.each ? { of: candidateText(agent.program, picked.each.key.type, a, b) } : {}),
        score,
        ...(next >= 0 ? { next: options[next].id, margin } : {}),
        ...(ties > 1 ? { ties } : {}),
      });
    },
    remembered: (key) =>
      put({
        kind: 'memory',
        key: agent.stack!.program.keys[key].name,
        value: figureOfKey(agent, key),
      }),
    kept: (key) => put({ kind: 'kept', key: agent.stack!.program.keys[key].name }),
    said: (text) => put({ kind: 'say', text }),
    cycled: (cycle) => put({ kind: 'cycle', states: cycle.map((state) => states[state].id) }),
    dropped: (events) => put({ kind: 'dropped', events }),
    skipped: (action) => put({ kind: 'skipped', action }),
  };
}
