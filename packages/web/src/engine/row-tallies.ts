import { firstFrom } from './first-from.ts';
import type { Reason, LedgerEntry } from '@crooked-lantern/core';

/** From the ledger, for each action row of each agent's minds: when it ran, what came of it, who overruled it. */

/** One time an action row ran. */
interface Stretch {
  from: number;
  /** −1 while it runs. */
  to: number;
  /** Ticks it had run before this. */
  before: number;
}

interface Row {
  stretches: Stretch[];
  /** Failures whose reason is known. */
  failures: { tick: number; reason: Reason }[];
  overruled: { tick: number; by: number }[];
}

/** By agent, mind (empty for the first), state and number of the row. Numbers are of the latest edit's rows. */
export type RowTallies = Map<string, Row>;

export interface Tally {
  /** How often it began. */
  times: number;
  /** How long it has run in all. */
  ticks: number;
  /** The last failure, where its reason is known. */
  failure: { tick: number; reason: Reason } | null;
  /** When a row above it used its channel last, and the number of that row. */
  overruled: { tick: number; by: number } | null;
}

const keyOf = (agent: string, mind: string, state: string, row: number) =>
  [agent, mind, state, row].join('\n');

function rowOf(tallies: RowTallies, key: string): Row {
  let row = tallies.get(key);
  if (!row) {
    row = { stretches: [], failures: [], overruled: [] };
    tallies.set(key, row);
  }
  return row;
}

/** Adds entries, in the order they were recorded. */
export function addToTallies(tallies: RowTallies, entries: readonly LedgerEntry[]): void {
  for (const entry of entries) {
    if (entry.kind === 'edit') {
      // What a row's number stands for may be another row from here on.
      tallies.clear();
      continue;
    }
    if (entry.kind !== 'begin' && entry.kind !== 'end' && entry.kind !== 'overruled') continue;
    if (entry.row === undefined) continue;
    const { agent, mind = '', state, tick } = entry;
    const { stretches, failures, overruled } = rowOf(tallies, keyOf(agent, mind, state, entry.row));
    const last = stretches.at(-1);
    if (entry.kind === 'overruled') overruled.push({ tick, by: entry.by });
    else if (entry.kind === 'begin') {
      const before = last ? last.before + Math.max(0, last.to - last.from) : 0;
      stretches.push({ from: tick, to: -1, before });
    } else if (last && last.to < 0) {
      last.to = tick;
      if (entry.ending === 'failure' && entry.reason !== undefined)
        failures.push({ tick, reason: entry.reason });
    }
  }
}

/** The last of a list, in the order of time, that lies at or before a tick, and how many do. */
function lastUntil<T>(list: readonly T[], tickOf: (one: T) => number, tick: number) {
  const count = firstFrom(list, (one) => tickOf(one) <= tick);
  return { count, last: list[count - 1] as T | undefined };
}

/** What there is to say of a row at a tick; null where it never began and was never overruled until then. */
export function tallyAt(
  tallies: RowTallies,
  of: { agent: string; mind: string; state: string; row: number },
  tick: number,
): Tally | null {
  const row = tallies.get(keyOf(of.agent, of.mind, of.state, of.row));
  if (!row) return null;
  const begun = lastUntil(row.stretches, ({ from }) => from, tick);
  const overruled = lastUntil(row.overruled, (one) => one.tick, tick);
  if (begun.count === 0 && overruled.count === 0) return null;
  const { last } = begun;
  const ended = last !== undefined && last.to >= 0 && last.to <= tick;
  return {
    times: begun.count,
    ticks: last ? last.before + (ended ? last.to : tick) - last.from : 0,
    failure: lastUntil(row.failures, (one) => one.tick, tick).last ?? null,
    overruled: overruled.last ?? null,
  };
}
