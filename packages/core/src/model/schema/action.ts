import { EVENT_PATTERN, NAME_PATTERN, WORD_PATTERN } from '../names.ts';
import * as yup from 'yup';
import { ACTION_NAMES, ACTIONS, type ActionSpec, type ParameterSpec } from '../actions.ts';
import { suggestion } from '../nearest-name.ts';
import { expression, numberOrExpression, shape, type AnySchema, type Fields } from './shapes.ts';

const TAKES_A_NAME: ReadonlySet<ParameterSpec['kind']> = new Set([
  'gait',
  'key',
  'list',
  'move',
  'guard',
  'wave',
  'score',
  'group',
]);

function parameterSchema(spec: ParameterSpec): AnySchema {
  if (spec.kind === 'number') {
    let literal = yup.number();
    if (spec.minimum !== undefined) literal = literal.min(spec.minimum);
    if (spec.maximum !== undefined) literal = literal.max(spec.maximum);
    return numberOrExpression(literal.meta({ about: spec.about }), spec.required);
  }
  let schema: yup.StringSchema;
  if (spec.kind === 'pattern') schema = yup.string().oneOf([...spec.options!]);
  else if (spec.kind === 'text') schema = yup.string().min(1).max(200);
  else if (TAKES_A_NAME.has(spec.kind))
    schema = yup.string().matches(NAME_PATTERN, 'must be a name');
  else if (spec.kind === 'word')
    schema = yup.string().matches(WORD_PATTERN, 'must be one word of letters and digits');
  else if (spec.kind === 'event')
    schema = yup.string().matches(EVENT_PATTERN, 'must be an event name');
  else schema = expression();
  return spec.required ? schema.required() : schema;
}

function actionFields(action: string, spec: ActionSpec): Fields {
  const fields: Fields = { do: yup.string().oneOf([action]).required() };
  for (const [parameter, parameterSpec] of Object.entries(spec.parameters)) {
    fields[parameter] = parameterSchema(parameterSpec);
  }
  if (spec.lasts) fields.uninterrupted = yup.boolean();
  return fields;
}

/** Actions with their own parameters and `more` fields besides, by name. */
export function actionShapes(more: () => Fields = () => ({})): ReadonlyMap<string, yup.Schema> {
  return new Map(
    ACTION_NAMES.map((action) => [
      action,
      shape(() => ({ ...actionFields(action, ACTIONS[action]), ...more() }), 'do'),
    ]),
  );
}

/** What stands in for the form of an action whose name is not known: it says so. */
export function unknownAction(action: unknown): yup.Schema {
  return yup.object({
    do: yup
      .string()
      .required()
      .test('known-action', (_, context) =>
        context.createError({
          message: `“${String(action)}” is not an action.${suggestion(String(action), ACTION_NAMES)}`,
        }),
      ),
  });
}

const plainActions = actionShapes();

/** One action with its own parameters, told apart by `do`. */
export const actionSchema: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed();
    const action = (value as { do?: unknown } | null)?.do;
    return plainActions.get(String(action)) ?? unknownAction(action);
  })
  .meta({ variants: [...plainActions.values()] });
