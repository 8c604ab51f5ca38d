import { findRow } from '../ledger/explain/find-row.ts';
import type { Target } from '../ledger/explain/target.ts';
import { resultNow } from '../ledger/explain/why-not-row.ts';
import { activeStates, QuestionError } from '../ledger/explain/statement.ts';
import type { Name } from '../model/documents.ts';
import { runningOption } from '../world/readout/choices.ts';
import { findMind } from '../world/readout/readout.ts';
import type { World } from '../world/world.ts';

/** Asks whether the agent is there, or does it, in the tick the world has come to; for as long as the world keeps its program. */
export function watchGoal(world: World, agent: Name, mind: Name, goal: Target): () => boolean {
  if (goal.kind === 'option')
    return () => runningOption(world, { agent, mind, choice: goal.choice }) === goal.option;
  const asked = findMind(world, agent, mind);
  if (!asked) return () => false;
  if (goal.kind === 'state') {
    const { states } = asked.mind.program.machine;
    return () => activeStates(asked).some((at) => states[at].id === goal.state);
  }
  try {
    const row = findRow(asked.mind, goal.of, goal.row);
    return () => {
      const result = resultNow(asked, row);
      return result === 'running' || result === 'success';
    };
  } catch (error) {
    // Under another edit there may be no such row.
    if (error instanceof QuestionError) return () => false;
    throw error;
  }
}
