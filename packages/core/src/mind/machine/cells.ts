import type { Host } from '../host.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { MachineProgram } from '../program.ts';

/** Where one machine keeps what it needs between decisions, among the cells of its agent. */
export interface MachineCells {
  /** 0 before the first decision, then 1, at the very end 2. */
  phase: number;
  /** 1 when some active state has an activity that has not begun. */
  startPending: number;
  /** The transition that led here last; −1 at the start. */
  lastTransition: number;
  /** The uninterrupted action that runs, from 1; 0 for none. */
  lock: number;
  /** 1 when the decision before was skipped for it. */
  skipping: number;
  /** How many states are active, then these in document order. */
  active: number;
  /** How many states are to be entered in the next decision, after an edit took away what was active; then these. */
  toEnter: number;
  /** By state: the tick it was entered in last; −1 for never. */
  enteredAt: number;
  /** By state: {@link IDLE}, {@link ENDED}, or the tick its activity began in. */
  activity: number;
  /** By transition: the tick since which its guard has held without a break while its source was active; −1 if it does not hold. */
  trueSince: number;
  /** By state, for histories: where it keeps how many states were active when its parent was last left (−1 before that), then these. */
  history: number[];
}

export const NOT_STARTED = 0;
export const STARTED = 1;
export const FINISHED = 2;

export const IDLE = 0;
export const ENDED = -1;

export function reserveMachine(layout: CellLayout, program: MachineProgram): MachineCells {
  const states = program.states.length;
  return {
    phase: reserve(layout, 1),
    startPending: reserve(layout, 1),
    lastTransition: reserve(layout, 1, -1),
    lock: reserve(layout, 1),
    skipping: reserve(layout, 1),
    active: reserve(layout, 1 + states),
    toEnter: reserve(layout, 1 + states),
    enteredAt: reserve(layout, states, -1),
    activity: reserve(layout, states, IDLE),
    trueSince: reserve(layout, program.transitions.length, -1),
    history: program.states.map(({ kind }) =>
      kind === 'history' || kind === 'deepHistory' ? reserve(layout, 1 + states, -1) : -1,
    ),
  };
}

/** The list that begins at `at`: its length, then its entries. */
export function readList(cells: Float64Array, at: number): number[] {
  return Array.from(cells.subarray(at + 1, at + 1 + Math.max(0, cells[at])));
}

export function writeList(cells: Float64Array, at: number, list: readonly number[]): void {
  cells[at] = list.length;
  for (let i = 0; i < list.length; i++) cells[at + 1 + i] = list[i];
}

export function isActive(host: Pick<Host, 'memory'>, active: number, state: number): boolean {
  const { memory } = host;
  const count = memory[active];
  for (let i = 1; i <= count; i++) if (memory[active + i] === state) return true;
  return false;
}
