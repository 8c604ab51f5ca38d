import * as yup from 'yup';
import {
  BAND_FIELDS,
  CHOICE_FIELDS,
  CONSIDERATION_FIELDS,
  CURVE_FIELDS,
  GRADE_FIELDS,
  OPTION_COST,
  OPTION_FIELDS,
  OPTION_WEIGHT,
  PLACES_FIELDS,
  RANGE_FIELDS,
} from '../fields/choice-fields.ts';
import { CURVE_SHAPES } from '../choice-documents.ts';
import { STANCES } from '../documents.ts';
import {
  expression,
  field,
  fieldsOf,
  list,
  name,
  needed,
  note,
  numberOrExpression,
  oneOf,
  record,
  shape,
  title,
  type AnySchema,
} from './shapes.ts';

/** The forms of choices and bands. */

const point = yup
  .tuple([yup.number().required().min(0).max(1), yup.number().required().min(0).max(1)])
  .meta({ pair: yup.number().min(0).max(1), about: 'x and y, both 0 to 1' });

const curves = new Map(
  CURVE_SHAPES.map((kind) => [
    kind as string,
    shape(
      () => ({
        shape: needed(oneOf([kind])),
        ...fieldsOf(CURVE_FIELDS[kind]),
        ...(kind === 'points' ? { points: needed(list(point, 32).min(2)) } : {}),
      }),
      'shape',
    ),
  ]),
);
/** Stands in for a curve of no known shape: it says which there are. */
const anyCurve = shape(() => ({ shape: needed(oneOf(CURVE_SHAPES)) }));

const curve: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed();
    const kind = typeof value === 'object' && value !== null && 'shape' in value && value.shape;
    return curves.get(String(kind)) ?? anyCurve;
  })
  .meta({ variants: [...curves.values()] });

const consideration = shape(() => ({
  title: title(),
  note: note(),
  input: needed(expression()),
  ...fieldsOf(RANGE_FIELDS),
  curve,
  ...fieldsOf(CONSIDERATION_FIELDS),
}));

const grade = shape(() => ({
  when: record(name()),
  ...fieldsOf(GRADE_FIELDS),
  note: note(),
}));

const eachForms = {
  agents: shape(() => ({ as: needed(name()), agents: needed(oneOf(STANCES)) }), 'agents'),
  things: shape(() => ({ as: needed(name()), things: needed(name()) }), 'things'),
  list: shape(() => ({ as: needed(name()), list: needed(name()) }), 'list'),
  places: shape(
    () => ({ as: needed(name()), ...fieldsOf(PLACES_FIELDS), around: expression() }),
    'places',
  ),
};
/** Stands in for what is none of these: it says what there is. */
const noEach = yup.mixed().test('each', (_, context) =>
  context.createError({
    message: `needs one of ${Object.keys(eachForms).join(', ')}, and “as”`,
  }),
);
const each: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed();
    const kinds = Object.entries(eachForms).filter(
      ([kind]) => typeof value === 'object' && value !== null && kind in value,
    );
    return (kinds.length === 1 ? kinds[0][1] : noEach) as yup.Schema;
  })
  .meta({ variants: Object.values(eachForms) });

const option = (node: AnySchema) =>
  shape(() => ({
    id: needed(name()),
    title: title(),
    note: note(),
    when: expression(),
    weight: numberOrExpression(field(OPTION_WEIGHT)),
    cost: numberOrExpression(field(OPTION_COST)),
    ...fieldsOf(OPTION_FIELDS),
    each,
    considerations: list(consideration, 16),
    grades: list(grade, 64),
    does: node,
    off: yup.boolean().oneOf([true]),
  }));

const inputOfChoice = shape(() => ({
  value: needed(expression()),
  ...fieldsOf(RANGE_FIELDS),
  note: note(),
}));

/** `node` is the form of what an option does, which may be left out. */
export const choiceSchema = (node: AnySchema) =>
  shape(() => ({
    title: title(),
    note: note(),
    ...fieldsOf(CHOICE_FIELDS),
    inputs: record(inputOfChoice, true),
    options: needed(list(option(node), 64)),
  }));

const band = shape(() => ({ name: needed(name()), ...fieldsOf(BAND_FIELDS) }));

export const bandSetSchema = shape(() => ({
  title: title(),
  note: note(),
  input: needed(expression()),
  bands: needed(list(band, 16).min(1)),
}));
