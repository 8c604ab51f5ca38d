import fp from 'fastify-plugin';
import type { FastifyError } from 'fastify';
import { ConnectionError } from 'sequelize';
import { Problem, PROBLEM_MEDIA_TYPE } from '../problem.ts';

/**
 * PostgreSQL's classes for a lost connection (08), one that waited too long in a transaction (25P03), and a
 * server that stops or starts (57P) or ended a statement that took too long (57014); and the system's codes
 * for a broken line.
 */
const LOST = /^(08|57P|25P03|57014|ECONN|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH|ENOTFOUND)/;
const LOST_WORDS = /Connection terminated|connection error|Query read timeout|not queryable/i;
/** PostgreSQL's code for a full disk, and the system's. */
const FULL = /^(53100|ENOSPC|EDQUOT)/;

/** An error and what caused it, as the libraries in between hand it on. */
function causesOf(error: unknown): { code?: string; message?: string }[] {
  const causes: { code?: string; message?: string }[] = [];
  for (let next = error; next && typeof next === 'object' && causes.length < 8;) {
    causes.push(next);
    const { original, cause } = next as { original?: unknown; cause?: unknown };
    next = original ?? cause;
  }
  return causes;
}

function isDatabaseLost(error: unknown): boolean {
  return causesOf(error).some(
    (cause) =>
      cause instanceof ConnectionError ||
      LOST.test(cause.code ?? '') ||
      LOST_WORDS.test(cause.message ?? ''),
  );
}

function isDiskFull(error: unknown): boolean {
  return causesOf(error).some(({ code }) => FULL.test(code ?? ''));
}

function problemOf(error: FastifyError | Problem, limit: number): Problem {
  if (error instanceof Problem) return error;
  if (isDiskFull(error)) {
    return new Problem(
      'disk-full',
      'Nothing was saved. Free some space; the page keeps your work and tries again.',
    );
  }
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
    // The connection was dropped before all of the request had come: no client waits for an answer, and nothing failed here.
    if (request.raw.destroyed && !request.raw.complete)
      return reply.code(400).type(PROBLEM_MEDIA_TYPE).send();
    const problem = problemOf(error, limit);
    if (problem.status >= 500) {
      // The error itself would bring the whole document into the log, as a parameter of a statement.
      const causes = causesOf(error).map(({ code, message }) => ({ code, message }));
      request.log.error({ causes, stack: error.stack }, error.message);
    }
    return reply.code(problem.status).type(PROBLEM_MEDIA_TYPE).send(problem.body());
  });
});
