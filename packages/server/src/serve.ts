import pino from 'pino';
import { createServer } from './server.ts';
import { openDatabase } from './storage/database.ts';
import { loadDemos } from './storage/load-demos.ts';
import { createProjectStore } from './storage/projects.ts';

export interface ServeOptions {
  /** postgres://… */
  databaseUrl: string;
  port: number;
  pages: string;
  demos: string;
  /** File for the log; standard error without one. */
  logFile?: string;
}

export interface Serving {
  address: string;
  close(): Promise<void>;
}

/** Opens the database, loads the demos into an empty one, and serves pages and API on the loopback address. */
export async function serve({
  databaseUrl,
  port,
  pages,
  demos,
  logFile,
}: ServeOptions): Promise<Serving> {
  const logger = pino(
    { level: process.env.LANTERN_LOG ?? 'warn' },
    pino.destination({ dest: logFile ?? 2, mkdir: true, sync: false }),
  );
  const database = await openDatabase(databaseUrl);
  try {
    await loadDemos(createProjectStore(database), demos);
    const app = await createServer({ database, pages, logger });
    await app.listen({ host: '127.0.0.1', port });
    return {
      address: `http://127.0.0.1:${port}`,
      async close() {
        await app.close();
        await database.close();
      },
    };
  } catch (error) {
    await database.close();
    throw error;
  }
}
