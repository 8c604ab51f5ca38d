import fp from 'fastify-plugin';
import type { FastifyError } from 'fastify';
import { ConnectionError, DatabaseError } from 'sequelize';
import { Problem, PROBLEM_MEDIA_TYPE } from '../problem.ts';

/** PostgreSQL's classes for a lost connection (08) and a server that stops or starts (57P). */
const LOST_CONNECTION = /^(08|57P)/;

function isDatabaseLost(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const cause =
    error instanceof DatabaseError
      ? (error.original as { code?: string; message: string })
      : (error as { code?: string; message?: string });
  if (LOST_CONNECTION.test(cause.code ?? '')) return true;
  return /Connection terminated|ECONNREFUSED|ECONNRESET/.test(
    `${cause.code ?? ''} ${cause.message ?? ''}`,
  );
}

function problemOf(error: FastifyError | Problem, limit: number): Problem {
  if (error instanceof Problem) return error;
  if (isDatabaseLost(error)) {
    return new Problem(
      'database-unreachable',
      'Nothing was saved. The page keeps your work and tries again.',
    );
  }
  if (error.code === 'FST_ERR_CTP_BODY_TOO_LARGE') {
    return new Problem(
      'too-large',
      `A request may hold ${Math.floor(limit / 1_048_576)} MB. Split the project, or remove what it does not need.`,
    );
  }
  if (error.code === 'FST_ERR_CTP_INVALID_MEDIA_TYPE') {
    return new Problem('wrong-media-type', 'Send the document as application/json.');
  }
  if (error.statusCode === 429) return new Problem('too-many-requests', `${error.message}.`);
  if (error.statusCode && error.statusCode < 500)
    return new Problem('malformed-request', error.message);
  return new Problem('internal-error', 'Nothing was changed. The server’s log says more.');
}

/** Every error leaves as problem+json, without a stack trace. */
export const errors = fp(async (app) => {
  const limit = app.initialConfig.bodyLimit ?? 0;
  app.setErrorHandler<FastifyError | Problem>((error, request, reply) => {
    const problem = problemOf(error, limit);
    if (problem.status >= 500) request.log.error(error);
    return reply.code(problem.status).type(PROBLEM_MEDIA_TYPE).send(problem.body());
  });
});
