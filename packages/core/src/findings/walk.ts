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

/** Remembers what is found in a part of a program: many checks ask for the same, and a program never changes. */
function once<Part extends object, T>(find: (part: Part) => T): (part: Part) => T {
  const known = new WeakMap<Part, T>();
  return (part) => {
    let found = known.get(part);
    if (found === undefined) {
      found = find(part);
      known.set(part, found);
    }
    return found;
  };
}

export const allNodes = once((mind: MindProgram): readonly NodeProgram[] => {
  const found: NodeProgram[] = [];
  for (const { activity } of mind.machine.states) if (activity) collectNodes(activity.root, found);
  return found;
});

/** Every action a mind has, wherever it stands. */
export const allActions = once((mind: MindProgram): readonly ActionProgram[] => {
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
  else for (const key in value) expressionsBelow(value[key as keyof typeof value], found);
}

/** Every expression of a mind. */
export const allExpressions = once((mind: MindProgram): readonly CheckedExpression[] => {
  const found: CheckedExpression[] = [];
  expressionsBelow(mind.machine, found);
  return found;
});

/** What the minds of a stack do, by the name of the action: the arguments of each time it is written. */
const argumentsByAction = once(({ minds }: StackProgram) => {
  const byAction = new Map<string, ActionProgram['args'][]>();
  for (const { action, args } of minds.flatMap(allActions)) {
    const others = byAction.get(action);
    if (others) others.push(args);
    else byAction.set(action, [args]);
  }
  return byAction;
});

/** The arguments of an action, wherever a mind of the stack does it. */
export function argumentsOf(stack: StackProgram, action: string): ActionProgram['args'][] {
  return argumentsByAction(stack).get(action) ?? [];
}

/** How the minds of a stack use its keys, by their indices. */
export const keysUsed = once((stack: StackProgram) => ({
  read: new Set(stack.minds.flatMap((mind) => [...keysRead(mind, stack.keys)])),
  written: new Set(
    (['remember', 'add'] as const).flatMap((action) =>
      argumentsOf(stack, action).map(({ key }) => key),
    ),
  ),
}));

/** What a mind asks of memory, in expressions or by weighing an option for each entry of a list: indices of the stack's keys. */
function keysRead(mind: MindProgram, keys: StackProgram['keys']): Set<number> {
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
