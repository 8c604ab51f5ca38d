import { readText } from '../expression/readout.ts';
import { compileFlag } from '../expression/closures.ts';
import type { Agent } from './agent.ts';
import { figureOfKey, nameTables } from './names.ts';
import type { World } from './world.ts';

/** What one agent's mind is worth reading at this tick; made on demand, never recorded. */
export interface MindReadout {
  agent: string;
  /** Ids of the active states, outermost first. */
  active: string[];
  /** How the innermost came to be entered: the transition's source and number; null at the start. */
  enteredBy: { from: string; order: number } | null;
  memory: { key: string; value: string; age: number | null }[];
  state: StateReadout | null;
}

export interface StateReadout {
  id: string;
  active: boolean;
  /** Seconds since it was entered, where it is active. */
  since: number | null;
  leaves: LeaveReadout[];
}

export interface LeaveReadout {
  /** Whether the guard holds now, by itself; true where there is none. */
  holds: boolean;
  /** The guard with values in place of names. */
  text: string;
  /** Seconds done and needed of `for`, or of `after`, whichever is still missing. */
  wait: { what: 'for' | 'after'; done: number; of: number } | null;
}

function readLeave(agent: Agent, index: number, active: boolean): LeaveReadout {
  const mind = agent.mind!;
  const state = agent.mindState!.machine;
  const { when, forTicks, afterTicks, source } = mind.program.machine.transitions[index];
  const perTick = 1 / agent.ticksPerSecond;
  const inState = active ? agent.tick - state.enteredAt[source] : 0;
  const since = state.trueSince[index];
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
    holds: when === null || compileFlag(when.ir)(agent),
    text: when === null ? '' : readText(when, agent, nameTables(agent.program)),
    wait,
  };
}

/** The readout of an agent by name, with one of its mind's states in detail; null where there is no such agent or mind. */
export function readMind(
  world: World,
  agentName: string,
  stateId: string | null,
): MindReadout | null {
  const agent = world.agents.find((candidate) => candidate.name === agentName);
  if (!agent?.mind || !agent.mindState) return null;
  const { keys, machine } = agent.mind.program;
  const state = agent.mindState.machine;
  const index = machine.states.findIndex((candidate) => candidate.id === stateId);
  const active = state.active.includes(index);
  const last = state.lastTransition < 0 ? null : machine.transitions[state.lastTransition];
  return {
    agent: agentName,
    active: state.active.map((s) => machine.states[s].id),
    enteredBy: last && { from: machine.states[last.source].id, order: last.order },
    memory: keys.map(({ name }, key) => {
      const age = agent.keyAge(key);
      return { key: name, value: figureOfKey(agent, key), age: Number.isNaN(age) ? null : age };
    }),
    state:
      index < 0
        ? null
        : {
            id: machine.states[index].id,
            active,
            since: active ? (agent.tick - state.enteredAt[index]) / agent.ticksPerSecond : null,
            leaves: machine.states[index].leaves.map((leave) => readLeave(agent, leave, active)),
          },
  };
}
