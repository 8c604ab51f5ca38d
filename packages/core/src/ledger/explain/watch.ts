import { compileFlag, compileNumber } from '../../expression/closures.ts';
import { conjuncts } from '../../expression/conjuncts.ts';
import { withSpans, type CheckedExpression, type Ir } from '../../expression/ir.ts';
import { readParts, readText } from '../../expression/readout.ts';
import type { Agent } from '../../world/agents/agent.ts';
import { nameTables } from '../../world/recording/names.ts';
import type { Statement } from './statement.ts';

/** Guards watched through a run: since when each part holds or not, and how near it came. */

/** One part of a guard, watched through the run. */
export interface WatchedPart {
  expression: CheckedExpression;
  holds: boolean;
  since: number;
  nearest: { tick: number; text: string; gap: number } | null;
  test: (agent: Agent) => boolean;
  /** How far a comparison of numbers is from holding; null for other parts. */
  gap: ((agent: Agent) => number) | null;
}

function watchPart(when: CheckedExpression, ir: Ir): WatchedPart {
  // A part by itself reads as its own stretch of the source.
  const [from] = ir.at;
  const source = when.source.slice(...ir.at);
  const own = withSpans(ir, ([start, end]) => [start - from, end - from]);
  let gap: WatchedPart['gap'] = null;
  if (ir.op === 'compare' && ir.a.type === 'number') {
    const [a, b] = [compileNumber(ir.a), compileNumber(ir.b)];
    gap = (agent) => Math.abs(a(agent) - b(agent));
  }
  return {
    expression: { source, ir: own },
    holds: false,
    since: 0,
    nearest: null,
    test: compileFlag(ir),
    gap,
  };
}

/** Looks at a part after a tick; how near it comes counts only while it matters. */
export function look(part: WatchedPart, agent: Agent, matters: boolean): void {
  const holds = part.test(agent);
  if (holds !== part.holds || part.since === 0) {
    part.holds = holds;
    part.since = agent.tick;
  }
  if (holds || !part.gap || !matters) return;
  const gap = part.gap(agent);
  if (part.nearest !== null && !(gap < part.nearest.gap)) return;
  if (gap - gap !== 0) return;
  part.nearest = {
    tick: agent.tick,
    text: readText(part.expression, agent, nameTables(agent.program)),
    gap,
  };
}

/** The parts of a guard that must all hold, ready to be watched; what `before` saw of a part that reads the same goes on. */
export function watchGuard(
  guard: CheckedExpression | null,
  before: readonly WatchedPart[] = [],
): WatchedPart[] {
  if (guard === null) return [];
  return conjuncts(guard.ir).map((ir) => {
    const part = watchPart(guard, ir);
    const known = before.find(({ expression }) => expression.source === part.expression.source);
    if (!known) return part;
    const { holds, since, nearest } = known;
    return { ...part, holds, since, nearest };
  });
}

/** @param first the first tick that was looked at: of what has been so since then, it is not known since when */
export function partStatement(
  { expression, holds, since, nearest }: WatchedPart,
  agent: Agent,
  first: number | null,
): Statement {
  return {
    statement: expression.source,
    holds,
    values: readParts(expression, agent, nameTables(agent.program)),
    since: first !== null && since <= first ? null : since,
    nearest: holds || nearest === null ? null : { tick: nearest.tick, text: nearest.text },
    cause: [],
  };
}
