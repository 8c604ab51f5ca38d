import * as yup from 'yup';
import type { FieldSpec } from '../fields/field-spec.ts';
import { NAME_PATTERN } from '../names.ts';
import { metaOf, type AnySchema } from './shapes.ts';

export type JsonSchema = { [key: string]: unknown };

interface Parts {
  [name: string]: JsonSchema;
}

interface Described {
  type: string;
  optional?: boolean;
  oneOf?: unknown[];
  tests: { name?: string; params?: Record<string, unknown> }[];
}

function isRequired(schema: AnySchema): boolean {
  const { record, required } = metaOf(schema);
  if (record) return !record.optional;
  if (required) return true;
  return schema instanceof yup.Schema && !schema.spec.optional;
}

function withTests(
  described: Described,
  into: JsonSchema,
  lower: string,
  upper: string,
): JsonSchema {
  for (const { name, params } of described.tests) {
    if (name === 'min') into[lower] = params?.min;
    if (name === 'max') into[upper] = params?.max;
    if (name === 'integer') into.type = 'integer';
    if (name === 'matches') into.pattern = String((params?.regex as RegExp | undefined)?.source);
  }
  if (described.oneOf && described.oneOf.length > 0) into.enum = described.oneOf;
  return into;
}

function objectSchema(
  fields: Record<string, AnySchema>,
  { tag, oneOf }: yup.CustomSchemaMetadata,
  parts: Parts,
): JsonSchema {
  const required = Object.keys(fields).filter((key) => key === tag || isRequired(fields[key]));
  const properties: JsonSchema = {};
  for (const [key, field] of Object.entries(fields)) properties[key] = convert(field, parts);
  return {
    type: 'object',
    properties,
    ...(required.length > 0 ? { required } : {}),
    patternProperties: { '^x-': {} },
    ...(oneOf ? { oneOf: oneOf.map((field) => ({ required: [field] })) } : {}),
    additionalProperties: false,
  };
}

function convert(schema: AnySchema, parts: Parts): JsonSchema {
  const meta = metaOf(schema);
  if (meta.part) {
    const { name, build } = meta.part;
    if (!(name in parts)) {
      parts[name] = {};
      parts[name] = convert(build(), parts);
    }
    return { $ref: `#/$defs/${name}` };
  }
  if (meta.record) {
    return {
      type: 'object',
      patternProperties: { '^x-': {}, [NAME_PATTERN.source]: convert(meta.record.value, parts) },
      additionalProperties: false,
    };
  }
  if (meta.variants) return { anyOf: meta.variants.map((variant) => convert(variant, parts)) };
  if (meta.shape) return objectSchema(meta.shape(), meta, parts);
  if (meta.pair) {
    const part = convert(meta.pair, parts);
    return {
      type: 'array',
      prefixItems: [part, part],
      items: false,
      minItems: 2,
      description: meta.about,
    };
  }
  const plain = convertPlain(schema, parts);
  if (meta.spec) return { ...plain, ...wordsOf(meta.spec) };
  return meta.about ? { ...plain, description: meta.about } : plain;
}

/** What people read of a field: what it is, its unit, and what holds where it is left out. */
function wordsOf(spec: FieldSpec): JsonSchema {
  const unit = spec.kind === 'number' && spec.unit !== '' ? `, in ${spec.unit}` : '';
  const none = spec.kind === 'number' && spec.none ? `; left out: ${spec.none}` : '';
  const usual = 'usual' in spec && typeof spec.usual !== 'function' ? spec.usual : undefined;
  return {
    description: `${spec.label}: ${spec.about}${unit}${none}`,
    ...(usual === undefined ? {} : { default: usual }),
  };
}

function convertPlain(schema: AnySchema, parts: Parts): JsonSchema {
  const described = (schema as yup.Schema).describe() as unknown as Described;
  switch (described.type) {
    case 'number':
      return withTests(described, { type: 'number' }, 'minimum', 'maximum');
    case 'string':
      return withTests(described, { type: 'string' }, 'minLength', 'maxLength');
    case 'boolean':
      return withTests(described, { type: 'boolean' }, '', '');
    case 'array': {
      const inner = (schema as unknown as { innerType: AnySchema }).innerType;
      return withTests(
        described,
        { type: 'array', items: convert(inner, parts) },
        'minItems',
        'maxItems',
      );
    }
    default:
      throw new TypeError(
        `No JSON Schema form is known for a Yup schema of type ${described.type}.`,
      );
  }
}

/**
 * JSON Schema (draft 2020-12) of a Yup schema built from the forms in `shapes.ts`.
 * Throws a TypeError for a form it does not know, so that nothing is left out unseen.
 */
export function toJsonSchema(schema: AnySchema, head: JsonSchema = {}): JsonSchema {
  const parts: Parts = {};
  const body = convert(schema, parts);
  return { ...head, ...body, ...(Object.keys(parts).length > 0 ? { $defs: parts } : {}) };
}
