import { ACTION_NAMES, ACTIONS, type ActionSpec, type ParameterSpec } from '../actions/actions.ts';
import { suggestion } from '../names/nearest-name.ts';
import { PARTS_CALLED } from '../names/named-parts.ts';
import { WORD_PATTERN } from '../names/names.ts';
import {
  boolean,
  either,
  EVENT,
  EXPRESSION,
  isObject,
  list,
  matching,
  NAME,
  nameOf,
  needed,
  numberOrExpression,
  part,
  plainNumber,
  text,
  word,
  type EitherSchema,
  type Fields,
  type PartSchema,
  type Refusal,
  type Schema,
} from '../schema/schema.ts';

/** What minds do: one action with its own parameters, as the table of actions says. */

export type ActionParameter = string | number;
/** `do` names the action, the other fields are its parameters; `uninterrupted` actions let no decision in between. */
export type ActionDocument = { do: string; uninterrupted?: true } & Record<
  string,
  ActionParameter | boolean
>;

const WORD = matching(WORD_PATTERN, 'must be one word of letters and digits');

function parameterSchema(spec: ParameterSpec): Schema {
  switch (spec.kind) {
    case 'number': {
      const { minimum, maximum, about } = spec;
      return numberOrExpression(plainNumber({ minimum, maximum, about }));
    }
    case 'pattern':
      return word(spec.options!);
    case 'text':
      return text(1, 200);
    case 'word':
      return WORD;
    case 'mode':
      return { ...WORD, names: PARTS_CALLED.mode };
    case 'event':
      return EVENT;
    case 'key':
    case 'list':
      return NAME;
    case 'gait':
    case 'move':
    case 'guard':
    case 'wave':
    case 'score':
    case 'group':
      return nameOf(...PARTS_CALLED[spec.kind]);
    case 'place':
    case 'agent':
    case 'thing':
    case 'gate':
    case 'route':
    case 'value':
      return EXPRESSION;
  }
}

/** The fields of an action, by its name: `do`, its parameters, and whether it may be interrupted. */
function actionFields(action: string, { parameters, lasts }: ActionSpec): Fields {
  const parts = Object.entries(parameters).map(([parameter, spec]) => {
    const schema = parameterSchema(spec);
    return [parameter, spec.required ? needed(schema) : schema];
  });
  return {
    do: needed(word([action])),
    ...Object.fromEntries(parts),
    ...(lasts && { uninterrupted: boolean() }),
  };
}

/** Actions with `more` fields besides their own, told apart by `do`. */
export function actionVariants(more: Fields = {}): {
  variants: readonly PartSchema[];
  pick: (value: unknown) => Schema | Refusal;
} {
  const byName = new Map<unknown, PartSchema>(
    ACTION_NAMES.map((action) => [
      action,
      part({ ...actionFields(action, ACTIONS[action]), ...more }, { tag: 'do' }),
    ]),
  );
  return {
    variants: [...byName.values()],
    pick: (value) => {
      const action = isObject(value) ? value.do : undefined;
      return (
        byName.get(action) ?? {
          refused:
            typeof action === 'string'
              ? `“${action}” is not an action.${suggestion(action, ACTION_NAMES)}`
              : 'must be the name of an action',
          field: 'do',
        }
      );
    },
  };
}

const plain = actionVariants();
export const actionSchema = either(plain.variants, plain.pick) as EitherSchema<ActionDocument>;

/** What is done one after the other at once, such as on entry. */
export const actions = list(actionSchema, 32);
