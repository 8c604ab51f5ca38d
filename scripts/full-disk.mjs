import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { setTimeout as pause } from 'node:timers/promises';
import { Refusal, runScript, say } from './project.mjs';
import { startApplication, Writer } from './trial.mjs';

/**
 * Fills the disk that the data lie on, at the start and while a user saves, and makes room again. It needs the
 * right to mount a small file system of its own.
 *
 *     node scripts/full-disk.mjs
 */

const MEGABYTE = 1_048_576;

/** Mounts a file system of its own for the data; null where that is not allowed. */
export function smallDisk() {
  const folder = path.join(os.tmpdir(), `crooked-lantern-disk-${process.pid}`);
  mkdirSync(folder, { recursive: true });
  const options = ['-t', 'tmpfs', '-o', 'size=160m,mode=755', 'tmpfs', folder];
  if (spawnSync('mount', options, { stdio: 'ignore' }).status !== 0) {
    rmSync(folder, { recursive: true });
    return null;
  }
  const filler = path.join(folder, 'filler');
  return {
    folder: path.join(folder, 'data'),
    /** Leaves only so many bytes free. @param {number} bytes */
    fill(bytes) {
      const { bavail, bsize } = statfsSync(folder);
      const block = Buffer.alloc(MEGABYTE);
      const left = Math.max(0, bavail * bsize - bytes);
      rmSync(filler, { force: true });
      for (let done = 0; done < left; done += MEGABYTE)
        writeFileSync(filler, block.subarray(0, Math.min(MEGABYTE, left - done)), { flag: 'a' });
    },
    makeRoom: () => rmSync(filler, { force: true }),
    remove() {
      spawnSync('umount', ['-l', folder]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** @param {NonNullable<ReturnType<typeof smallDisk>>} disk */
export async function fillWhileSaving(disk) {
  const writer = new Writer();
  /** @type {string[]} */
  const words = [];
  disk.fill(20 * MEGABYTE);
  const atOnce = await startApplication(disk.folder);
  words.push(atOnce.text());
  disk.makeRoom();
  let application = await startApplication(disk.folder);
  if (!application.serves) throw new Error(`It does not start: ${application.text()}`);
  const writing = writer.write(application.address);
  while (writer.acknowledged.size < 20) await pause(20);
  disk.fill(MEGABYTE / 16);
  // Until it has refused a save for it, or has ended.
  while (!application.hasEnded() && writer.refused.size === 0) await pause(20);
  writer.stop();
  await writing;
  const ended = application.hasEnded();
  if (ended) words.push(application.text().replace(application.address, ''));
  await application.stop();
  disk.fill(0);
  const full = await startApplication(disk.folder);
  words.push(full.text());
  if (full.serves) await full.stop();
  disk.makeRoom();
  application = await startApplication(disk.folder);
  if (!application.serves) throw new Error(`It does not start again: ${application.text()}`);
  const before = writer.acknowledged.size;
  const going = writer.write(application.address);
  while (writer.acknowledged.size < before + 5) await pause(20);
  writer.stop();
  await going;
  const lost = await writer.lost(application.address);
  await application.stop();
  return { acknowledged: writer.acknowledged.size, lost, refused: writer.refused, words };
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  await runScript(async () => {
    const disk = smallDisk();
    if (!disk) throw new Refusal('Run this as a user that may mount a file system.');
    try {
      const { acknowledged, lost, refused, words } = await fillWhileSaving(disk);
      for (const text of words) say(`said: ${text.trim()}`);
      for (const [status, title] of refused) say(`answered: ${status} ${title}`);
      say(`${acknowledged} acknowledged, ${lost} lost`);
      if (lost > 0) process.exitCode = 1;
    } finally {
      disk.remove();
    }
  });
}
