import { appendFileSync } from 'node:fs';
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

/**
 * Where the log goes. Little is logged, so each line is written at once; where there is no room for it, that is
 * said once on standard error, and the server goes on. (The library's own file destination waits for ever then.)
 */
function appendingTo(file: string): { write(line: string): void } {
  let lost = false;
  return {
    write(line) {
      try {
        appendFileSync(file, line);
        lost = false;
      } catch (error) {
        if (!lost) process.stderr.write(`The log can’t be written: ${(error as Error).message}\n`);
        lost = true;
      }
    },
  };
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
    logFile === undefined ? process.stderr : appendingTo(logFile),
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
