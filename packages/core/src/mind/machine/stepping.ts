import type { Host } from '../host.ts';
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
  /** The microstep limit was met: nothing more happens in this decision. */
  cycled: boolean;
  /** What runs has had its step in this decision. */
  carriedOn: boolean;
}

/** Decisions don't overlap, so one object serves them all: the hot path makes no garbage. */
const shared = {
  done: [] as Done[],
  microsteps: 0,
  cycled: false,
  carriedOn: false,
} as unknown as Stepping;

export function beginDecision(machine: RunnableMachine, host: Host): Stepping {
  shared.machine = machine;
  shared.host = host;
  if (shared.done.length > 0) shared.done.length = 0;
  shared.microsteps = 0;
  shared.cycled = false;
  shared.carriedOn = false;
  return shared;
}
