import type { Reason } from '../../../terms/reasons.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { recordFor } from '../../state/record.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/** Tells an agent and the ledger that its legs don’t get it on, and what is in the way. */
export function raiseStuck(world: Surroundings, agent: AgentState, reason: Reason): void {
  agent.deliver(['stuck']);
  if (!world.recorder) return;
  const { x, y } = agent.body;
  recordFor(agent, world.recorder, { kind: 'stuck', x, y, reason });
}
