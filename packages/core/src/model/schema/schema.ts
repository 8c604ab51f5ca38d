import type { NamedPart } from '../names/named-parts.ts';
import { EVENT_PATTERN, NAME_ABOUT, NAME_PATTERN, TITLE_LENGTH } from '../names/names.ts';

/**
 * The language that documents are stated in, as plain data. One statement of a part gives its TypeScript
 * type (`TypeOf`), the Yup schema (`yup.ts`), the JSON Schema (`json-schema.ts`), the order of its fields in
 * a file (`file/serialise.ts`), the reference, and the labels, units and bounds of its form.
 */

/** @public declarations of tables name it */
export declare const VALUE: unique symbol;

/** What a value of a document must be. `T`, its type, exists only for the compiler. */
interface Stated<T> {
  readonly [VALUE]?: T;
  /** Left out: the field may be absent. */
  readonly required?: true;
  /** What it is, in words that go on after its name. */
  readonly about?: string;
}

/** The type of the values that a schema takes. */
export type TypeOf<S> = S extends { readonly [VALUE]?: infer T } ? T : never;

/** A number as people set it: with a label, a unit and bounds. */
export interface NumberSpec extends Stated<number> {
  kind: 'number';
  /** What people call it. */
  label: string;
  unit: FieldUnit;
  minimum: number;
  maximum: number;
  whole?: true;
  /** What holds where it is left out; a function where that depends on the rest of the part. */
  usual?: number | ((part: PartValues) => number);
  /** What it means that it is left out, where no number says it. */
  none?: string;
  about: string;
}

export type FieldUnit =
  '' | 'm' | 'm/s' | 'm/s²' | 's' | '°' | '°/s' | 'points' | 'ticks' | '/s' | 'kg';

/** One of a few words. */
export interface ChoiceSpec<Option extends string = string> extends Stated<Option> {
  kind: 'choice';
  label: string;
  options: readonly Option[];
  /** What holds where it is left out. */
  usual?: Option;
  about: string;
}

/** True, or left out. */
export interface FlagSpec extends Stated<true> {
  kind: 'flag';
  label: string;
  about: string;
}

/** A field that people set by itself. */
export type FieldSpec = NumberSpec | ChoiceSpec | FlagSpec;
export type FieldSpecs = Readonly<Record<string, FieldSpec>>;

/** A number without a label: a parameter of an action, a figure of a file. */
export interface PlainNumber extends Stated<number> {
  kind: 'plain number';
  minimum?: number;
  maximum?: number;
  whole?: true;
}

export interface TextSchema extends Stated<string> {
  kind: 'text';
  minimum?: number;
  maximum?: number;
  pattern?: RegExp;
  /** The message for a text that does not match. */
  message?: string;
  /** The parts of the document that it is the name of. */
  names?: readonly NamedPart[];
  /** How it is written, where names of parts stand within it. */
  language?: 'expression' | 'event' | 'path';
}

/** One of a few values, without a label. */
export interface WordSchema<T extends string | number | boolean> extends Stated<T> {
  kind: 'word';
  options: readonly T[];
}

export interface BooleanSchema extends Stated<boolean> {
  kind: 'boolean';
}

/** Two numbers [x, y]. */
export interface PairSchema extends Stated<[number, number]> {
  kind: 'pair';
  of: { minimum: number; maximum: number };
  about: string;
}

/** @public declarations of tables name it */
export interface ListSchema<T> extends Stated<T[]> {
  kind: 'list';
  of: Schema;
  minimum?: number;
  maximum: number;
}

/** Names as keys, all values of one schema. */
export interface RecordSchema<T> extends Stated<Record<string, T>> {
  kind: 'record';
  of: Schema;
  /** The parts of the document that its keys are names of. */
  names?: readonly NamedPart[];
}

export type Fields = Readonly<Record<string, Schema>>;

/** An object with exactly these fields, in this order in a file, and any field whose name begins with `x-`. */
export interface PartSchema<T = unknown> extends Stated<T> {
  kind: 'part';
  fields: Fields;
  /** The field that tells this part from its sisters. */
  tag?: string;
  /** Fields of which exactly one must be there. */
  oneOf?: readonly string[];
  /** What is wrong with a part whose fields are right one by one; undefined for nothing. */
  fault?: (part: PartValues) => string | undefined;
}

/** One of several schemas, decided by the value. */
export interface EitherSchema<T> extends Stated<T> {
  kind: 'either';
  variants: readonly Schema[];
  pick: (value: unknown) => Schema | Refusal;
}

/** The message for a value that fits no variant, and the field it is about. */
export interface Refusal {
  refused: string;
  field?: string;
}

/** A part that may hold itself; `name` is what the JSON Schema calls it. */
export interface NamedSchema<T> extends Stated<T> {
  kind: 'named';
  name: string;
  schema: () => Schema;
}

export type Schema =
  | NumberSpec
  | ChoiceSpec
  | FlagSpec
  | PlainNumber
  | TextSchema
  | WordSchema<string | number | boolean>
  | BooleanSchema
  | PairSchema
  | ListSchema<unknown>
  | RecordSchema<unknown>
  | PartSchema
  | EitherSchema<unknown>
  | NamedSchema<unknown>;

type Required<S> = S & { readonly required: true };
type Simple<T> = { [K in keyof T]: T[K] };
type RequiredOf<F> = { [K in keyof F]: F[K] extends { required: true } ? K : never }[keyof F];

/** The type of an object with these fields. */
export type TypeOfFields<F> = Simple<
  { [K in keyof F as K extends RequiredOf<F> ? K : never]: TypeOf<F[K]> } & {
    [K in keyof F as K extends RequiredOf<F> ? never : K]?: TypeOf<F[K]>;
  }
>;

/** The same schema; the value must be there. */
export const needed = <const S extends Schema>(schema: S): Required<S> => ({
  ...schema,
  required: true,
});

/** The fields of a part that is being written, any of which may be missing. */
export type PartValues = Readonly<Record<string, unknown>>;

/** The same schema, with words on what it is. */
export const described = <const S extends Schema>(schema: S, about: string): S => ({
  ...schema,
  about,
});

type UsualOfNumber = Pick<NumberSpec, 'usual' | 'none' | 'whole'>;

/** A number; `usual` or `none` says what holds where it is left out. */
export function number<const More extends UsualOfNumber = object>(
  label: string,
  unit: FieldUnit,
  [minimum, maximum]: readonly [number, number],
  about: string,
  more?: More,
): NumberSpec & More {
  return { kind: 'number', label, unit, minimum, maximum, about, ...more! };
}

/** One of `options`; `usual` holds where it is left out. */
export function choice<const Option extends string, const More extends { usual?: Option } = object>(
  label: string,
  options: readonly Option[],
  about: string,
  more?: More,
): ChoiceSpec<Option> & More {
  return { kind: 'choice', label, options, about, ...more! };
}

export const plainNumber = (more: Omit<PlainNumber, 'kind'> = {}): PlainNumber => ({
  kind: 'plain number',
  ...more,
});
export const flag = (label: string, about: string): FlagSpec => ({ kind: 'flag', label, about });
export const word = <const T extends string | number | boolean>(
  options: readonly T[],
): WordSchema<T> => ({
  kind: 'word',
  options,
});
export const boolean = (): BooleanSchema => ({ kind: 'boolean' });
export const text = (minimum?: number, maximum?: number): TextSchema => ({
  kind: 'text',
  minimum,
  maximum,
});
export const matching = (pattern: RegExp, message: string): TextSchema => ({
  kind: 'text',
  pattern,
  message,
});
export const pair = (of: PairSchema['of'], about: string): PairSchema => ({
  kind: 'pair',
  of,
  about,
});

export function list<S extends Schema>(of: S, maximum: number, minimum?: number) {
  return { kind: 'list', of, maximum, minimum } as ListSchema<TypeOf<S>>;
}

export function record<S extends Schema>(of: S, ...names: NamedPart[]) {
  return { kind: 'record', of, ...(names.length > 0 && { names }) } as RecordSchema<TypeOf<S>>;
}

export function part<F extends Fields>(
  fields: F,
  more?: Pick<PartSchema, 'tag' | 'oneOf' | 'fault'>,
): PartSchema<TypeOfFields<F>> {
  return { kind: 'part', fields, ...more };
}

export function either<S extends Schema>(
  variants: readonly S[],
  pick: (value: unknown) => Schema | Refusal,
) {
  return { kind: 'either', variants, pick } as EitherSchema<TypeOf<S>>;
}

/** The part whose tag is there; a value with no tag, or several, gets the message `refused`. */
export function tagged<S extends PartSchema>(variants: readonly S[], refused: string) {
  return either(variants, (value) => {
    const fitting = variants.filter(({ tag }) => isObject(value) && tag! in value);
    return fitting.length === 1 ? fitting[0] : { refused };
  });
}

export function named<T>(name: string, schema: () => Schema): NamedSchema<T> {
  return { kind: 'named', name, schema };
}

/** The same fields, all optional. */
export function partly<T>({ fields }: PartSchema<T>): PartSchema<Partial<T>> {
  return {
    kind: 'part',
    fields: Object.fromEntries(
      Object.entries(fields).map(([field, schema]) => [field, { ...schema, required: undefined }]),
    ),
  };
}

/** A short id that people can say: a letter, then letters and digits. */
export const NAME = matching(NAME_PATTERN, `must be a name: ${NAME_ABOUT}`);
/** The name of a part of the document, of one of these kinds. */
export const nameOf = (...names: readonly NamedPart[]): TextSchema => ({ ...NAME, names });
export const TITLE = text(1, TITLE_LENGTH);
export const NOTE = text(undefined, 4000);
/** Source of an expression, see the expression reference. */
export const EXPRESSION: TextSchema = { ...text(1, 2000), language: 'expression' };
/** True, or left out. */
export const TRUE = word([true]);
export const EVENT: TextSchema = {
  ...matching(EVENT_PATTERN, 'must be an event name such as done or sight.certain'),
  language: 'event',
};

/** A number in the bounds of `literal`, or an expression for one. */
export const numberOrExpression = (literal: NumberSpec | PlainNumber) =>
  either([literal, EXPRESSION], (value) => (typeof value === 'string' ? EXPRESSION : literal));

export function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Of the fields of a part those that people set one by one, in the order of the file. */
export function specsOf({ fields }: { fields: Fields }): FieldSpecs {
  const isSpec = (entry: [string, Schema]): entry is [string, FieldSpec] =>
    entry[1].kind === 'number' || entry[1].kind === 'choice' || entry[1].kind === 'flag';
  return Object.fromEntries(Object.entries(fields).filter(isSpec));
}

/** What a number is where its part leaves it out; NaN where nothing is said. */
export function usualNumber(spec: NumberSpec, inPart: object = {}): number {
  const { usual } = spec;
  return (typeof usual === 'function' ? usual(inPart as PartValues) : usual) ?? NaN;
}

/** The number of a field: the explicit value, or its default. */
export function numberOf(inPart: object, field: string, spec: NumberSpec): number {
  const said = (inPart as PartValues)[field];
  return typeof said === 'number' ? said : usualNumber(spec, inPart);
}
