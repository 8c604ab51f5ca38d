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
  /** 1 when the next decision is more than a look at guards: something is to begin, to end or to be waited for. */
  restless: number;
  /** One more than the leaf whose guards have been looked at with nothing noticed, and need no look until something is; 0 for none. */
  dozing: number;
  /** 1 when the last decision met the limit of microsteps: the next goes on where it ended. */
  cutOff: number;
  /** How many ends were still to be seen to then; then these, as {@link writeWaiting} puts them. */
  waiting: number;
  /** How many states are active, then these in document order. */
  active: number;
  /** The only active state without children; −1 where there are several, or none. */
  leaf: number;
  /** How many states are to be entered in the next decision, after an edit took away what was active; then these. */
  toEnter: number;
}

export const NOT_STARTED = 0;
export const STARTED = 1;
export const FINISHED = 2;

export const IDLE = 0;

/** What the cell of an activity holds once it has ended: when, and how, as a number below 0. */
export function endedCell(tick: number, isSuccess: boolean): number {
  return -(2 * tick + Number(isSuccess));
}

/** When an activity has ended, and how, by its cell; null while it runs or has not begun. */
export function endOf(cell: number): { tick: number; ending: 'success' | 'failure' } | null {
  if (cell >= 0) return null;
  return { tick: Math.floor(-cell / 2), ending: -cell % 2 === 1 ? 'success' : 'failure' };
}

export function reserveMachine(layout: CellLayout, program: MachineProgram): MachineCells {
  const states = program.states.length;
  return {
    phase: reserve(layout, 1),
    startPending: reserve(layout, 1),
    lastTransition: reserve(layout, 1, -1),
    lock: reserve(layout, 1),
    skipping: reserve(layout, 1),
    restless: reserve(layout, 1, 1),
    leaf: reserve(layout, 1, -1),
    dozing: reserve(layout, 1),
    cutOff: reserve(layout, 1),
    waiting: reserve(layout, 1 + 2 * states),
    active: reserve(layout, 1 + states),
    toEnter: reserve(layout, 1 + states),
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
