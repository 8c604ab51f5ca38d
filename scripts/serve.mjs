import path from 'node:path';
import { ROOT, Refusal, runScript, say } from './project.mjs';

// The server alone, on a database that is there already: for the end-to-end tests, which stop and start it.
await runScript(async () => {
  const { LANTERN_DATABASE, PORT } = process.env;
  if (!LANTERN_DATABASE || !PORT)
    throw new Refusal('Set LANTERN_DATABASE to a postgres:// address and PORT to a port.');
  const { serve } = await import('../packages/server/dist/index.js');
  const serving = await serve({
    databaseUrl: LANTERN_DATABASE,
    port: Number(PORT),
    pages: path.join(ROOT, 'packages/web/dist'),
    demos: path.join(ROOT, 'demo'),
  });
  process.on('SIGTERM', () => void serving.close().then(() => process.exit(0)));
  say(serving.address);
});
