import {
  described,
  either,
  EXPRESSION,
  isObject,
  list,
  NAME,
  named,
  needed,
  NOTE,
  part,
  record,
  TITLE,
  TRUE,
  word,
  type Schema,
  type TypeOf,
} from '../schema/schema.ts';
import { actionSchema } from './action.ts';
import { callArguments, nodeSchema } from './node.ts';

/** What states and minds do while they are active: actions, trees, rules and choices. */

const treeCall = part({ tree: needed(NAME), with: callArguments }, { tag: 'tree' });
export type TreeCallDocument = TypeOf<typeof treeCall>;
const rulesCall = part({ rules: needed(NAME) }, { tag: 'rules' });
export type RulesCallDocument = TypeOf<typeof rulesCall>;
const choiceCall = part({ choice: needed(NAME) }, { tag: 'choice' });
export type ChoiceCallDocument = TypeOf<typeof choiceCall>;

/** One action, or a tree, rules or a choice of this mind. */
export const activitySchema = either([actionSchema, treeCall, rulesCall, choiceCall], (value) => {
  const call = [treeCall, rulesCall, choiceCall].find(
    ({ tag }) => isObject(value) && tag! in value,
  );
  return call ?? actionSchema;
});
export type ActivityDocument = TypeOf<typeof activitySchema>;

export const PARAMETER_TYPES = [
  'number',
  'flag',
  'text',
  'point',
  'agent',
  'thing',
  'route',
] as const;
export type ParameterType = (typeof PARAMETER_TYPES)[number];

export const treeSchema = part({
  title: TITLE,
  note: NOTE,
  parameters: described(
    record(word(PARAMETER_TYPES)),
    'types of what a call of this tree must bring, by name',
  ),
  root: needed(nodeSchema),
});
export interface TreeDocument extends TypeOf<typeof treeSchema> {}

const ruleActions = list(actionSchema, 16);

const ruleRow = named<RuleDocument>('rule', (): Schema => rule);
const rule = part({
  title: TITLE,
  note: NOTE,
  when: needed(EXPRESSION),
  conduct: described(
    TRUE,
    'a rule of conduct: each time it begins to hold, the archetype’s `obedience` is the probability that it is obeyed',
  ),
  edge: described(
    TRUE,
    'fires when the test turns true, and not again until it has been false; left out: each decision while it holds',
  ),
  do: ruleActions,
  rows: described(list(ruleRow, 32), 'rows tested only when this one fires'),
  else: described(ruleActions, 'done when this row does not hold'),
  off: described(TRUE, 'switched off, with all below it: as if it were not there'),
});
export interface RuleDocument extends TypeOf<typeof rule> {}

export const rulesSchema = part({ title: TITLE, note: NOTE, rows: needed(list(ruleRow, 64)) });
export interface RulesDocument extends TypeOf<typeof rulesSchema> {}
