import { existsSync } from 'node:fs';
import path from 'node:path';
import fastifyStatic from '@fastify/static';
import type { FastifyInstance } from 'fastify';
import { Problem } from '../problem.ts';

const YEAR = 31_536_000_000;

/** The built pages; any address that is neither a file nor part of the API gives the application itself. */
export async function pageRoutes(app: FastifyInstance, folder: string): Promise<void> {
  if (existsSync(path.join(folder, 'index.html'))) {
    await app.register(fastifyStatic, {
      root: folder,
      cacheControl: false,
      preCompressed: true,
      setHeaders: (reply, file) => {
        // Built files carry a hash of their content in their name.
        const lasting = file.includes(`${path.sep}assets${path.sep}`);
        reply.header(
          'cache-control',
          lasting ? `public, max-age=${YEAR / 1000}, immutable` : 'no-cache',
        );
      },
    });
  }
  app.setNotFoundHandler((request, reply) => {
    // What is asked for in the query, such as a tree by its name, makes no file of a page.
    const [address] = request.url.split('?');
    const isPage =
      request.method === 'GET' && !address.startsWith('/api') && !/\.[a-z0-9]+$/i.test(address);
    if (!isPage || !reply.sendFile)
      throw new Problem('not-found', `${request.method} ${address} is not known here.`);
    return reply.sendFile('index.html');
  });
}
