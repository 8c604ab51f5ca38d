import type { AgentState } from '../../state/agent-state.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/** Whether a body has room somewhere. */

/** Which of the agents that count stands where the agent's body would; undefined for none. */
export function whoStandsAt(
  { agents }: Surroundings,
  agent: AgentState,
  x: number,
  y: number,
  counts: (other: AgentState) => boolean = () => true,
): AgentState | undefined {
  return agents.find(
    (other) => other !== agent && counts(other) && other.awayFrom(x, y) < agent.archetype.radius,
  );
}
