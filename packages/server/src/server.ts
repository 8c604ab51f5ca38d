import compress from '@fastify/compress';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import websocket from '@fastify/websocket';
import { PROJECT_VERSION, projectSchema, toJsonSchema } from '@crooked-lantern/core';
import Fastify, { type FastifyBaseLogger, type FastifyInstance } from 'fastify';
import { createChecker } from './checking/checker.ts';
import { errors } from './plugins/errors.ts';
import { sameOrigin } from './plugins/same-origin.ts';
import { yupSchemas } from './plugins/yup-schemas.ts';
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
  await app.register(rateLimit, { max: REQUESTS_PER_MINUTE, timeWindow: '1 minute' });
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
