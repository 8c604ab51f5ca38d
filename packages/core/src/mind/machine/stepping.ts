import type { Host } from '../host.ts';
import { readList, writeList } from './cells.ts';
import type { RunnableMachine } from './runnable.ts';

/** An internal event: a state, or its activity, came to its end. */
export interface Done {
  state: number;
  name: 'done.success' | 'done.failure';
}

/** One decision on its way. */
export interface Stepping {
  machine: RunnableMachine;
  host: Host;
  done: Done[];
  microsteps: number;
  /** Transitions taken in them. */
  taken: number;
  /** The microstep limit was met: nothing more happens in this decision. */
  cycled: boolean;
  /** What runs has had its step in this decision. */
  carriedOn: boolean;
}

/** Decisions don't overlap, so one object serves them all: the hot path makes no garbage. */
const shared = {
  done: [] as Done[],
  microsteps: 0,
  taken: 0,
  cycled: false,
  carriedOn: false,
} as unknown as Stepping;

export function beginDecision(machine: RunnableMachine, host: Host): Stepping {
  shared.machine = machine;
  shared.host = host;
  if (shared.done.length > 0) shared.done.length = 0;
  shared.microsteps = 0;
  shared.taken = 0;
  shared.cycled = false;
  shared.carriedOn = false;
  if (host.memory[machine.cells.waiting] > 0)
    shared.done.push(...readWaiting(machine, host.memory));
  return shared;
}

/** The ends that a decision which met its limit left to the next. */
export function readWaiting(machine: RunnableMachine, memory: Float64Array): Done[] {
  return readList(memory, machine.cells.waiting).map((code) => ({
    state: code >> 1,
    name: code & 1 ? 'done.success' : 'done.failure',
  }));
}

/** Keeps the ends for the next decision. One that waits twice is kept once, so that they have room. */
export function writeWaiting(
  machine: RunnableMachine,
  memory: Float64Array,
  done: readonly Done[],
): void {
  const codes = done.map(({ state, name }) => 2 * state + (name === 'done.success' ? 1 : 0));
  writeList(memory, machine.cells.waiting, [...new Set(codes)]);
}
