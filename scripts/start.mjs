import net from 'node:net';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensureBuilt } from './build.mjs';
import { chosenFolder, claim, ensureFolder, refusalOf } from './data-folder.mjs';
import { ensurePackages } from './install.mjs';
import { startCluster } from './postgres.mjs';
import {
  checkNode,
  Interrupted,
  INTERRUPTED_CODE,
  Refusal,
  ROOT,
  runScript,
  say,
} from './project.mjs';

const DEFAULT_PORT = 4173;

/** No part is waited for longer than this when all is ended; the database takes the longest. */
const CLOSING_SECONDS = 11;
/** Of those the server, which may wait for a database that is frozen. */
const SERVER_SECONDS = 3;

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

/** @param {string} line */
function complain(line) {
  process.stderr.write(`${line}\n`);
}

/**
 * Starts all there is on a folder, and ends it all on a signal, or when a part of it fails or ends.
 * @param {string} folder @param {number} port
 */
async function run(folder, port) {
  ensureFolder(folder);
  const release = claim(folder, port);
  /** @type {(() => Promise<void> | void)[]} */
  const closers = [release];
  let closing = false;
  let serves = false;
  /** @type {() => void} */
  let killDatabase = () => {};
  const closeAll = async () => {
    for (const close of closers.reverse()) {
      try {
        await Promise.race([close(), pause(CLOSING_SECONDS * 1000)]);
      } catch (error) {
        complain(`While ending: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
  };
  const shutDown = (/** @type {number} */ code) => {
    if (closing) return;
    closing = true;
    closeAll().then(
      () => process.exit(code),
      () => process.exit(1),
    );
  };
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
    process.on(signal, () => {
      if (closing && signal === 'SIGINT') {
        // Pressed once more: nothing is waited for.
        killDatabase();
        release();
        process.exit(INTERRUPTED_CODE);
      }
      if (!closing) say(serves ? 'Ending. Press Ctrl+C again to end at once.' : 'Ended.');
      shutDown(serves ? 0 : INTERRUPTED_CODE);
    });
  endWithParent(() => shutDown(0));
  try {
    await checkPortFree(port);
    ensurePackages();
    ensureBuilt(['programs', 'pages']);
    const starting = startCluster({ folder, durable: true });
    // Also where a signal comes before it has started; where it fails it has ended by itself.
    closers.push(() =>
      starting.then(
        ({ stop }) => stop(),
        () => {},
      ),
    );
    const cluster = await starting;
    killDatabase = cluster.stopNow;
    cluster.onExit((reason) => {
      complain(`${reason.message} Start again with npm start.`);
      shutDown(1);
    });
    const { serve } = await import('../packages/server/dist/index.js');
    const serving = await serve({
      databaseUrl: cluster.url,
      port,
      pages: path.join(ROOT, 'packages/web/dist'),
      demos: path.join(ROOT, 'demo'),
      logFile: path.join(folder, 'server.log'),
    });
    closers.push(() => Promise.race([serving.close(), pause(SERVER_SECONDS * 1000)]));
    serves = true;
    say(serving.address);
  } catch (error) {
    if (closing) return;
    if (error instanceof Interrupted) {
      say(error.message);
      return shutDown(INTERRUPTED_CODE);
    }
    complain(wordsOf(error, folder));
    shutDown(1);
  }
}

/** What is said of an error: one sentence where it is known what to do. @param {unknown} error @param {string} folder */
function wordsOf(error, folder) {
  const known = error instanceof Refusal ? error : refusalOf(error, folder);
  if (known) return known.message;
  const { name, message, stack } = /** @type {Error} */ (error);
  return name === 'UnusableDatabase' ? message : (stack ?? message);
}

await runScript(async () => {
  checkNode();
  const port = chosenPort();
  const folder = chosenFolder();
  try {
    await run(folder, port);
  } catch (error) {
    throw refusalOf(error, folder) ?? error;
  }
});

/**
 * When npm is killed outright nothing passes the signal on; without it we would hold the port unseen.
 * @param {() => void} end
 */
function endWithParent(end) {
  if (!process.env.npm_lifecycle_event) return;
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && end(), 1000).unref();
}
