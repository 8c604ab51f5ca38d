import {
  HOW_TO_CHECK,
  toJsonSchema,
  yupOf,
  type JsonSchema,
  type Schema,
} from '@crooked-lantern/core';
import fp from 'fastify-plugin';
import swagger from '@fastify/swagger';
import * as yup from 'yup';
import { Problem } from '../problem.ts';

/** What a route takes as parameters or in its query: a statement of the core's, marked as one. */
export const stated = (schema: Schema): { stated: Schema } => ({ stated: schema });

function isStated(value: unknown): value is { stated: Schema } {
  return typeof value === 'object' && value !== null && 'stated' in value;
}

/** The OpenAPI form of a route schema whose parts may be statements. */
function withJsonSchemas(schema: Record<string, unknown>): JsonSchema {
  const converted = Object.entries(schema).map(([part, value]) => [
    part,
    isStated(value) ? toJsonSchema(value.stated) : value,
  ]);
  return Object.fromEntries(converted) as JsonSchema;
}

/** Checks a part of a request; what is wrong comes back as a problem with the path of each fault. */
export function validator(schema: unknown, part: string | undefined) {
  return (data: unknown): { value: unknown } | { error: Problem } => {
    try {
      const value = yupOf((schema as { stated: Schema }).stated).validateSync(data, HOW_TO_CHECK);
      return { value };
    } catch (error) {
      if (!(error instanceof yup.ValidationError)) throw error;
      const faults = error.inner.map(({ path, message }) => ({ path: path ?? '', message }));
      return {
        error: new Problem('malformed-request', `The request’s ${part} has faults.`, { faults }),
      };
    }
  };
}

/** Routes state what they take; Yup checks it, and the OpenAPI document is made from the same statement. */
export const yupSchemas = fp(async (app) => {
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: {
        title: 'Crooked Lantern',
        version: '1',
        description: 'Projects, their edits, and the health of the server.',
      },
    },
    transform: ({ schema, url }) => ({ schema: withJsonSchemas({ ...schema }), url }),
  });
  app.setValidatorCompiler(({ schema, httpPart }) => validator(schema, httpPart));
});
