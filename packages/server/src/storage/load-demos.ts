import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { readProjectText } from '@crooked-lantern/core';
import type { ProjectStore } from './projects.ts';

/** The demo to begin with. */
const FIRST = 'night-watch.lantern.json';

/**
 * Puts the demo projects of `folder` into an empty store, the one to begin with last: the newest stands first. Returns
 * their number. Throws where one can't be read.
 */
export async function loadDemos(store: ProjectStore, folder: string): Promise<number> {
  if (!(await store.isEmpty())) return 0;
  const files = (await readdir(folder))
    .filter((file) => file.endsWith('.lantern.json'))
    .sort((a, b) => Number(a === FIRST) - Number(b === FIRST) || (a < b ? 1 : -1));
  for (const file of files) {
    const result = readProjectText(await readFile(path.join(folder, file), 'utf8'));
    if (!result.ok) {
      const { path: where, message } = result.faults[0];
      throw new Error(`The demo ${file} can’t be loaded: ${where} ${message}`);
    }
    await store.create(result.document);
  }
  return files.length;
}
