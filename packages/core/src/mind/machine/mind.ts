import { CHANNELS } from '../../terms/channels.ts';
import { createLayout, reserve } from '../cells.ts';
import type { Host } from '../host.ts';
import { isCarryingOn } from './activities.ts';
import { carryOnMachine, stepMachine } from './step.ts';
import { makeMachine, type RunnableMachine } from './runnable.ts';
import { NOT_STARTED } from './cells.ts';
import { resetKey } from '../memory.ts';
import type { CadenceProgram, KeyProgram, MindProgram, StackProgram } from '../program.ts';

/** A mind bound for running, shared by all agents that have it. */
export interface RunnableMind {
  program: MindProgram;
  machine: RunnableMachine;
  /** Ticks from decision to decision; 0 for one that waits for events. */
  every: number;
}

/** The minds of an archetype, bound to one layout of cells. */
export interface RunnableStack {
  program: StackProgram;
  minds: RunnableMind[];
  /** The keys of scope `self`. */
  ownKeys: KeyProgram[];
  /** Of its own keys those that are forgotten after a time. */
  forgetting: KeyProgram[];
  /** Those of them that change by themselves. */
  changing: KeyProgram[];
  /** What the cells of an agent hold before its first decision. */
  initial: Float64Array;
  /** First of the cells that say who uses each channel. */
  channels: number;
}

export function makeStack(program: StackProgram): RunnableStack {
  const layout = createLayout();
  reserve(layout, program.slots);
  // No action stands at cell 0, which means none.
  const channels = reserve(layout, Math.max(1, CHANNELS.length));
  const minds = program.minds.map((mind) => ({
    program: mind,
    machine: makeMachine(mind.machine, layout, channels),
    every: everyOf(mind.cadence),
  }));
  const initial = Float64Array.from(layout.initial);
  const ownKeys = program.keys.filter(({ scope }) => scope === 'self');
  for (const key of ownKeys) resetKey(initial, key);
  const changing = ownKeys.filter(({ rate }) => rate !== 0);
  const forgetting = ownKeys.filter(({ forgetAfter }) => forgetAfter !== 0);
  return { program, minds, ownKeys, forgetting, changing, initial, channels };
}

function everyOf(cadence: CadenceProgram): number {
  if (cadence.kind === 'tick') return 1;
  return cadence.kind === 'interval' ? cadence.ticks : 0;
}

/**
 * Whether a mind decides in this tick. `stagger` shifts the agent's intervals against those of others, so
 * that crowds don't think at once. A mind that waits for events also decides first of all, so that it is
 * in some state.
 */
function isDue(
  mind: RunnableMind,
  host: Host,
  events: readonly string[],
  stagger: number,
): boolean {
  const { every } = mind;
  if (every === 1) return true;
  if (every > 1) return (host.tick + stagger) % every === 0;
  const { memory } = host;
  const { phase, toEnter, cutOff } = mind.machine.cells;
  return (
    events.length > 0 ||
    memory[phase] === NOT_STARTED ||
    memory[toEnter] > 0 ||
    memory[cutOff] === 1
  );
}

/** The part of one mind in a tick. Returns how many of the events it has taken; the others wait for its next decision. */
export function decide(
  mind: RunnableMind,
  host: Host,
  events: readonly string[],
  stagger: number,
): number {
  if (isDue(mind, host, events, stagger)) return stepMachine(mind.machine, host, events);
  if (mind.every === 0 && isCarryingOn(mind.machine, host.memory)) {
    carryOnMachine(mind.machine, host);
  }
  return 0;
}
