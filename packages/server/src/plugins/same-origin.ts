import fp from 'fastify-plugin';
import { Problem } from '../problem.ts';

const LOCAL_NAMES = new Set(['127.0.0.1', 'localhost', '[::1]']);

function isLocal(host: string | undefined): boolean {
  return host !== undefined && LOCAL_NAMES.has(host.replace(/:\d+$/, ''));
}

/**
 * Takes requests for this machine's own names only (against DNS rebinding), and from pages this server
 * has served only.
 */
export const sameOrigin = fp(async (app) => {
  app.addHook('onRequest', async (request) => {
    const { host, origin } = request.headers;
    if (!isLocal(host)) {
      throw new Problem(
        'foreign-request',
        `This server answers to 127.0.0.1 and localhost, not to “${host ?? ''}”.`,
      );
    }
    if (origin !== undefined && origin !== `http://${host}`) {
      throw new Problem(
        'foreign-request',
        `A page of ${origin} asked; only pages of http://${host} may.`,
      );
    }
  });
});
