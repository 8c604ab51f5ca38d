import { writtenReason } from '../world/readout/reason-text.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';

/** What is written of an entry: reasons have their words beside their codes. */
export function writtenEntry(entry: LedgerEntry): Record<string, unknown> {
  return {
    type: 'entry',
    ...entry,
    ...('reason' in entry && entry.reason && { reason: writtenReason(entry.reason) }),
    ...('trouble' in entry && entry.trouble && { trouble: writtenReason(entry.trouble) }),
  };
}

/** One entry as one line of JSON, numbers cut to six decimals: finer is beyond what anyone reads. */
export function entryLine(entry: LedgerEntry): string {
  return JSON.stringify(writtenEntry(entry), (_, value: unknown) =>
    typeof value === 'number' && !Number.isInteger(value) ? Number(value.toFixed(6)) : value,
  );
}

/** What a run came to, as the last line after its entries. */
export function hashLine(tick: number, hash: string): string {
  return JSON.stringify({ type: 'hash', tick, hash });
}
