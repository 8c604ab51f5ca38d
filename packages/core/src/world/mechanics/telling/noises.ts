import { HEARING } from '../../../terms/senses.ts';
import type { Percept } from '../../../senses/percept.ts';
import { loudness, soundDelay } from '../../../senses/hearing.ts';
import type { AgentState } from '../../state/agent-state.ts';
import type { Noise, Surroundings } from '../../state/surroundings.ts';

/** Noises on their way to ears. */

const found: number[] = [];

/** Whether an ear makes anything of it: what friends do about the place is nothing, but their calls are. */
function heeds(agent: AgentState, { maker, what }: Noise): boolean {
  if (agent.archetype.hearing === null || agent.asleep || agent.resting) return false;
  if (maker < 0) return true;
  const { step, landing, gate } = agent.statics.words;
  const everyday = what === step || what === landing || what === gate;
  return maker !== agent.index && !(everyday && agent.isFriendly(maker));
}

/** Sends the noises of the tick before on their way to all agents that will hear them. */
export function spreadNoises(world: Surroundings): void {
  const { noises, agents, ground } = world;
  for (const noise of noises) {
    const { what, x, y, reach, thing } = noise;
    const count = ground.near(x, y, reach, found);
    for (let i = 0; i < count; i++) {
      const agent = agents[found[i]];
      if (!heeds(agent, noise)) continue;
      const length = ground.soundLength(x, y, agent.x, agent.y, reach);
      const strength = loudness(length, reach);
      if (strength <= agent.archetype.hearing!.threshold) continue;
      // The noise was made in the tick before this one.
      const due = agent.tick - 1 + soundDelay(length, agent.ticksPerSecond);
      const percept = { sense: HEARING, what, of: -1, thing, x, y, strength, tick: due };
      agent.arriving.push({ due, percept });
    }
  }
  noises.length = 0;
}

/** What reaches the agent's ears in this tick is added to `percepts`. */
export function hear(agent: AgentState, percepts: Percept[]): void {
  if (agent.arriving.length === 0) return;
  const { tick } = agent;
  for (const { due, percept } of agent.arriving) if (due <= tick) percepts.push(percept);
  agent.arriving = agent.arriving.filter(({ due }) => due > tick);
}
