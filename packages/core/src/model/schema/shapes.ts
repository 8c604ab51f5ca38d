import * as yup from 'yup';
import type { FieldSpec, FieldSpecs, NumberSpec } from '../fields/field-spec.ts';
import { PLACE } from '../fields/ground-fields.ts';
import { NAME_ABOUT, NAME_PATTERN } from '../names.ts';
import { suggestion } from '../nearest-name.ts';

/**
 * The few forms every part of the document is made of, on top of Yup: objects that refuse unknown
 * fields, records with names as keys, and recursive parts. Each carries in its `meta` what the JSON
 * Schema is made from, so that the two cannot drift apart.
 */

export type AnySchema = yup.ISchema<unknown>;
export type Fields = Record<string, AnySchema>;

declare module 'yup' {
  interface CustomSchemaMetadata {
    record?: { value: AnySchema; optional: boolean };
    part?: { name: string; build: () => AnySchema };
    pair?: AnySchema;
    shape?: () => Fields;
    /** The field that tells this form from its sisters. */
    tag?: string;
    /** Fields of which exactly one must be there. */
    oneOf?: string[];
    variants?: AnySchema[];
    /** For forms that are decided by the value; a plain Yup schema says it itself. */
    required?: boolean;
    about?: string;
    /** What a number, choice or flag is made from. */
    spec?: FieldSpec;
  }
}

yup.setLocale({
  mixed: {
    default: 'is not valid',
    required: 'is missing',
    defined: 'is missing',
    notNull: 'must not be null',
    oneOf: 'must be one of: ${values}',
    notType: ({ type, value }) => `must be ${ARTICLES[type] ?? type}, not ${describeValue(value)}`,
  },
  string: {
    min: 'must not be shorter than ${min} character',
    max: 'must not be longer than ${max} characters',
  },
  number: {
    min: 'must be at least ${min}, not ${value}',
    max: 'must be at most ${max}, not ${value}',
    integer: 'must be a whole number, not ${value}',
  },
  tuple: { notType: ({ value }) => `must be two numbers [x, y], not ${describeValue(value)}` },
  array: { min: 'must have at least ${min} entry', max: 'must not have more than ${max} entries' },
});

const ARTICLES: Record<string, string> = {
  string: 'text',
  number: 'a number',
  boolean: 'true or false',
  object: 'an object',
  array: 'a list',
  tuple: 'two numbers [x, y]',
};

function describeValue(value: unknown): string {
  if (value === null || value === undefined) return 'empty';
  const text = JSON.stringify(value) ?? String(value);
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
}

function isPlainObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** What every shape begins with: each step of a schema copies it, and there are two hundred shapes. */
const OBJECT = yup.object().default(undefined);

/**
 * An object with exactly these fields, and any field whose name begins with `x-`. Among several
 * variants, the one whose field `tag` is there is meant.
 *
 * Yup's own way through an object takes as long for a field that is absent as for one that is
 * there, and most fields of most parts are absent: only those that are there or must be are read.
 * Documents are never changed, only replaced, and share what an edit has left alone: a part that was
 * found to have the form is not read again.
 * The fields are built when they are first asked for: building those of a whole project takes longer than a
 * page may take to open.
 */
export function shape(build: () => Fields, tag?: string): yup.Schema {
  let built: Fields | undefined;
  const shapeFields = () => (built ??= build());
  let mustBeThere: string[] | undefined;
  const sound = new WeakSet<object>();
  return OBJECT.meta({ shape: shapeFields, tag }).test('fields', (value, context) => {
    if (!isPlainObject(value) || sound.has(value)) return true;
    const entries = value;
    const fields = shapeFields();
    mustBeThere ??= Object.keys(fields).filter((key) => !mayBeAbsent(fields[key]!));
    const missing = mustBeThere.filter((key) => entries[key] === undefined);
    const errors: yup.ValidationError[] = [];
    for (const key of [...missing, ...Object.keys(entries)]) {
      const path = () => joinPath(context.path, key);
      if (Object.hasOwn(fields, key)) {
        errors.push(...errorsOf(fields[key]!, entries[key], path()));
      } else if (!key.startsWith('x-')) {
        const message = `is not a field this version knows.${suggestion(key, Object.keys(fields))}`;
        errors.push(context.createError({ path: path(), message }));
      }
    }
    if (errors.length > 0) return new yup.ValidationError(errors);
    sound.add(value);
    return true;
  }) as unknown as yup.Schema;
}

function mayBeAbsent(schema: AnySchema): boolean {
  return errorsOf(schema, undefined, '').length === 0;
}

/**
 * How a document is held against a form: as it is, to the last fault. Of a fault its place in the document counts, and
 * not the one in the code, which takes most of the time a fault takes; and a fault is also how a form says no.
 */
export const HOW_TO_CHECK = { strict: true, abortEarly: false, disableStackTrace: true } as const;

/** By form, the lists, records and parts found to have it. */
const soundUnder = new WeakMap<AnySchema, WeakSet<object>>();

function errorsOf(schema: AnySchema, value: unknown, path: string): yup.ValidationError[] {
  const part = typeof value === 'object' ? value : null;
  let sound = soundUnder.get(schema);
  if (part && sound?.has(part)) return [];
  // `value` is what a form that is decided by the value, inside another such form, asks for.
  const options = { ...HOW_TO_CHECK, path, value };
  try {
    (schema as yup.Schema).validateSync(value, options as yup.ValidateOptions);
    if (part) {
      if (!sound) soundUnder.set(schema, (sound = new WeakSet()));
      sound.add(part);
    }
    return [];
  } catch (error) {
    if (error instanceof yup.ValidationError) return [error];
    throw error;
  }
}

/** Names as keys, all values of one form. Must be there unless `optional`. */
export function record(value: AnySchema, optional = false): AnySchema {
  return yup
    .lazy((entries: unknown) => {
      if (!isPlainObject(entries)) {
        return optional && entries === undefined ? yup.mixed() : yup.object().required();
      }
      const names = Object.keys(entries).filter((key) => !key.startsWith('x-'));
      return yup
        .object(Object.fromEntries(names.map((name) => [name, value as yup.Schema])))
        .test('names', (_, context) => {
          const errors = names
            .filter((name) => !NAME_PATTERN.test(name))
            .map((name) =>
              context.createError({
                path: joinPath(context.path, name),
                message: `is not a usable name: it takes ${NAME_ABOUT}`,
              }),
            );
          return errors.length === 0 || new yup.ValidationError(errors);
        });
    })
    .meta({ record: { value, optional } });
}

/** A part that may hold itself; `name` is what the JSON Schema calls it. */
export function recursive(name: string, build: () => AnySchema, required = false): AnySchema {
  return yup.lazy(() => build() as yup.Schema).meta({ part: { name, build }, required });
}

/** [x, y], both in the bounds of `spec`. */
export function pair(spec: NumberSpec, what: string): yup.Schema {
  const part = yup.number().required().min(spec.minimum).max(spec.maximum);
  return yup.tuple([part, part]).meta({ pair: part, about: what });
}

/** The form of a field as its spec says. */
export function field(spec: FieldSpec): yup.Schema {
  const schema = plainField(spec).meta({ spec });
  return spec.kind !== 'flag' && spec.required ? schema.required() : schema;
}

function plainField(spec: FieldSpec): yup.Schema {
  switch (spec.kind) {
    case 'number': {
      const number = yup.number().min(spec.minimum).max(spec.maximum);
      return spec.whole ? number.integer() : number;
    }
    case 'choice':
      return oneOf(spec.options);
    case 'flag':
      return yup.boolean().oneOf([true]);
  }
}

/** The same for all fields of a table. */
export function fieldsOf(specs: FieldSpecs): Fields {
  return Object.fromEntries(Object.entries(specs).map(([name, spec]) => [name, field(spec)]));
}

export const oneOf = (values: readonly string[]) => yup.string().oneOf([...values]);
export const list = (of: AnySchema, maximum: number) => yup.array(of as yup.Schema).max(maximum);
export const needed = (schema: AnySchema) => (schema as yup.Schema).required();
export const place = () => pair(PLACE, 'a place, in metres');
export const name = () => yup.string().matches(NAME_PATTERN, `must be a name: ${NAME_ABOUT}`);
export const title = () => yup.string().min(1).max(80);
export const note = () => yup.string().max(4000);
export const expression = () => yup.string().min(1).max(2000);

/** A number in the bounds of `literal`, or an expression for one. */
export function numberOrExpression(literal: yup.Schema, required = false): AnySchema {
  return yup
    .lazy((value: unknown) =>
      typeof value === 'string' ? expression() : required ? literal.required() : literal,
    )
    .meta({ variants: [literal, expression()], required });
}

/** What a form says of itself; empty for a plain Yup schema. */
export function metaOf(schema: AnySchema | undefined): yup.CustomSchemaMetadata {
  return (schema as { spec?: { meta?: yup.CustomSchemaMetadata } } | undefined)?.spec?.meta ?? {};
}

/** A path such as `minds.warden.machine.states[0]` with one more key. */
function joinPath(path: string | undefined, key: string): string {
  const step = /^[A-Za-z_][\w-]*$/.test(key) ? key : `["${key}"]`;
  if (!path) return step;
  return step.startsWith('[') ? path + step : `${path}.${step}`;
}
