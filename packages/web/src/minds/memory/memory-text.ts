import type { MindReadout } from '@crooked-lantern/core';

/** What a key holds now, with how long ago it was written; empty where nothing is read. */
export function memoryText(entry: MindReadout['memory'][number] | undefined): string {
  if (!entry) return '';
  return entry.age === null ? entry.value : `${entry.value} · ${entry.age.toFixed(1)} s`;
}
