import { actionSpec } from '../actions/actions.ts';
import type { DocumentPath } from '../names/path-text.ts';
import type {
  ActionDocument,
  ActivityDocument,
  ChoiceDocument,
  EachDocument,
  MachineDocument,
  MindDocument,
  Name,
  NodeDocument,
  NumberOrExpression,
  OptionDocument,
  RuleDocument,
  StateDocument,
  TransitionDocument,
} from '../documents.ts';
import { kindOfNode, nodeSpec } from '../documents.ts';
import { withoutUndefined } from '../../terms/without-undefined.ts';

/**
 * One way through everything a mind is made of. Renaming, finding who uses a name, and taking parts from one
 * mind to another all go by it, so that a new part of a mind is met by all of them or by none.
 */

/** What a name in a mind is the name of. */
export type NameKind =
  | 'state'
  | 'key'
  | 'list'
  | 'tree'
  | 'rules'
  | 'choice'
  | 'parameter'
  | 'event'
  | 'gait'
  | 'word'
  | 'mode';

/** Where something is written. */
export interface Where {
  path: DocumentPath;
  /** The tree it is written in; null outside of trees. */
  tree: Name | null;
  /** The action whose parameter it is. */
  action?: ActionDocument;
  /** The tree that is called there, for parameters. */
  called?: Name;
  /** The name an option’s candidate has there; it comes before a key of that name. */
  candidate?: Name;
}

/** Returns what is to stand in place of each expression and name; the same where nothing changes. */
export interface Visitor {
  expression(source: string, where: Where): string;
  /** A name that refers to something. The names under which things are declared are no references. */
  name(kind: NameKind, name: string, where: Where): string;
}

const into = (where: Where, ...steps: DocumentPath): Where => ({
  path: [...where.path, ...steps],
  tree: where.tree,
  ...(where.candidate !== undefined && { candidate: where.candidate }),
});

function eachOf<T>(
  list: readonly T[] | undefined,
  where: Where,
  field: string,
  map: (entry: T, where: Where) => T,
): T[] | undefined {
  return list?.map((entry, i) => map(entry, into(where, field, i)));
}

const EXPRESSIONS: ReadonlySet<string> = new Set([
  'number',
  'place',
  'agent',
  'thing',
  'gate',
  'route',
  'value',
]);
const NAMES: Partial<Record<string, NameKind>> = {
  key: 'key',
  list: 'list',
  event: 'event',
  gait: 'gait',
  word: 'word',
  mode: 'mode',
};

export function mapAction(action: ActionDocument, where: Where, visit: Visitor): ActionDocument {
  const spec = actionSpec(action.do);
  const fields = Object.entries(action).map(([field, value]): [string, unknown] => {
    const kind = spec?.parameters[field]?.kind;
    if (kind === undefined || typeof value !== 'string') return [field, value];
    const here = { ...into(where, field), action };
    const named = NAMES[kind];
    if (named) return [field, visit.name(named, value, here)];
    return [field, EXPRESSIONS.has(kind) ? visit.expression(value, here) : value];
  });
  return Object.fromEntries(fields) as ActionDocument;
}

function mapArguments(
  given: Record<Name, string | number>,
  called: Name,
  where: Where,
  visit: Visitor,
): Record<Name, string | number> {
  return Object.fromEntries(
    Object.entries(given).map(([parameter, value]) => {
      const here = { ...into(where, parameter), called };
      return [
        visit.name('parameter', parameter, here),
        typeof value === 'string' ? visit.expression(value, here) : value,
      ];
    }),
  );
}

function mapCall<T extends object>(call: T, where: Where, visit: Visitor): T {
  if ('tree' in call) {
    const tree = String(call.tree);
    const given = 'with' in call ? (call.with as Record<Name, string | number>) : undefined;
    return {
      ...call,
      tree: visit.name('tree', tree, into(where, 'tree')),
      ...(given && { with: mapArguments(given, tree, into(where, 'with'), visit) }),
    };
  }
  if ('rules' in call)
    return { ...call, rules: visit.name('rules', String(call.rules), into(where, 'rules')) };
  if ('choice' in call)
    return { ...call, choice: visit.name('choice', String(call.choice), into(where, 'choice')) };
  return call;
}

export function mapNode(node: NodeDocument, where: Where, visit: Visitor): NodeDocument {
  const kind = kindOfNode(node);
  const guarded = { ...node } as Record<string, unknown>;
  for (const field of ['when', 'weight'])
    if (typeof guarded[field] === 'string')
      guarded[field] = visit.expression(guarded[field], into(where, field));
  if (kind === 'do')
    return mapAction(guarded as ActionDocument, where, visit) as unknown as NodeDocument;
  for (const [field, { kind: what }] of Object.entries(nodeSpec(kind).fields)) {
    const value = guarded[field];
    const here = into(where, field);
    if (what === 'node') guarded[field] = mapNode(value as NodeDocument, here, visit);
    else if (what === 'nodes')
      guarded[field] = eachOf(value as NodeDocument[], where, field, (child, at) =>
        mapNode(child, at, visit),
      );
    else if ((what === 'expression' || what === 'number') && typeof value === 'string')
      guarded[field] = visit.expression(value, here);
  }
  return mapCall(guarded, where, visit) as unknown as NodeDocument;
}

export function mapRule(rule: RuleDocument, where: Where, visit: Visitor): RuleDocument {
  const actions = (list: ActionDocument[] | undefined, field: string) =>
    eachOf(list, where, field, (action, at) => mapAction(action, at, visit));
  return withoutUndefined({
    ...rule,
    when: visit.expression(rule.when, into(where, 'when')),
    do: actions(rule.do, 'do'),
    rows: eachOf(rule.rows, where, 'rows', (inner, at) => mapRule(inner, at, visit)),
    else: actions(rule.else, 'else'),
  });
}

function mapEach(each: EachDocument, where: Where, visit: Visitor): EachDocument {
  if ('list' in each) return { ...each, list: visit.name('list', each.list, into(where, 'list')) };
  if (!('places' in each) || each.around === undefined) return each;
  return { ...each, around: visit.expression(each.around, into(where, 'around')) };
}

/** A consideration may name one of the choice’s inputs, which says by itself what it reads. */
function mapOption(
  option: OptionDocument,
  inputs: ChoiceDocument['inputs'],
  where: Where,
  visit: Visitor,
): OptionDocument {
  const { when, weight, cost, each } = option;
  const inside: Where = each ? { ...where, candidate: each.as } : where;
  const value = (field: 'weight' | 'cost', said: NumberOrExpression | undefined) =>
    typeof said === 'string' ? visit.expression(said, into(inside, field)) : said;
  return withoutUndefined({
    ...option,
    when: when === undefined ? when : visit.expression(when, into(inside, 'when')),
    weight: value('weight', weight),
    cost: value('cost', cost),
    each: each && mapEach(each, into(where, 'each'), visit),
    considerations: eachOf(option.considerations, inside, 'considerations', (one, at) =>
      Object.hasOwn(inputs ?? {}, one.input)
        ? one
        : { ...one, input: visit.expression(one.input, into(at, 'input')) },
    ),
    does: option.does && mapNode(option.does, into(inside, 'does'), visit),
  });
}

export function mapChoice(choice: ChoiceDocument, where: Where, visit: Visitor): ChoiceDocument {
  const { inputs } = choice;
  return withoutUndefined({
    ...choice,
    inputs: mapRecord(inputs, (input, name) => ({
      ...input,
      value: visit.expression(input.value, into(where, 'inputs', name, 'value')),
    })),
    options: choice.options.map((option, i) =>
      mapOption(option, inputs, into(where, 'options', i), visit),
    ),
  });
}

function mapActivity(activity: ActivityDocument, where: Where, visit: Visitor): ActivityDocument {
  return 'do' in activity
    ? mapAction(activity as ActionDocument, where, visit)
    : mapCall(activity, where, visit);
}

export function mapTransition(
  leave: TransitionDocument,
  where: Where,
  visit: Visitor,
): TransitionDocument {
  const { to, on, when } = leave;
  return withoutUndefined({
    ...leave,
    to: to === undefined ? to : visit.name('state', to, into(where, 'to')),
    on: on === undefined ? on : visit.name('event', on, into(where, 'on')),
    when: when === undefined ? when : visit.expression(when, into(where, 'when')),
    do: eachOf(leave.do, where, 'do', (action, at) => mapAction(action, at, visit)),
  });
}

export function mapState(state: StateDocument, where: Where, visit: Visitor): StateDocument {
  const { initial, activity } = state;
  return withoutUndefined({
    ...state,
    initial: initial === undefined ? initial : visit.name('state', initial, into(where, 'initial')),
    states: eachOf(state.states, where, 'states', (inner, at) => mapState(inner, at, visit)),
    entry: eachOf(state.entry, where, 'entry', (action, at) => mapAction(action, at, visit)),
    activity: activity && mapActivity(activity, into(where, 'activity'), visit),
    exit: eachOf(state.exit, where, 'exit', (action, at) => mapAction(action, at, visit)),
    transitions: eachOf(state.transitions, where, 'transitions', (leave, at) =>
      mapTransition(leave, at, visit),
    ),
  });
}

function mapMachine(machine: MachineDocument, where: Where, visit: Visitor): MachineDocument {
  return {
    ...machine,
    initial: visit.name('state', machine.initial, into(where, 'initial')),
    states: machine.states.map((state, i) => mapState(state, into(where, 'states', i), visit)),
  };
}

function mapRecord<T>(
  record: Record<Name, T> | undefined,
  map: (entry: T, name: Name) => T,
): Record<Name, T> | undefined {
  return (
    record &&
    Object.fromEntries(Object.entries(record).map(([name, entry]) => [name, map(entry, name)]))
  );
}

/** The mind called `name` with every expression and name as the visitor gives them. */
export function mapMind(mind: MindDocument, name: Name, visit: Visitor): MindDocument {
  const here: Where = { path: ['minds', name], tree: null };
  return withoutUndefined({
    ...mind,
    machine: mind.machine && mapMachine(mind.machine, into(here, 'machine'), visit),
    activity: mind.activity && mapActivity(mind.activity, into(here, 'activity'), visit),
    trees: mapRecord(mind.trees, (tree, called) => ({
      ...tree,
      root: mapNode(tree.root, { ...into(here, 'trees', called, 'root'), tree: called }, visit),
    })),
    rules: mapRecord(mind.rules, (rules, called) => ({
      ...rules,
      rows: rules.rows.map((rule, i) =>
        mapRule(rule, into(here, 'rules', called, 'rows', i), visit),
      ),
    })),
    choices: mapRecord(mind.choices, (choice, called) =>
      mapChoice(choice, into(here, 'choices', called), visit),
    ),
  });
}
