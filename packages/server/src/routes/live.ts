import type { FastifyInstance } from 'fastify';
import { Problem } from '../problem.ts';
import type { ProjectStore } from '../storage/projects.ts';
import { PROJECT } from './projects.ts';

/** The server could not do what it was asked for. Source: RFC 6455, 7.4.1. */
const INTERNAL_ERROR = 1011;

/**
 * A socket for each window that has a project open: it gets the number of the latest edit as soon as it is
 * connected, and of each edit that is saved from then on.
 */
export function liveRoutes(app: FastifyInstance, store: ProjectStore): void {
  app.get<{ Params: { id: string } }>(
    '/api/projects/:id/live',
    {
      websocket: true,
      schema: { summary: 'A socket that tells of each edit that is saved', params: PROJECT },
    },
    async (socket, { params: { id } }) => {
      socket.on(
        'close',
        store.watch(id, (saved) => socket.send(JSON.stringify(saved))),
      );
      try {
        // A window that connects again learns what was saved meanwhile.
        socket.send(JSON.stringify(await store.latest(id)));
      } catch (error) {
        if (!(error instanceof Problem)) app.log.warn(error);
        // Windows connect again after a while.
        socket.close(INTERNAL_ERROR);
      }
    },
  );
}
