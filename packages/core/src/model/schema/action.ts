import * as yup from 'yup';
import { ACTION_NAMES, ACTIONS, type ActionSpec, type ParameterSpec } from '../actions.ts';
import { suggestion } from '../nearest-name.ts';
import { expression, NAME_PATTERN, shape, type AnySchema, type Fields } from './shapes.ts';

function parameterSchema(spec: ParameterSpec): AnySchema {
  let schema: yup.Schema;
  if (spec.kind === 'number') {
    let literal = yup.number();
    if (spec.minimum !== undefined) literal = literal.min(spec.minimum);
    if (spec.maximum !== undefined) literal = literal.max(spec.maximum);
    const variants = [literal, expression()];
    schema = yup
      .lazy((value: unknown) =>
        typeof value === 'string' ? expression() : spec.required ? literal.required() : literal,
      )
      .meta({ variants, required: spec.required }) as unknown as yup.Schema;
    return schema;
  }
  if (spec.kind === 'text') schema = yup.string().min(1).max(200);
  else if (spec.kind === 'gait' || spec.kind === 'key')
    schema = yup.string().matches(NAME_PATTERN, 'must be a name');
  else if (spec.kind === 'event')
    schema = yup.string().matches(/^[A-Za-z]\w*(\.[A-Za-z]\w*)*$/, 'must be an event name');
  else schema = expression();
  return spec.required ? schema.required() : schema;
}

function actionShape(action: string, spec: ActionSpec): yup.Schema {
  const fields: Fields = { do: yup.string().oneOf([action]).required() };
  for (const [parameter, parameterSpec] of Object.entries(spec.parameters)) {
    fields[parameter] = parameterSchema(parameterSpec);
  }
  return shape(fields);
}

const shapes = new Map(
  ACTION_NAMES.map((action) => [action as string, actionShape(action, ACTIONS[action])]),
);

/** One action with its own parameters, told apart by `do`. */
export const actionSchema: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed();
    const action = (value as { do?: unknown } | null)?.do;
    const known = typeof action === 'string' ? shapes.get(action) : undefined;
    if (known) return known;
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
  })
  .meta({ variants: [...shapes.values()] });
