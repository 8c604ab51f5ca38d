import type { MachineProgram, TransitionProgram } from '../program.ts';
import type { RunnableMachine } from './runnable.ts';
import { createMachineState, type MachineState } from './state.ts';
import { entrySet } from './step.ts';

/**
 * Carries where a machine stands over to an edited version of it. States are the same by id. An
 * active state that is gone gives way to its nearest ancestor that is still there, which is entered
 * in the next decision; with none left the machine begins anew.
 */

export interface Transplant {
  state: MachineState;
  /** Active states that are gone, and what is entered instead; ids. */
  moved: { from: string; to: string }[];
  /** An activity of the old machine was running and does not go on as it was. */
  activityCut: boolean;
}

function sameTransition(a: TransitionProgram, b: TransitionProgram): boolean {
  return a.order === b.order && a.on === b.on && a.when?.source === b.when?.source;
}

/** Index in `after` of each state of `before`; −1 where it is gone. */
function stateMap(before: MachineProgram, after: MachineProgram): number[] {
  const byId = new Map(after.states.map((state, index) => [state.id, index]));
  return before.states.map((state) => byId.get(state.id) ?? -1);
}

function nearestSurvivor(before: MachineProgram, map: readonly number[], state: number): number {
  let s = state;
  while (s >= 0 && map[s] < 0) s = before.states[s].parent;
  return s < 0 ? -1 : map[s];
}

export function transplantMachine(
  before: MachineProgram,
  old: MachineState,
  after: MachineProgram,
  machine: RunnableMachine,
): Transplant {
  const state = createMachineState(machine);
  if (!old.started) return { state, moved: [], activityCut: false };
  const map = stateMap(before, after);
  const leaves = old.active.filter(
    (s) => !old.active.some((inner) => before.states[inner].parent === s),
  );
  const targets = leaves.map((leaf) => {
    const survivor = nearestSurvivor(before, map, leaf);
    return survivor < 0 ? machine.initial : survivor;
  });
  const moved = leaves.flatMap((leaf, i) =>
    map[leaf] >= 0 ? [] : [{ from: before.states[leaf].id, to: after.states[targets[i]].id }],
  );
  state.started = true;
  state.startPending = true;
  const wasActive = new Set(old.active.map((s) => map[s]));
  const configuration = entrySet(machine, state, targets);
  state.active = configuration.filter((s) => wasActive.has(s));
  state.toEnter = configuration.filter((s) => !wasActive.has(s));
  let activityCut = false;
  before.states.forEach((was, s) => {
    const now = map[s];
    const goesOn =
      now >= 0 &&
      state.active.includes(now) &&
      JSON.stringify(was.activity) === JSON.stringify(after.states[now].activity);
    const memory = old.activity[s];
    if (memory !== null && !goesOn) activityCut = true;
    if (now < 0) return;
    state.enteredAt[now] = old.enteredAt[s];
    if (goesOn) {
      state.activity[now] = memory && { ...memory };
      state.activityDone[now] = old.activityDone[s];
    }
    const left = old.left[s]?.map((inner) => map[inner]);
    state.left[now] = left && left.every((inner) => inner >= 0) ? left : null;
    was.leaves.forEach((index, i) => {
      const successor = after.states[now].leaves[i];
      if (
        successor === undefined ||
        !sameTransition(before.transitions[index], after.transitions[successor])
      )
        return;
      state.trueSince[successor] = old.trueSince[index];
      if (old.lastTransition === index) state.lastTransition = successor;
    });
  });
  state.finished = old.finished && moved.length === 0;
  return { state, moved, activityCut };
}
