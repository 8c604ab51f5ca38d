import type { Host } from './host.ts';
import { makeMachine, type RunnableMachine } from './machine/runnable.ts';
import { createMachineState, type MachineState } from './machine/state.ts';
import { stepMachine } from './machine/step.ts';
import type { MindProgram } from './program.ts';

/** A mind bound for running, shared by all agents that have it. */
export interface RunnableMind {
  program: MindProgram;
  machine: RunnableMachine;
}

/** What one agent's mind keeps between ticks. */
export interface MindState {
  machine: MachineState;
  memory: Float64Array;
  /** Tick each key was last written in; −1 for never, or forgotten. */
  writtenAt: Int32Array;
}

export function makeMind(program: MindProgram): RunnableMind {
  return { program, machine: makeMachine(program.machine) };
}

export function createMindState(mind: RunnableMind): MindState {
  const { keys, slots } = mind.program;
  const state: MindState = {
    machine: createMachineState(mind.machine),
    memory: new Float64Array(slots),
    writtenAt: new Int32Array(keys.length).fill(-1),
  };
  keys.forEach((_, key) => resetKey(mind, state, key));
  return state;
}

function resetKey(mind: RunnableMind, state: MindState, key: number): void {
  const { slot, type, initial } = mind.program.keys[key];
  state.memory[slot] = initial;
  if (type === 'point') state.memory[slot + 1] = initial;
  state.writtenAt[key] = -1;
}

/** Writes a key; `b` is the y of a point. A missing value (NaN, or a negative agent) leaves the key as it is and gives false. */
export function writeKey(
  mind: RunnableMind,
  state: MindState,
  key: number,
  a: number,
  b: number,
  tick: number,
): boolean {
  const { slot, type } = mind.program.keys[key];
  if (a - a !== 0 || (type === 'point' && b - b !== 0)) return false;
  if ((type === 'agent' || type === 'text') && a < 0) return false;
  state.memory[slot] = a;
  if (type === 'point') state.memory[slot + 1] = b;
  state.writtenAt[key] = tick;
  return true;
}

export function forgetKey(mind: RunnableMind, state: MindState, key: number): void {
  resetKey(mind, state, key);
}

/** Resets the keys whose time is over and gives their indices; undefined for none. */
export function forgetDueKeys(
  mind: RunnableMind,
  state: MindState,
  tick: number,
): number[] | undefined {
  let due: number[] | undefined;
  const { keys } = mind.program;
  for (let key = 0; key < keys.length; key++) {
    const { forgetAfter } = keys[key];
    if (forgetAfter === 0 || state.writtenAt[key] < 0 || tick - state.writtenAt[key] <= forgetAfter)
      continue;
    resetKey(mind, state, key);
    (due ??= []).push(key);
  }
  return due;
}

/** One decision. */
export function decide(
  mind: RunnableMind,
  state: MindState,
  host: Host,
  events: readonly string[],
): void {
  stepMachine(mind.machine, state.machine, host, events);
}
