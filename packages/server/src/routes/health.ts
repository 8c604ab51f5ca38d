import type { FastifyInstance } from 'fastify';
import type { Database } from '../storage/database.ts';

export function healthRoutes(app: FastifyInstance, { sequelize }: Database): void {
  app.get(
    '/api/health',
    { schema: { summary: 'Whether the server and its database answer' } },
    async (request, reply) => {
      try {
        await sequelize.query('select 1');
        return { status: 'ok', database: 'ok' };
      } catch (error) {
        request.log.warn(error);
        return reply.code(503).send({ status: 'degraded', database: 'unreachable' });
      }
    },
  );
}
