import { NAME_PATTERN } from '../names/names.ts';
import { withoutUndefined } from '../../terms/without-undefined.ts';
import type { NumberSpec, PartSchema, Schema } from './schema.ts';

export type JsonSchema = { [key: string]: unknown };

/** The named parts met so far, by name. */
type Parts = Record<string, JsonSchema>;

function objectOf({ fields, tag, oneOf }: PartSchema, parts: Parts): JsonSchema {
  const required = Object.keys(fields).filter((key) => key === tag || fields[key].required);
  return {
    type: 'object',
    properties: Object.fromEntries(
      Object.entries(fields).map(([key, field]) => [key, convert(field, parts)]),
    ),
    required: required.length > 0 ? required : undefined,
    patternProperties: { '^x-': {} },
    // Strict readers want each field that a branch speaks of to be named in it.
    oneOf: oneOf?.map((field) => ({ properties: { [field]: true }, required: [field] })),
    additionalProperties: false,
  };
}

/** A schema, with what people read of it: what it is, its unit, and what holds where it is left out. */
function convert(schema: Schema, parts: Parts): JsonSchema {
  const { about } = schema;
  const { label, unit, none, usual } = schema as Partial<
    Pick<NumberSpec, 'label' | 'unit' | 'none' | 'usual'>
  >;
  const head = label === undefined ? '' : `${label}: `;
  const tail = `${unit ? `, in ${unit}` : ''}${none === undefined ? '' : `; left out: ${none}`}`;
  return withoutUndefined({
    ...typeOf(schema, parts),
    description: about === undefined ? undefined : `${head}${about}${tail}`,
    default: typeof usual === 'function' ? undefined : usual,
  });
}

function typeOf(schema: Schema, parts: Parts): JsonSchema {
  switch (schema.kind) {
    case 'number':
    case 'plain number':
      return bounded(schema);
    case 'choice':
    case 'word':
      return { type: typeof schema.options[0], enum: schema.options };
    case 'flag':
      return { type: 'boolean', enum: [true] };
    case 'boolean':
      return { type: 'boolean' };
    case 'text': {
      const { minimum, maximum, pattern } = schema;
      return { type: 'string', minLength: minimum, maxLength: maximum, pattern: pattern?.source };
    }
    case 'pair': {
      const part = bounded(schema.of);
      return { type: 'array', prefixItems: [part, part], items: false, minItems: 2 };
    }
    case 'list': {
      const { of, minimum, maximum } = schema;
      return { type: 'array', items: convert(of, parts), minItems: minimum, maxItems: maximum };
    }
    case 'record':
      return {
        type: 'object',
        patternProperties: { '^x-': {}, [NAME_PATTERN.source]: convert(schema.of, parts) },
        additionalProperties: false,
      };
    case 'part':
      return objectOf(schema, parts);
    case 'either':
      return { anyOf: schema.variants.map((variant) => convert(variant, parts)) };
    case 'named': {
      const { name } = schema;
      if (!(name in parts)) {
        parts[name] = {};
        parts[name] = convert(schema.schema(), parts);
      }
      return { $ref: `#/$defs/${name}` };
    }
  }
}

const bounded = (schema: { minimum?: number; maximum?: number; whole?: true }): JsonSchema =>
  withoutUndefined({
    type: schema.whole ? 'integer' : 'number',
    minimum: schema.minimum,
    maximum: schema.maximum,
  });

/** JSON Schema (draft 2020-12) of a schema, with `head` before it. */
export function toJsonSchema(schema: Schema, head: JsonSchema = {}): JsonSchema {
  const parts: Parts = {};
  const body = convert(schema, parts);
  return { ...head, ...body, ...(Object.keys(parts).length > 0 ? { $defs: parts } : {}) };
}
