import { distance } from '../../numeric/distance.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import type { Input } from '../../world/program/program.ts';
import { entryLine } from '../lines.ts';
import { unpackSnapshot } from '../packed-snapshot.ts';
import { editAt, entriesOfTick, replayTick, revisit, type RunPast } from '../run.ts';

/** Where two runs part: the first tick in which an agent acts differently or is elsewhere. */

export type TwoRuns = readonly [RunPast, RunPast];

export interface Parting {
  tick: number;
  /** The first to differ, by name. */
  agent: string;
  /** What only the one run's ledger says of that agent in the tick, and what only the other's. */
  entries: [LedgerEntry[], LedgerEntry[]];
  /** Metres between where it is in the two; NaN where it is there in one only. */
  apart: number;
}

/** The first decision that one of two runs has and the other has not. */
export interface UnlikeDecision {
  tick: number;
  agent: string;
  /** What each decided in the tick that the other did not. */
  entries: [LedgerEntry[], LedgerEntry[]];
}

/** What two runs were given that differs, up to a tick. */
export interface Given {
  /** The first tick in which players did something else; null where they did the same. */
  inputs: number | null;
  /** The edits in force; null where that is the same. */
  edits: [number, number] | null;
  /** Null where they are the same. */
  seeds: [number, number] | null;
  /** Whether the same edit and seed began another way, by a set-up. */
  beginnings: boolean;
}

/** Entries that say what was given, not what came of it. */
function isGiven({ kind }: LedgerEntry): boolean {
  return kind === 'edit' || kind === 'input';
}

/** The stretch that both have kept. */
function both([one, other]: TwoRuns): { from: number; to: number } {
  return {
    from: Math.max(one.keptFrom, other.keptFrom),
    to: Math.min(one.head, other.head),
  };
}

function told(run: RunPast, at: number): LedgerEntry[] {
  return entriesOfTick(run, at).filter((entry) => !isGiven(entry));
}

/** What an entry says, whatever number its transition has: one that was moved up or down is the same. */
function saidBy(entry: LedgerEntry): string {
  return entryLine(entry.kind === 'transition' ? { ...entry, order: 0 } : entry);
}

/** The first tick in which two lists of entries say different things; Infinity where there is none. */
function firstUnlike(a: readonly LedgerEntry[], b: readonly LedgerEntry[]): number {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const [x, y] = [a[i], b[i]];
    if (x && y && x.tick === y.tick && saidBy(x) === saidBy(y)) continue;
    return Math.min(x?.tick ?? Infinity, y?.tick ?? Infinity);
  }
  return Infinity;
}

/** Where each agent that is there is, by name. */
type Places = ReadonlyMap<string, { x: number; y: number }>;

function placesOf(agents: readonly { name: string; x: number; y: number }[]): Places {
  // Absent agents have no position, and are as good as agents that do not exist.
  return new Map(agents.flatMap(({ name, x, y }) => (x === x ? [[name, { x, y }] as const] : [])));
}

/** The agents that are not in the same place in both; undefined where all are. */
function firstElsewhere(one: Places, other: Places): string | undefined {
  for (const [name, { x, y }] of one) {
    const there = other.get(name);
    if (!there || there.x !== x || there.y !== y) return name;
  }
  return [...other.keys()].find((name) => !one.has(name));
}

function sameBytes(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((byte, i) => byte === b[i]);
}

/** Whether every agent is in the same place in both at a tick of which both have a snapshot; true where one has none. */
function areTogether([one, other]: TwoRuns, at: number): boolean {
  const [a, b] = [one, other].map(({ snapshots }) => snapshots.find(({ tick }) => tick === at));
  if (!a || !b || sameBytes(a.bytes, b.bytes)) return true;
  const [p, q] = [a, b].map((snapshot) =>
    placesOf(unpackSnapshot(snapshot).agents.map(({ name, body: { x, y } }) => ({ name, x, y }))),
  );
  return firstElsewhere(p, q) === undefined;
}

/** Runs both on from a tick where they are together. Returns the first tick, up to `to`, in which an agent is elsewhere; Infinity for none. */
function firstTickApart([one, other]: TwoRuns, from: number, to: number): number {
  let [a, b] = [revisit(one, from), revisit(other, from)];
  for (let at = from; at < to; at++) {
    a = replayTick(one, a);
    b = replayTick(other, b);
    if (firstElsewhere(placesOf(a.agents), placesOf(b.agents)) !== undefined) return at + 1;
  }
  return Infinity;
}

function partingAt(runs: TwoRuns, tick: number): Parting {
  const unlike = onlyIn(told(runs[0], tick), told(runs[1], tick));
  const [a, b] = runs.map((run) => placesOf(revisit(run, tick).agents));
  const [first] = unlike.flat().filter((entry) => entry.agent !== '');
  const agent = first?.agent ?? firstElsewhere(a, b) ?? '';
  const own = (entries: LedgerEntry[]) => entries.filter((entry) => entry.agent === agent);
  const [p, q] = [a.get(agent), b.get(agent)];
  return {
    tick,
    agent,
    entries: [own(unlike[0]), own(unlike[1])],
    apart: p && q ? distance(p.x, p.y, q.x, q.y) : NaN,
  };
}

/**
 * Looks for the first tick in which two runs part, in what both have kept; null where they do not. Each step
 * looks at one second and yields how far it is, so that who goes on with it can stop.
 */
export function* findParting(runs: TwoRuns): Generator<{ at: number; of: number }, Parting | null> {
  const stretch = both(runs);
  const [a, b] = runs.map(({ entries }) =>
    entries.filter((each) => !isGiven(each) && each.tick > stretch.from && each.tick <= stretch.to),
  );
  const entry = firstUnlike(a, b);
  const end = Math.min(entry, stretch.to);
  let together = stretch.from;
  for (const { tick } of runs[0].snapshots) {
    if (tick <= stretch.from || tick > end) continue;
    yield { at: tick - stretch.from, of: stretch.to - stretch.from };
    if (!areTogether(runs, tick))
      return partingAt(runs, Math.min(entry, firstTickApart(runs, together, tick)));
    together = tick;
  }
  const tick = Math.min(entry, firstTickApart(runs, together, end));
  return Number.isFinite(tick) ? partingAt(runs, tick) : null;
}

function isDecision({ kind }: LedgerEntry): boolean {
  return (
    kind === 'transition' ||
    kind === 'picked' ||
    kind === 'begin' ||
    kind === 'end' ||
    kind === 'fired' ||
    kind === 'did'
  );
}

/** The first decision that differs, of the agent that first decided otherwise; null where none did. */
export function firstUnlikeDecision(runs: TwoRuns): UnlikeDecision | null {
  const { from, to } = both(runs);
  const [a, b] = runs.map(({ entries }) => {
    const byAgent = new Map<string, LedgerEntry[]>();
    for (const entry of entries) {
      if (!isDecision(entry) || entry.tick <= from || entry.tick > to) continue;
      const own = byAgent.get(entry.agent);
      if (own) own.push(entry);
      else byAgent.set(entry.agent, [entry]);
    }
    return byAgent;
  });
  let first: { tick: number; agent: string } | null = null;
  for (const agent of new Set([...a.keys(), ...b.keys()])) {
    const tick = firstUnlike(a.get(agent) ?? [], b.get(agent) ?? []);
    if (tick < (first?.tick ?? Infinity)) first = { tick, agent };
  }
  if (!first) return null;
  const { tick, agent } = first;
  const own = (by: Map<string, LedgerEntry[]>) =>
    (by.get(agent) ?? []).filter((entry) => entry.tick === tick);
  return { tick, agent, entries: onlyIn(own(a), own(b)) };
}

/** What only one of two lists has, and what only the other. */
function onlyIn(
  one: readonly LedgerEntry[],
  other: readonly LedgerEntry[],
): [LedgerEntry[], LedgerEntry[]] {
  const [a, b] = [one, other].map((entries) => new Set(entries.map(saidBy)));
  return [
    one.filter((entry) => !b.has(saidBy(entry))),
    other.filter((entry) => !a.has(saidBy(entry))),
  ];
}

function inputLines({ inputs }: RunPast, until: number): { tick: number; line: string }[] {
  return inputs
    .filter(({ tick }) => tick <= until)
    .map(({ tick, input }: { tick: number; input: Input }) => ({
      tick,
      line: JSON.stringify([tick, input]),
    }));
}

/** What two runs were given that differs, up to a tick. */
export function givenApart([one, other]: TwoRuns, until: number): Given {
  const [a, b] = [inputLines(one, until), inputLines(other, until)];
  let inputs: number | null = null;
  for (let i = 0; i < Math.max(a.length, b.length) && inputs === null; i++)
    if (a[i]?.line !== b[i]?.line) inputs = Math.min(a[i]?.tick ?? until, b[i]?.tick ?? until);
  const [p, q] = [editAt(one, until - 1), editAt(other, until - 1)];
  return {
    inputs,
    edits: p.edit === q.edit ? null : [p.edit, q.edit],
    seeds: one.seed === other.seed ? null : [one.seed, other.seed],
    beginnings:
      p.edit === q.edit &&
      one.seed === other.seed &&
      !sameBytes(one.snapshots[0].bytes, other.snapshots[0].bytes),
  };
}
