import { seal, unseal, type Seal } from '../../numeric/sealed-text.ts';
import type { Snapshot } from './snapshot.ts';

/** Raised whenever a snapshot of before would be read wrongly. */
const SNAPSHOT_VERSION = 1;

const SNAPSHOT: Seal = {
  format: 'crooked-lantern/snapshot',
  version: SNAPSHOT_VERSION,
  what: 'saved run',
  remedy: 'Load another, or begin the run again.',
};

/** A snapshot as text, for a save that is written to a file. It comes back exactly, which plain JSON can't do. */
export function encodeSnapshot(snapshot: Snapshot): string {
  return seal(SNAPSHOT, snapshot);
}

/**
 * The snapshot a text holds. Whether it fits a world, `restoreSnapshot` says.
 *
 * @throws {Error} it holds none, or one of another version, or is damaged
 */
export function decodeSnapshot(text: string): Snapshot {
  return unseal(SNAPSHOT, text) as Snapshot;
}
