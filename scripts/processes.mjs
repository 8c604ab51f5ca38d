import { existsSync, readdirSync, readFileSync, readlinkSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';

/** What other processes of this machine do, as far as the system tells. */

/** Whether there is a process of this number; one that has ended and was not waited for is none. @param {number} pid */
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'EPERM') return false;
  }
  // A process that has ended keeps its number until its parent asks for how.
  return !/^\d+ \(.*\) Z/s.test(readQuietly(`/proc/${pid}/stat`));
}

/** How a process was started; empty where that is not known. @param {number} pid */
export function commandOf(pid) {
  return readQuietly(`/proc/${pid}/cmdline`);
}

/** The processes that work in a folder; none where the system does not tell. @param {string} folder */
export function processesIn(folder) {
  if (!existsSync('/proc/self/cwd')) return [];
  return readdirSync('/proc')
    .map(Number)
    .filter((pid) => {
      if (!pid) return false;
      try {
        return readlinkSync(`/proc/${pid}/cwd`) === folder && isAlive(pid);
      } catch {
        return false;
      }
    });
}

/** Gone before it was read, or not for our eyes. @param {string} file */
function readQuietly(file) {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return '';
  }
}

/** Whether something comes true within so many seconds. @param {() => boolean} condition @param {number} seconds */
export async function waitUntil(condition, seconds) {
  const end = Date.now() + seconds * 1000;
  while (!condition()) {
    if (Date.now() > end) return false;
    await pause(30);
  }
  return true;
}

/** How a database server is ended, and how many seconds it is given each time. @type {readonly [NodeJS.Signals, number][]} */
const ENDING = [
  ['SIGINT', 5],
  ['SIGQUIT', 2],
  ['SIGKILL', 3],
];

/**
 * Ends a database server: kindly, then harder. Returns whether it ended before it was killed; a frozen one never does.
 * @param {(signal: NodeJS.Signals) => void} send @param {() => boolean} hasEnded
 */
export async function endStepByStep(send, hasEnded) {
  for (const [signal, seconds] of ENDING) {
    if (hasEnded()) return true;
    send(signal);
    await waitUntil(hasEnded, seconds);
  }
  return false;
}
