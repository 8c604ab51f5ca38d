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

function collectNodes(node: NodeProgram, found: NodeProgram[]): void {
  found.push(node);
  for (const child of childrenOf(node)) collectNodes(child, found);
  for (const { actions } of ruleRows(node)) found.push(...actions);
}

/** A node and all below it, the actions of rules among them. */
export function nodesBelow(node: NodeProgram): NodeProgram[] {
  const found: NodeProgram[] = [];
  collectNodes(node, found);
  return found;
}

/** Remembers what is found in a mind: many checks ask for the same, and a program never changes. */
function oncePerMind<T>(find: (mind: MindProgram) => T): (mind: MindProgram) => T {
  const known = new WeakMap<MindProgram, T>();
  return (mind) => {
    let found = known.get(mind);
    if (found === undefined) {
      found = find(mind);
      known.set(mind, found);
    }
    return found;
  };
}

export const allNodes = oncePerMind((mind): readonly NodeProgram[] => {
  const found: NodeProgram[] = [];
  for (const { activity } of mind.machine.states) if (activity) collectNodes(activity.root, found);
  return found;
});

/** Every action a mind has, wherever it stands. */
export const allActions = oncePerMind((mind): readonly ActionProgram[] => {
  const { states, transitions } = mind.machine;
  return [
    ...states.flatMap(({ entry, exit }) => [...entry, ...exit]),
    ...transitions.flatMap(({ actions }) => actions),
    ...allNodes(mind).flatMap(({ body }) => (body.kind === 'do' ? [body.action] : [])),
  ];
});

function expressionsBelow(value: unknown, found: CheckedExpression[]): void {
  if (typeof value !== 'object' || value === null) return;
  if ('ir' in value && 'source' in value) found.push(value as CheckedExpression);
  else for (const inner of Object.values(value)) expressionsBelow(inner, found);
}

/** Every expression of a mind. */
export const allExpressions = oncePerMind((mind): readonly CheckedExpression[] => {
  const found: CheckedExpression[] = [];
  expressionsBelow(mind.machine, found);
  return found;
});

/** What a mind asks of memory, in expressions or by weighing an option for each entry of a list: indices of the stack's keys. */
export function keysRead(mind: MindProgram, keys: StackProgram['keys']): Set<number> {
  const lists = allNodes(mind).flatMap(({ body }) =>
    body.kind === 'choice' ? body.choice.options.flatMap(({ each }) => each?.of ?? []) : [],
  );
  const weighed = lists.flatMap((of) =>
    of.kind === 'list'
      ? [keys.findIndex(({ scope, slot }) => scope === of.scope && slot === of.slot)]
      : [],
  );
  return new Set([...allExpressions(mind).flatMap(({ ir }) => keysIn(ir)), ...weighed]);
}

/** The archetypes that have a stack. */
export function archetypesWith(
  stack: StackProgram,
  { stacks, archetypes }: Program,
): ArchetypeProgram[] {
  const index = stacks.indexOf(stack);
  return archetypes.filter((archetype) => archetype.stack === index);
}
