import { findRow, resultNow } from '../ledger/explain/why-not-row.ts';
import { activeStates, QuestionError } from '../ledger/explain/statement.ts';
import type { Name, ProjectDocument } from '../model/documents.ts';
import { runningOption } from '../world/readout/choices.ts';
import { findMind } from '../world/readout/readout.ts';
import type { World } from '../world/world.ts';

/** What an agent is asked not to be in or do. */
export type Goal =
  | { kind: 'state'; state: Name }
  | { kind: 'option'; choice: Name; option: Name }
  /** As `tree:3`, counted from 1. */
  | { kind: 'row'; row: string };

/** What `not` names in a mind, as questions name it: a state's id, `choice:option`, else a row. */
export function goalOf(document: ProjectDocument, mind: Name, not: string): Goal {
  const [choice, option] = not.split(':');
  const options = document.minds[mind]?.choices?.[choice]?.options ?? [];
  if (options.some(({ id }) => id === option)) return { kind: 'option', choice, option };
  return not.includes(':') ? { kind: 'row', row: not } : { kind: 'state', state: not };
}

/** Asks whether the agent is there, or does it, in the tick the world has come to; for as long as the world keeps its program. */
export function watchGoal(world: World, agent: Name, mind: Name, goal: Goal): () => boolean {
  if (goal.kind === 'option')
    return () => runningOption(world, { agent, mind, choice: goal.choice }) === goal.option;
  const asked = findMind(world, agent, mind);
  if (!asked) return () => false;
  if (goal.kind === 'state') {
    const { states } = asked.mind.program.machine;
    return () => activeStates(asked).some((at) => states[at].id === goal.state);
  }
  try {
    const row = findRow(asked.mind, goal.row);
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
