import type { ActionMemory } from '../actions/action.ts';
import type { RunnableMachine } from './runnable.ts';

/** Where one agent's machine stands. Plain data: copied into snapshots and hashed as it is. */
export interface MachineState {
  /** Active states in document order. */
  active: number[];
  /** Tick each state was last entered in; −1 for never. */
  enteredAt: number[];
  /** For each transition, the tick since which its guard has held without a break while its source was active; −1 if it does not hold. */
  trueSince: number[];
  /** For each state, what was active below it when it was last left; null before that. */
  left: (number[] | null)[];
  /** For each state, its running activity. */
  activity: (ActionMemory | null)[];
  /** States whose activity has ended and which are still active. */
  activityDone: boolean[];
  /** Some active state has an activity that has not begun. */
  startPending: boolean;
  started: boolean;
  finished: boolean;
  /** States to enter in the next decision, after an edit took away what was active. */
  toEnter: number[];
  /** The transition that led here last; −1 at the start. */
  lastTransition: number;
}

export function createMachineState(machine: RunnableMachine): MachineState {
  const count = machine.states.length;
  return {
    active: [],
    enteredAt: new Array<number>(count).fill(-1),
    trueSince: new Array<number>(machine.transitions.length).fill(-1),
    left: new Array<number[] | null>(count).fill(null),
    activity: new Array<ActionMemory | null>(count).fill(null),
    activityDone: new Array<boolean>(count).fill(false),
    startPending: false,
    started: false,
    finished: false,
    toEnter: [],
    lastTransition: -1,
  };
}

export function copyMachineState(state: MachineState): MachineState {
  return {
    ...state,
    active: state.active.slice(),
    toEnter: state.toEnter.slice(),
    enteredAt: state.enteredAt.slice(),
    trueSince: state.trueSince.slice(),
    left: state.left.map((configuration) => configuration && configuration.slice()),
    activity: state.activity.map((memory) => memory && { ...memory }),
    activityDone: state.activityDone.slice(),
  };
}
