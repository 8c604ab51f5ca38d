import type { LedgerEntry } from '../world/state/recorder.ts';

/** One entry as one line of JSON, numbers cut to six decimals: finer is beyond what anyone reads. */
export function entryLine(entry: LedgerEntry): string {
  return JSON.stringify({ type: 'entry', ...entry }, (_, value: unknown) =>
    typeof value === 'number' && !Number.isInteger(value) ? Number(value.toFixed(6)) : value,
  );
}

export function endLine(tick: number, hash: string): string {
  return JSON.stringify({ type: 'end', tick, hash });
}
