import { readFlag, type FlagReadout } from '../../expression/readout.ts';
import type { KeyScope } from '../../expression/ir.ts';
import { isCandidateKey } from '../../mind/memory.ts';
import { endOf, readList } from '../../mind/machine/cells.ts';
import type { RunnableMind } from '../../mind/machine/mind.ts';
import type { Agent } from '../agents/agent.ts';
import { figureOfKey, nameTables } from '../recording/names.ts';
import type { World } from '../world.ts';
import type { MachineProgram, TransitionProgram } from '../../mind/program.ts';
import type { LedgerEntry } from '../state/recorder.ts';

/** What one agent's mind is worth reading at this tick; made on demand, never recorded. */
export interface MindReadout {
  agent: string;
  /** Ids of the active states, outermost first. */
  active: string[];
  /** Of the active states those whose activity has ended: how many seconds ago, and how. */
  ended: { state: string; seconds: number; ending: 'success' | 'failure' }[];
  /** How the innermost came to be entered: the transition's source and number; null at the start. */
  enteredBy: { from: string; order: number } | null;
  memory: { key: string; scope: KeyScope; value: string; age: number | null }[];
  state: StateReadout | null;
}

export interface StateReadout {
  id: string;
  active: boolean;
  /** Seconds since it was entered, where it is active. */
  since: number | null;
  transitions: LeaveReadout[];
  /** The same of the states around it, the nearest first: by their ways out it is left too. */
  around: { id: string; transitions: LeaveReadout[] }[];
}

/** The guard now, by itself; it holds, with an empty text, where there is none. */
export interface LeaveReadout extends FlagReadout {
  /** Seconds done and needed of `for`, or of `after`, whichever is still missing. */
  wait: { what: 'for' | 'after'; done: number; of: number } | null;
}

/** An agent's mind by name, or its first; null where there is no such agent or it has none. */
export function findMind(world: World, agentName: string, mindName: string | undefined) {
  const agent = world.agents.find((candidate) => candidate.name === agentName);
  const mind = agent?.minds.find(({ program }) => program.name === mindName) ?? agent?.minds[0];
  return agent && mind ? { agent, mind } : null;
}

function readLeave(agent: Agent, mind: RunnableMind, index: number, active: boolean): LeaveReadout {
  const { memory } = agent;
  const { when, forTicks, afterTicks, source } = mind.program.machine.transitions[index];
  const perTick = 1 / agent.ticksPerSecond;
  const inState = active ? agent.tick - memory[mind.machine.states[source].enteredAt] : 0;
  const since = memory[mind.machine.transitions[index].heldAt];
  let wait: LeaveReadout['wait'] = null;
  if (afterTicks > 0 && inState < afterTicks) {
    wait = { what: 'after', done: inState * perTick, of: afterTicks * perTick };
  } else if (forTicks > 0) {
    wait = {
      what: 'for',
      done: active && since >= 0 ? (agent.tick - since) * perTick : 0,
      of: forTicks * perTick,
    };
  }
  return {
    ...(when === null
      ? { holds: true, text: '', failing: [], lacks: [] }
      : readFlag(when, agent, nameTables(agent.program))),
    wait,
  };
}

function readLeaves(agent: Agent, mind: RunnableMind, state: number, active: boolean) {
  const { transitions } = mind.program.machine.states[state];
  return transitions.map((leave) => readLeave(agent, mind, leave, active));
}

/** The states around one, the nearest first. */
export function around(states: readonly { parent: number }[], state: number): number[] {
  const { parent } = states[state];
  return parent < 0 ? [] : [parent, ...around(states, parent)];
}

/** The transition that an entry says was taken; undefined where the machine no longer has it. */
export function transitionTaken(
  { states, transitions }: MachineProgram,
  { from, order }: Extract<LedgerEntry, { kind: 'transition' }>,
): TransitionProgram | undefined {
  return transitions.find(
    (transition) => transition.order === order && states[transition.source].id === from,
  );
}

/**
 * The readout of one of an agent's minds (its first where it has none of that name), with one of its states in
 * detail; null where there is no such agent, or it has no mind.
 */
export function readMind(
  world: World,
  agentName: string,
  stateId: string | null,
  mindName?: string,
): MindReadout | null {
  const asked = findMind(world, agentName, mindName);
  return asked && readMindOf(asked.agent, asked.mind, stateId);
}

/** When and how what a state does has ended; null where it runs, or where there is nothing it does. */
export function activityEnd({ memory }: Agent, { machine }: RunnableMind, state: number) {
  const { activityAt, activity } = machine.states[state];
  // An activity that is a whole mind begins again in the next decision.
  return activityAt < 0 || activity?.again ? null : endOf(memory[activityAt]);
}

export function readMindOf(agent: Agent, mind: RunnableMind, stateId: string | null): MindReadout {
  const { memory } = agent;
  const { cells } = mind.machine;
  const { states, transitions } = mind.program.machine;
  const index = states.findIndex((candidate) => candidate.id === stateId);
  const configuration = readList(memory, cells.active);
  const active = configuration.includes(index);
  const last = transitions[memory[cells.lastTransition]];
  return {
    agent: agent.name,
    active: configuration.map((s) => states[s].id),
    ended: configuration.flatMap((s) => {
      const end = activityEnd(agent, mind, s);
      return end
        ? [
            {
              state: states[s].id,
              seconds: (agent.tick - end.tick) / agent.ticksPerSecond,
              ending: end.ending,
            },
          ]
        : [];
    }),
    enteredBy: last ? { from: states[last.source].id, order: last.order } : null,
    memory: agent.stack!.program.keys.flatMap((declared, key) => {
      if (isCandidateKey(declared)) return [];
      const { name, scope } = declared;
      const age = agent.known.keyAge(key);
      return {
        key: name,
        scope,
        value: figureOfKey(agent, key),
        age: Number.isNaN(age) ? null : age,
      };
    }),
    state:
      index < 0
        ? null
        : {
            id: states[index].id,
            active,
            since: active
              ? (agent.tick - memory[mind.machine.states[index].enteredAt]) / agent.ticksPerSecond
              : null,
            transitions: readLeaves(agent, mind, index, active),
            around: around(states, index).map((outer) => ({
              id: states[outer].id,
              transitions: readLeaves(agent, mind, outer, configuration.includes(outer)),
            })),
          },
  };
}
