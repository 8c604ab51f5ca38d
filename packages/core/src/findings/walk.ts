import { keysIn, type CheckedExpression } from '../expression/ir.ts';
import { childrenOf } from '../mind/nodes/index.ts';
import type {
  ActionProgram,
  MindProgram,
  NodeProgram,
  RuleProgram,
  StackProgram,
} from '../mind/program.ts';
import type { ArchetypeProgram, Program } from '../world/program/program.ts';

/** Ways through all parts of a mind, for checks that ask what it contains. */

function rulesOf(rule: RuleProgram): RuleProgram[] {
  return [rule, ...rule.rows.flatMap(rulesOf), ...(rule.otherwise ? rulesOf(rule.otherwise) : [])];
}

/** The rows of rules that are part of a node itself. */
export function ruleRows({ body }: NodeProgram): RuleProgram[] {
  return body.kind === 'rules' ? body.rows.flatMap(rulesOf) : [];
}

/** A node and all below it, the actions of rules among them. */
export function nodesBelow(node: NodeProgram): NodeProgram[] {
  return [
    node,
    ...childrenOf(node).flatMap(nodesBelow),
    ...ruleRows(node).flatMap(({ actions }) => actions),
  ];
}

export function allNodes(mind: MindProgram): NodeProgram[] {
  return mind.machine.states.flatMap(({ activity }) => (activity ? nodesBelow(activity.root) : []));
}

/** Every action a mind has, wherever it stands. */
export function allActions(mind: MindProgram): ActionProgram[] {
  const { states, transitions } = mind.machine;
  return [
    ...states.flatMap(({ entry, exit }) => [...entry, ...exit]),
    ...transitions.flatMap(({ actions }) => actions),
    ...allNodes(mind).flatMap(({ body }) => (body.kind === 'do' ? [body.action] : [])),
  ];
}

function expressionsBelow(value: unknown, found: CheckedExpression[]): void {
  if (typeof value !== 'object' || value === null) return;
  if ('ir' in value && 'source' in value) found.push(value as CheckedExpression);
  else for (const inner of Object.values(value)) expressionsBelow(inner, found);
}

/** Every expression of a mind. */
export function allExpressions(mind: MindProgram): CheckedExpression[] {
  const found: CheckedExpression[] = [];
  expressionsBelow(mind.machine, found);
  return found;
}

/** What a mind's expressions ask of memory: indices of the stack's keys. */
export function keysRead(mind: MindProgram): Set<number> {
  return new Set(allExpressions(mind).flatMap(({ ir }) => keysIn(ir)));
}

/** The archetypes that have a stack. */
export function archetypesWith(
  stack: StackProgram,
  { stacks, archetypes }: Program,
): ArchetypeProgram[] {
  const index = stacks.indexOf(stack);
  return archetypes.filter((archetype) => archetype.stack === index);
}
