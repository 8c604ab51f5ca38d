import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './install.mjs';
import { isAlive, startCluster } from './postgres.mjs';
import { checkNode, Refusal, ROOT, runScript, say } from './project.mjs';

const DEFAULT_PORT = 4173;

function chosenPort() {
  const text = process.env.PORT ?? String(DEFAULT_PORT);
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Refusal(`PORT must be a number from 1 to 65535, not “${text}”.`);
  return port;
}

/** @param {number} port @returns {Promise<void>} */
function checkPortFree(port) {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.once('error', (/** @type {NodeJS.ErrnoException} */ error) => {
      const reason =
        error.code === 'EADDRINUSE'
          ? 'is taken by another program'
          : `can’t be used (${error.code})`;
      reject(
        new Refusal(
          `Port ${port} ${reason}. Choose another: PORT=${port === 65_535 ? port - 1 : port + 1} npm start`,
        ),
      );
    });
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve()));
  });
}

/**
 * Claims the data folder for this process; refuses where another start still uses it.
 * @param {string} folder @param {number} port
 */
function claim(folder, port) {
  mkdirSync(folder, { recursive: true });
  const file = path.join(folder, 'running.json');
  if (existsSync(file)) {
    const { pid, port: other } = JSON.parse(readFileSync(file, 'utf8'));
    const command = existsSync(`/proc/${pid}/cmdline`)
      ? readFileSync(`/proc/${pid}/cmdline`, 'utf8')
      : '';
    if (pid !== process.pid && isAlive(pid) && command.includes('start.mjs')) {
      throw new Refusal(
        `Crooked Lantern already runs on this data: http://127.0.0.1:${other} (process ${pid}).`,
      );
    }
  }
  writeFileSync(file, JSON.stringify({ pid: process.pid, port }));
  return () => rmSync(file, { force: true });
}

await runScript(async () => {
  checkNode();
  const port = chosenPort();
  const folder = path.resolve(process.env.LANTERN_DATA ?? path.join(ROOT, '.lantern-data'));
  const release = claim(folder, port);
  /** @type {(() => Promise<void>)[]} */
  const closers = [];
  let closing = false;
  const shutDown = async (/** @type {number} */ code) => {
    if (closing) return;
    closing = true;
    for (const close of closers.reverse()) await close();
    release();
    process.exit(code);
  };
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
    process.on(signal, () => void shutDown(0));
  try {
    await checkPortFree(port);
    ensurePackages();
    ensureBuilt(['programs', 'pages']);
    const cluster = await startCluster({ folder, durable: true });
    closers.push(() => cluster.stop());
    cluster.onExit(() => {
      process.stderr.write(
        'The database server ended by itself; its log is postgres.log in the data folder. Start again with npm start.\n',
      );
      void shutDown(1);
    });
    const { serve } = await import('../packages/server/dist/index.js');
    const serving = await serve({
      databaseUrl: cluster.url,
      port,
      pages: path.join(ROOT, 'packages/web/dist'),
      demos: path.join(ROOT, 'demo'),
      logFile: path.join(folder, 'server.log'),
    });
    closers.push(() => serving.close());
    endWithParent(() => void shutDown(0));
    say(serving.address);
  } catch (error) {
    for (const close of closers.reverse()) await close();
    release();
    throw error;
  }
});

/**
 * When npm is killed outright nobody passes the signal on; without it we would hold the port unseen.
 * @param {() => void} end
 */
function endWithParent(end) {
  if (!process.env.npm_lifecycle_event) return;
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && end(), 1000).unref();
}
