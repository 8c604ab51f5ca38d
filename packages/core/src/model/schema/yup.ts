import * as yup from 'yup';
import { isForeign, NAME_ABOUT, NAME_PATTERN } from '../names/names.ts';
import { suggestion } from '../names/nearest-name.ts';
import { isObject, type PartSchema, type RecordSchema, type Schema } from './schema.ts';

/** The Yup schema of a schema: what holds a document against its statement. */

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

/**
 * How a document is held against a schema: as it is, to the last fault. Of a fault its place in the document counts, and
 * not the one in the code, which takes most of the time a fault takes; and a fault is also how a schema says no.
 */
export const HOW_TO_CHECK = { strict: true, abortEarly: false, disableStackTrace: true } as const;

/**
 * Yup schemas made so far. They are made when a value first needs them: making those of a whole project
 * takes longer than a page may take to open.
 */
const made = new WeakMap<Schema, yup.Schema>();

export function yupOf(schema: Schema): yup.Schema {
  const before = made.get(schema);
  if (before) return before;
  const built = schema.required ? make(schema).required() : make(schema);
  made.set(schema, built);
  return built;
}

function make(schema: Schema): yup.Schema {
  switch (schema.kind) {
    case 'number':
    case 'plain number':
      return bounded(schema);
    case 'choice':
      return yup.string().oneOf([...schema.options]);
    case 'word':
      return WORDS[typeof schema.options[0] as keyof typeof WORDS]().oneOf([...schema.options]);
    case 'flag':
      return yup.boolean().oneOf([true]);
    case 'boolean':
      return yup.boolean();
    case 'text': {
      const { minimum, maximum, pattern, message } = schema;
      let text = yup.string();
      if (minimum !== undefined) text = text.min(minimum);
      if (maximum !== undefined) text = text.max(maximum);
      return pattern ? text.matches(pattern, message) : text;
    }
    case 'pair': {
      const part = bounded(schema.of).required();
      return yup.tuple([part, part]);
    }
    case 'list': {
      const list = yup.array(yupOf(schema.of)).max(schema.maximum);
      return schema.minimum === undefined ? list : list.min(schema.minimum);
    }
    case 'record':
      return OBJECT.test('entries', entriesOf(schema));
    case 'part':
      return OBJECT.test('fields', fieldsOf(schema));
    case 'either':
      return yup.mixed().test('variant', (value, context) => {
        if (value === undefined) return true;
        const picked = schema.pick(value);
        if (!('refused' in picked)) return asResult(errorsOf(picked, value, context.path));
        const path = picked.field ? joinPath(context.path, picked.field) : context.path;
        return context.createError({ path, message: picked.refused });
      });
    case 'named':
      return yup
        .mixed()
        .test('part', (value, context) =>
          asResult(value === undefined ? [] : errorsOf(schema.schema(), value, context.path)),
        );
  }
}

/** What every object begins with: each step of a Yup schema copies it, and there are two hundred objects. */
const OBJECT = yup.object().default(undefined) as unknown as yup.Schema;

const asResult = (errors: yup.ValidationError[]) =>
  errors.length === 0 || new yup.ValidationError(errors);

/** By schema, the objects and lists found to fit it: documents are never changed, only replaced, and share what an edit has left alone. */
const soundUnder = new WeakMap<Schema, WeakSet<object>>();

function soundFor(schema: Schema): WeakSet<object> {
  let sound = soundUnder.get(schema);
  if (!sound) soundUnder.set(schema, (sound = new WeakSet()));
  return sound;
}

function errorsOf(schema: Schema, value: unknown, path: string): yup.ValidationError[] {
  const object = typeof value === 'object' ? value : null;
  const sound = soundFor(schema);
  if (object && sound.has(object)) return [];
  try {
    yupOf(schema).validateSync(value, { ...HOW_TO_CHECK, path } as yup.ValidateOptions);
    if (object) sound.add(object);
    return [];
  } catch (error) {
    if (error instanceof yup.ValidationError) return [error];
    throw error;
  }
}

/**
 * Holds an object against the fields of a part. Yup's own way through an object takes as long for a field that
 * is absent as for one that is there, and most fields of most parts are absent: only those that are there or
 * must be are read.
 */
function fieldsOf(schema: PartSchema): yup.TestFunction {
  const { fields, fault } = schema;
  const mustBeThere = Object.keys(fields).filter((key) => fields[key].required);
  const sound = soundFor(schema);
  return (value, context) => {
    if (!isObject(value) || sound.has(value)) return true;
    const missing = mustBeThere.filter((key) => value[key] === undefined);
    const errors: yup.ValidationError[] = [];
    for (const key of [...missing, ...Object.keys(value)]) {
      const path = () => joinPath(context.path, key);
      if (Object.hasOwn(fields, key)) errors.push(...errorsOf(fields[key], value[key], path()));
      else if (!isForeign(key)) {
        const message = `is not a field this version knows.${suggestion(key, Object.keys(fields))}`;
        errors.push(context.createError({ path: path(), message }));
      }
    }
    const message = fault?.(value);
    if (message !== undefined) errors.push(context.createError({ message }));
    if (errors.length === 0) sound.add(value);
    return asResult(errors);
  };
}

function entriesOf({ of }: RecordSchema<unknown>): yup.TestFunction {
  return (value, context) => {
    if (!isObject(value)) return true;
    const message = `is not a usable name: it takes ${NAME_ABOUT}`;
    const errors: yup.ValidationError[] = [];
    for (const [key, entry] of Object.entries(value)) {
      if (isForeign(key)) continue;
      const path = joinPath(context.path, key);
      if (!NAME_PATTERN.test(key)) errors.push(context.createError({ path, message }));
      errors.push(...errorsOf(of, entry, path));
    }
    return asResult(errors);
  };
}

/** A path such as `minds.warden.machine.states[0]` with one more key. */
function joinPath(path: string | undefined, key: string): string {
  const step = /^[A-Za-z_][\w-]*$/.test(key) ? key : `["${key}"]`;
  if (!path) return step;
  return step.startsWith('[') ? path + step : `${path}.${step}`;
}

const WORDS = {
  string: () => yup.string() as yup.Schema,
  number: () => yup.number() as yup.Schema,
  boolean: () => yup.boolean() as yup.Schema,
};

function bounded(schema: { minimum?: number; maximum?: number; whole?: true }) {
  let number = yup.number();
  if (schema.minimum !== undefined) number = number.min(schema.minimum);
  if (schema.maximum !== undefined) number = number.max(schema.maximum);
  return schema.whole ? number.integer() : number;
}
