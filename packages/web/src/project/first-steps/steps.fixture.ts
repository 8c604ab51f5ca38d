import type { LedgerEntry } from '@crooked-lantern/core';
import { addEntries, createLanes, type Lanes } from '../../engine/lanes.ts';

/** Lanes in which a warden has these entries. */
export function addDots(entries: readonly object[]): Lanes {
  const lanes = createLanes();
  addEntries(
    lanes,
    entries.map((entry, i) => ({ tick: i + 1, agent: 'warden1', ...entry }) as LedgerEntry),
  );
  return lanes;
}
