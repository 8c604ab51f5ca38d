import compress from '@fastify/compress';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import websocket from '@fastify/websocket';
import { PROJECT_VERSION, projectSchema, toJsonSchema } from '@crooked-lantern/core';
import Fastify, { type FastifyBaseLogger, type FastifyInstance, type FastifyReply } from 'fastify';
import { createChecker } from './checking/checker.ts';
import { errors } from './plugins/errors.ts';
import { sameOrigin } from './plugins/same-origin.ts';
import { yupSchemas } from './plugins/yup-schemas.ts';
import { Problem, PROBLEM_MEDIA_TYPE } from './problem.ts';
import { healthRoutes } from './routes/health.ts';
import { liveRoutes } from './routes/live.ts';
import { pageRoutes } from './routes/pages.ts';
import { projectRoutes } from './routes/projects.ts';
import type { Database } from './storage/database.ts';
import { createProjectStore } from './storage/projects.ts';

export interface ServerOptions {
  database: Database;
  /** Folder of the built pages. */
  pages: string;
  logger: FastifyBaseLogger;
}

/** Largest request body, in bytes. */
const BODY_LIMIT = 8 * 1_048_576;

const REQUESTS_PER_MINUTE = 3000;

export async function createServer({
  database,
  pages,
  logger,
}: ServerOptions): Promise<FastifyInstance> {
  const app: FastifyInstance = Fastify({
    loggerInstance: logger,
    bodyLimit: BODY_LIMIT,
    forceCloseConnections: true,
    // An address that can't be read never reaches the handlers of errors.
    frameworkErrors: (error, _, reply) => {
      const problem = new Problem('malformed-request', error.message);
      const answer: FastifyReply = reply as never;
      answer.code(problem.status).type(PROBLEM_MEDIA_TYPE);
      answer.send(problem.body());
    },
    // Nor does what is no HTTP at all.
    clientErrorHandler(_, socket) {
      if (!socket.writable) return;
      const problem = new Problem('malformed-request', 'This is no request that HTTP knows.');
      const body = JSON.stringify(problem.body());
      socket.end(
        `HTTP/1.1 ${problem.status} Bad Request\r\nContent-Type: ${PROBLEM_MEDIA_TYPE}\r\nContent-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
      );
    },
  });
  // Documents come as JSON and as nothing else.
  app.removeContentTypeParser('text/plain');
  await app.register(errors);
  await app.register(sameOrigin);
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // Styles are made while the page runs.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'", 'data:'],
        workerSrc: ["'self'", 'blob:'],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  });
  await app.register(rateLimit, {
    max: REQUESTS_PER_MINUTE,
    timeWindow: '1 minute',
    // A connection that was dropped by now has no address any more.
    keyGenerator: ({ ip }) => (ip as string | undefined) ?? 'dropped',
  });
  await app.register(compress);
  // Windows only listen.
  await app.register(websocket, { options: { maxPayload: 1024 } });
  await app.register(yupSchemas);
  await app.register(async (api) => {
    healthRoutes(api, database);
    api.get('/api/openapi.json', { schema: { hide: true } }, async () => app.swagger());
    api.get(
      '/api/project.schema.json',
      { schema: { summary: 'JSON Schema of the open file' } },
      async () => projectJsonSchema(),
    );
  });
  const checker = createChecker();
  app.addHook('onClose', () => checker.close());
  const store = createProjectStore(database);
  await app.register(async (api) => projectRoutes(api, store, checker));
  await app.register(async (api) => liveRoutes(api, store));
  await pageRoutes(app, pages);
  return app;
}

/** The published JSON Schema of the open file. */
export function projectJsonSchema(): Record<string, unknown> {
  return toJsonSchema(projectSchema, {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Crooked Lantern project, version ${PROJECT_VERSION}`,
  });
}
