import type { LedgerEntry, Recorder } from './recorder.ts';

/** Any entry before tick and agent are known. */
export type Unplaced<E = LedgerEntry> = E extends LedgerEntry ? Omit<E, 'tick' | 'agent'> : never;

/** Tells the ledger of something an agent did, or that befell it. */
export function recordFor(
  { tick, name }: { tick: number; name: string },
  record: Recorder,
  entry: Unplaced,
): void {
  record({ tick, agent: name, ...entry } as LedgerEntry);
}
