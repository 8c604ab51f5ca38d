import {
  existsSync,
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
 * Claims the folder for this process; refuses where another start still uses it. Gives how to let go of it.
 * @param {string} folder @param {number} port
 */
export function claim(folder, port) {
  const file = path.join(folder, 'running.json');
  const other = existsSync(file) ? readClaim(file) : null;
  if (
    other &&
    other.pid !== process.pid &&
    isAlive(other.pid) &&
    commandOf(other.pid).includes('start.mjs')
  ) {
    throw new Refusal(
      `Crooked Lantern already runs on this data: http://127.0.0.1:${other.port} (process ${other.pid}).`,
    );
  }
  writeWhole(file, JSON.stringify({ pid: process.pid, port }));
  return () => rmSync(file, { force: true });
}

/** @param {string} file */
function readClaim(file) {
  try {
    const { pid, port } = JSON.parse(readFileSync(file, 'utf8'));
    if (Number.isInteger(pid) && pid > 0) return { pid, port };
  } catch {
    // Said below.
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
  const { code, path: file = folder } = /** @type {NodeJS.ErrnoException} */ (error);
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
      return null;
  }
}

/** @param {string} folder */
export function fullDisk(folder) {
  return new Refusal(`The disk that holds ${folder} is full. ${NO_ROOM}`);
}
