import { checkExpression } from '../expression/check.ts';
import { TYPE_NAMES } from '../expression/checker.ts';
import type { Span, ValueType } from '../expression/ir.ts';
import { namesIn } from '../expression/names-in.ts';
import { readAllParts, type PartValue } from '../expression/readout.ts';
import type { ProjectDocument } from '../model/documents.ts';
import type { AgentState } from '../world/state/agent-state.ts';
import { nameTables } from '../world/recording/names.ts';
import { mindScope } from './compile-mind.ts';
import { namesWithin } from './candidate-keys.ts';
import { unbound } from './compile-tree.ts';
import { contextOf } from './context.ts';

const ALL_TYPES = Object.keys(TYPE_NAMES) as ValueType[];

/**
 * What each part of an expression is worth to an agent now, which changes nothing. `document` is the one the
 * agent's program was compiled from; `tree` the tree, or the option, the expression is written in, as {@link namesWithin} reads it. Parts that depend on the
 * tree's parameters are left out, since each call gives them other values. Empty where the expression has
 * an error, or the agent has no such mind.
 */
export function readInMind(
  document: ProjectDocument,
  agent: AgentState,
  mind: string,
  source: string,
  tree?: string,
): PartValue[] {
  const minds = agent.stack?.program.minds.map(({ name }) => name) ?? [];
  if (!minds.includes(mind)) return [];
  const context = contextOf(document, agent.program);
  const parameters = unbound(namesWithin(document.minds[mind], tree));
  const scope = { ...mindScope(mind, context, minds), parameters };
  const result = checkExpression(source, scope, { types: ALL_TYPES });
  if (!result.ok) return [];
  const bound = namesIn(source).filter(({ name }) => parameters.has(name));
  const isKnown = ([from, to]: Span) => !bound.some(({ at }) => at[0] >= from && at[1] <= to);
  return readAllParts(result.expression.ir, agent, nameTables(agent.program), isKnown);
}
