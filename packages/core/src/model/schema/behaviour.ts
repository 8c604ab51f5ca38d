import * as yup from 'yup';
import { PARAMETER_TYPES } from '../documents.ts';
import { CHILD_WEIGHT } from '../fields/mind-fields.ts';
import { NODE_KINDS, NODES, type NodeFieldSpec } from '../nodes.ts';
import { suggestion } from '../nearest-name.ts';
import { actionSchema, actionShapes, unknownAction } from './action.ts';
import { choiceSchema } from './choice.ts';
import {
  expression,
  field,
  name,
  note,
  numberOrExpression,
  record,
  recursive,
  shape,
  title,
  type AnySchema,
  type Fields,
} from './shapes.ts';

/** The forms of what minds do: trees, rules, and the activities that call them. */

const list = (of: AnySchema, maximum: number) => yup.array(of as yup.Schema).max(maximum);

const callArguments = record(
  numberOrExpression(yup.number().meta({ about: 'the parameter’s value' }), true),
  true,
);

const node: AnySchema = recursive('node', () => nodeSchema, true);

/** What any node may carry besides what makes it the node it is. */
const common = (): Fields => ({
  title: title(),
  note: note(),
  when: expression(),
  holds: yup.boolean().oneOf([true]),
  preempts: yup.boolean().oneOf([true]),
  weight: numberOrExpression(field(CHILD_WEIGHT)),
  conduct: yup.boolean().oneOf([true]),
  off: yup.boolean().oneOf([true]),
});

function fieldSchema(spec: NodeFieldSpec): AnySchema {
  switch (spec.kind) {
    case 'node':
      return node;
    case 'nodes':
      // A composite without children has the right form; that it does nothing is a finding.
      return list(node, 64).required();
    case 'expression':
      return expression().required();
    case 'number':
      return numberOrExpression(
        yup.number().min(spec.minimum).max(spec.maximum).meta({ about: spec.about }),
        spec.required,
      );
    case 'whole': {
      const whole = yup
        .number()
        .integer()
        .min(spec.minimum)
        .max(spec.maximum)
        .meta({ about: spec.about });
      return spec.required ? whole.required() : whole;
    }
    case 'flag':
      return yup.boolean().oneOf([true]);
    case 'result':
      return yup.string().oneOf(['success', 'failure']);
    case 'name':
      return name().required();
    case 'arguments':
      return callArguments;
  }
}

const actions = actionShapes(common);
const nodes = new Map(
  NODE_KINDS.map((kind) => [
    kind as string,
    shape(
      () => ({
        ...common(),
        ...Object.fromEntries(
          Object.entries(NODES[kind].fields).map(([field, spec]) => [field, fieldSchema(spec)]),
        ),
      }),
      kind,
    ),
  ]),
);

const KEYS: readonly string[] = ['do', ...NODE_KINDS];

/** Stands in for a node that is none, or several at once: it says so. */
function notOneNode(value: unknown): yup.Schema {
  return yup.mixed().test('one-node', (_, context) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return context.createError({ message: 'must be a node: an object' });
    const keys = Object.keys(value);
    const kinds = keys.filter((key) => KEYS.includes(key));
    if (kinds.length > 1)
      return context.createError({
        message: `is several nodes at once (${kinds.join(', ')}): put one inside the other`,
      });
    const [first] = keys.filter(
      (key) => !['title', 'note', 'when', 'weight', 'conduct', 'off'].includes(key),
    );
    return context.createError({
      message: `is no node: it needs one of ${KEYS.join(', ')}.${first === undefined ? '' : suggestion(first, KEYS)}`,
    });
  });
}

/** A node is told by the one field that names its kind. */
const nodeSchema: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed().required();
    const kinds =
      typeof value === 'object' && value !== null
        ? Object.keys(value).filter((key) => KEYS.includes(key))
        : [];
    if (kinds.length !== 1) return notOneNode(value);
    if (kinds[0] !== 'do') return nodes.get(kinds[0])!;
    const action = (value as { do?: unknown }).do;
    return actions.get(String(action)) ?? unknownAction(action);
  })
  .meta({ variants: [...nodes.values(), ...actions.values()], required: true });

const treeCall = shape(() => ({ tree: name().required(), with: callArguments }), 'tree');
const rulesCall = shape(() => ({ rules: name().required() }), 'rules');
const choiceCall = shape(() => ({ choice: name().required() }), 'choice');

/** What a state, or a whole mind, does: an action, a tree, rules or a choice. */
export const activitySchema: AnySchema = yup
  .lazy((value: unknown) => {
    if (typeof value === 'object' && value !== null) {
      if ('tree' in value) return treeCall;
      if ('rules' in value) return rulesCall;
      if ('choice' in value) return choiceCall;
    }
    return actionSchema as yup.Schema;
  })
  .meta({ variants: [actionSchema, treeCall, rulesCall, choiceCall] });

export const treeSchema = shape(() => ({
  title: title(),
  note: note(),
  parameters: record(yup.string().oneOf([...PARAMETER_TYPES]), true),
  root: node,
}));

const rule: AnySchema = recursive('rule', () => ruleShape);
const ruleActions = list(actionSchema, 16);

const ruleShape = shape(() => ({
  title: title(),
  note: note(),
  when: expression().required(),
  conduct: yup.boolean().oneOf([true]),
  edge: yup.boolean().oneOf([true]),
  do: ruleActions,
  rows: list(rule, 32),
  else: ruleActions,
  off: yup.boolean().oneOf([true]),
}));

/** A node that may be left out. */
const nodeOrNone: AnySchema = yup
  .lazy((value: unknown) => (value === undefined ? yup.mixed() : (node as yup.Schema)))
  .meta({ variants: [node] });

export const choiceOfMindSchema = choiceSchema(nodeOrNone);

export const rulesSchema = shape(() => ({
  title: title(),
  note: note(),
  rows: list(rule, 64).required(),
}));
