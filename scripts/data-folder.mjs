import {
  linkSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { commandOf, isAlive } from './processes.mjs';
import { Refusal, ROOT, say } from './project.mjs';

/** The folder that everything is kept in: chosen, made sure of, and claimed by one start at a time. */

const ELSEWHERE = 'or choose another folder with LANTERN_DATA';

/** All that we put there; the beginnings of these names are ours too, for files that are being written. */
const OURS = ['postgres', 'postgres.log', 'password', 'running.json', 'server.log'];

/** The folder that LANTERN_DATA names, or the one of this checkout. */
export function chosenFolder() {
  const { LANTERN_DATA } = process.env;
  if (LANTERN_DATA === undefined) return path.join(ROOT, '.lantern-data');
  if (LANTERN_DATA.trim() === '')
    throw new Refusal(
      'LANTERN_DATA is empty. Set it to a folder, or unset it to use the one of this checkout.',
    );
  return path.resolve(LANTERN_DATA);
}

/**
 * Makes the folder where there is none. Refuses what is no folder, or holds other things than ours: it is given
 * to the database's user as a whole.
 * @param {string} folder
 */
export function ensureFolder(folder) {
  if (statSync(folder, { throwIfNoEntry: false })?.isDirectory() === false)
    throw new Refusal(`${folder} is a file. Remove it, ${ELSEWHERE}.`);
  mkdirSync(folder, { recursive: true });
  const foreign = readdirSync(folder).find(
    (name) => !OURS.some((ours) => name === ours || name.startsWith(`${ours}.`)),
  );
  if (foreign !== undefined)
    throw new Refusal(
      `${folder} holds other things, such as “${foreign}”. Choose an empty folder, or one that does not exist yet, with LANTERN_DATA.`,
    );
}

/**
 * Claims the folder for this process; refuses where another start still uses it, also one that begins in the same
 * moment. Returns a function that releases it.
 * @param {string} folder @param {number} port
 */
export function claim(folder, port) {
  const file = path.join(folder, 'running.json');
  const own = `${file}.${process.pid}`;
  try {
    writeFileSync(own, JSON.stringify({ pid: process.pid, port }), { mode: 0o600, flush: true });
    if (!linked(own, file)) takeOver(own, file);
  } finally {
    rmSync(own, { force: true });
  }
  // Another start may have claimed it since, where this one has let go of it before.
  return () => {
    if (readClaim(file)?.pid === process.pid) rmSync(file, { force: true });
  };
}

/** Links a file under a second name; false where that exists. Of several at once only one succeeds. @param {string} from @param {string} to */
function linked(from, to) {
  try {
    linkSync(from, to);
    return true;
  } catch (error) {
    if (/** @type {NodeJS.ErrnoException} */ (error).code === 'EEXIST') return false;
    throw error;
  }
}

/** Puts our claim in place of one whose process is gone, which one start does at a time. @param {string} own @param {string} file */
function takeOver(own, file) {
  refuseWhereUsed(file);
  const taking = `${file}.taking`;
  for (let tries = 0; !linked(own, taking); tries++) {
    const other = readClaim(taking);
    // Who was taking over has died in the midst of it, or takes longer than it can.
    if ((other && !isAlive(other.pid)) || tries > 100) rmSync(taking, { force: true });
    sleep(20);
  }
  try {
    refuseWhereUsed(file);
    renameSync(own, file);
  } finally {
    rmSync(taking, { force: true });
  }
}

/** @param {string} file */
function refuseWhereUsed(file) {
  const other = readClaim(file);
  if (!other || other.pid === process.pid || !isAlive(other.pid)) return;
  const command = commandOf(other.pid);
  // Where the system does not say what a process is, it is taken for ours.
  if (command !== '' && !command.includes('start.mjs')) return;
  throw new Refusal(
    `Crooked Lantern already runs on this data: http://127.0.0.1:${other.port} (process ${other.pid}).`,
  );
}

/** @param {number} ms */
function sleep(ms) {
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms);
}

/** The claim in a file; null where there is none, or none that can be read. @param {string} file */
function readClaim(file) {
  try {
    const { pid, port } = JSON.parse(readFileSync(file, 'utf8'));
    if (Number.isInteger(pid) && pid > 0) return { pid, port };
  } catch (error) {
    if (/** @type {NodeJS.ErrnoException} */ (error).code === 'ENOENT') return null;
    // What else is wrong is said below.
  }
  say(`${file} can’t be read, so it is written anew; a disk that was full leaves it so.`);
  return null;
}

/** Writes a file that is there whole or not at all. @param {string} file @param {string} text */
export function writeWhole(file, text) {
  const part = `${file}.${process.pid}`;
  try {
    writeFileSync(part, text, { mode: 0o600, flush: true });
    renameSync(part, file);
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
}

const NO_ROOM = 'Free some space, then start again; nothing that was saved is lost.';

/** What is said of errors of the file system, by their code; null for others. @param {unknown} error @param {string} folder */
export function refusalOf(error, folder) {
  const { code, syscall, path: file = folder } = /** @type {NodeJS.ErrnoException} */ (error);
  switch (code) {
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new Refusal(`${file} can’t be written to. Give yourself the right to, ${ELSEWHERE}.`);
    case 'ENOTDIR':
    case 'EEXIST':
      return new Refusal(`${file} is not a folder, or lies in a file. Remove it, ${ELSEWHERE}.`);
    case 'ENOSPC':
    case 'EDQUOT':
      return fullDisk(folder);
    default:
      // What else a file system has to say is of the folder, too: too long a name, a link that leads to itself.
      return code !== undefined && FILE_CALLS.has(String(syscall))
        ? new Refusal(`${file} can’t be used (${code}). Mend it, ${ELSEWHERE}.`)
        : null;
  }
}

/** Calls of the system that work on files. */
const FILE_CALLS = new Set([
  'access',
  'chmod',
  'chown',
  'fsync',
  'link',
  'lstat',
  'mkdir',
  'open',
  'read',
  'rename',
  'rm',
  'scandir',
  'stat',
  'statfs',
  'unlink',
  'write',
]);

/** @param {string} folder */
export function fullDisk(folder) {
  return new Refusal(`The disk that holds ${folder} is full. ${NO_ROOM}`);
}
