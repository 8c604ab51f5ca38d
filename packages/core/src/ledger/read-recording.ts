import { isPlace } from '../numeric/place.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { readReason, type WrittenReason } from '../world/readout/reason-text.ts';
import type { RecordingHead } from './exports.ts';

/** Reads recordings that were exported as JSON Lines, without the project they are of. */

/** A recording that was read, or what is wrong with it, where. */
export type ReadRecording = { head: RecordingHead; entries: LedgerEntry[] } | { trouble: string };

type Kind = 'number' | 'string' | 'list' | 'reason' | 'place' | 'flag' | 'name or null';
type Fields = Readonly<Record<string, Kind>>;

/** What an entry of each kind must have besides its tick and agent; what may be left out is not listed. */
const FIELDS: { readonly [K in LedgerEntry['kind']]: Fields } = {
  enter: { state: 'string' },
  exit: { state: 'string' },
  transition: { from: 'string', order: 'number' },
  begin: { state: 'string', action: 'string' },
  end: { state: 'string', action: 'string', ending: 'string' },
  did: { action: 'string' },
  picked: { state: 'string', row: 'number', choice: 'string', score: 'number' },
  fired: { state: 'string', row: 'number' },
  overruled: { state: 'string', row: 'number', action: 'string', by: 'number' },
  skipped: { action: 'string' },
  percept: {
    sense: 'string',
    how: 'string',
    of: 'string',
    x: 'number',
    y: 'number',
    strength: 'number',
  },
  awareness: { value: 'number' },
  memory: { key: 'string', value: 'string' },
  kept: { key: 'string' },
  forgot: { key: 'string' },
  reached: { key: 'string', end: 'string', value: 'number' },
  overwrote: { key: 'string', of: 'string' },
  say: { text: 'string' },
  input: { x: 'number', y: 'number' },
  noise: { what: 'string', x: 'number', y: 'number', reach: 'number' },
  harm: { amount: 'number', left: 'number', by: 'string' },
  death: { by: 'string' },
  move: { move: 'string', lasts: 'number' },
  broken: { move: 'string', reason: 'reason' },
  hit: { move: 'string', of: 'string', result: 'string', harm: 'number', x: 'number', y: 'number' },
  knocked: { move: 'string', thing: 'string', x: 'number', y: 'number' },
  sleeps: {},
  wakes: {},
  recycled: { x: 'number', y: 'number' },
  role: { role: 'string' },
  stuck: { x: 'number', y: 'number', reason: 'reason' },
  cycle: { states: 'list' },
  dropped: { events: 'number' },
  noWay: { x: 'number', y: 'number', reason: 'reason' },
  came: { wave: 'string', at: 'string', x: 'number', y: 'number' },
  left: {},
  wave: { wave: 'string', how: 'string', times: 'number' },
  mode: { mode: 'string' },
  score: { score: 'string', by: 'number', value: 'number' },
  announced: { event: 'string', to: 'string' },
  result: { how: 'string', words: 'string' },
  edit: { edit: 'number' },
  moved: { from: 'string', to: 'string' },
};

/** What an entry may have besides, and what that is then. */
const OPTIONAL: { readonly [K in LedgerEntry['kind']]?: Fields } = {
  transition: { to: 'name or null', on: 'string', when: 'string', values: 'list' },
  begin: { row: 'number' },
  end: { row: 'number', reason: 'reason' },
  picked: {
    option: 'name or null',
    of: 'string',
    next: 'string',
    margin: 'number',
    ties: 'number',
  },
  forgot: { of: 'string' },
  reached: { of: 'string' },
  input: {
    gait: 'name or null',
    act: 'string',
    at: 'place',
    move: 'string',
    place: 'place',
    control: 'string',
    trouble: 'reason',
  },
  move: { of: 'string' },
  hit: { z: 'number', missedBy: 'number' },
  wave: { reason: 'reason' },
  mode: { seconds: 'number', laidOver: 'flag' },
};

/** A run of so many ticks at most can be drawn: two days at 60 a second. */
const MOST_TICKS = 10_368_000;
const MOST_PER_SECOND = 1000;
const MOST_AGENTS = 20_000;

/** The fields that hold reasons, wherever they stand. */
const REASONS = ['reason', 'trouble'] as const;

/** A reason of version 1 is text alone. */
function isReason(value: unknown): value is string | WrittenReason {
  if (typeof value === 'string') return true;
  if (typeof value !== 'object' || value === null) return false;
  const { code, text, values = [] } = value as Partial<WrittenReason>;
  return typeof code === 'string' && typeof text === 'string' && Array.isArray(values);
}

function isOf(value: unknown, type: Kind): boolean {
  switch (type) {
    case 'reason':
      return isReason(value);
    case 'list':
      return Array.isArray(value);
    case 'place':
      return isPlace(value);
    case 'name or null':
      return value === null || typeof value === 'string';
    case 'flag':
      return typeof value === 'boolean';
    default:
      return typeof value === type;
  }
}

const SAID: Partial<Record<Kind, string>> = {
  string: 'text',
  place: 'list of two numbers',
  'name or null': 'text, or null,',
};

/** What is wrong with an entry, in words; null where nothing is. */
function faultOf(entry: Record<string, unknown>, last: number, head: RecordingHead): string | null {
  const { tick, agent, mind, kind } = entry;
  if (!Number.isInteger(tick) || typeof agent !== 'string')
    return 'an entry has a whole number as “tick” and a text as “agent”.';
  if (mind !== undefined && typeof mind !== 'string') return '“mind” is a text.';
  if ((tick as number) < head.from || (tick as number) > head.to)
    return `its tick is outside of the run, which goes from ${head.from} to ${head.to}.`;
  if ((tick as number) < last) return 'its tick is before that of the line above.';
  if (typeof kind !== 'string' || !Object.hasOwn(FIELDS, kind))
    return `${typeof kind === 'string' ? `“${kind}”` : 'What is no text'} is no kind of entry.`;
  const needed: Fields = FIELDS[kind as LedgerEntry['kind']];
  const optional: Fields = OPTIONAL[kind as LedgerEntry['kind']] ?? {};
  const missing =
    Object.keys(needed).find((name) => !isOf(entry[name], needed[name])) ??
    Object.keys(optional).find(
      (name) => entry[name] !== undefined && !isOf(entry[name], optional[name]),
    );
  if (missing === undefined)
    return kind === 'move' &&
      !((entry.lasts as number) >= 0 && (entry.lasts as number) <= MOST_TICKS)
      ? `a move lasts from 0 to ${MOST_TICKS} ticks.`
      : null;
  const type = needed[missing] ?? optional[missing];
  if (type === 'reason' && !(missing in needed))
    return `“${missing}” is a text, or has a “code” and a “text”.`;
  return `an entry of kind “${kind}” has a ${SAID[type] ?? type} as “${missing}”.`;
}

function isHead(value: object): value is RecordingHead {
  const { title, ticksPerSecond, seed, from, to, agents } = value as Partial<RecordingHead>;
  return (
    typeof title === 'string' &&
    [ticksPerSecond, seed, from, to].every(Number.isInteger) &&
    Array.isArray(agents) &&
    agents.every(
      (agent) =>
        typeof agent?.name === 'string' &&
        typeof agent.title === 'string' &&
        (agent.asleep === undefined || agent.asleep === true),
    )
  );
}

/** What is wrong with the first line; null where nothing is. */
function faultOfHead(
  { type, format, version }: Record<string, unknown>,
  head: object,
): string | null {
  if (type !== 'run' || format !== 'crooked-lantern/recording')
    return 'a recording begins with a line of type “run” that says its format.';
  if (version !== 1 && version !== 2)
    return `version ${String(version)} can’t be read here; versions 1 and 2 can.`;
  if (!isHead(head)) return 'the first line lacks a field, or has one of another kind.';
  const { ticksPerSecond, from, to, agents } = head;
  if (ticksPerSecond < 1 || ticksPerSecond > MOST_PER_SECOND)
    return `“ticksPerSecond” is ${ticksPerSecond}; it is from 1 to ${MOST_PER_SECOND}.`;
  if (from < 0 || to < from || to - from > MOST_TICKS)
    return `it goes from tick ${from} to ${to}; a recording goes onward, over ${MOST_TICKS} ticks at most.`;
  if (agents.length > MOST_AGENTS)
    return `it has ${agents.length} agents; ${MOST_AGENTS} at most can be shown.`;
  return null;
}

/** Reads JSON Lines as they are exported. */
export function readRecording(text: string): ReadRecording {
  let head: RecordingHead | null = null;
  const entries: LedgerEntry[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const said = (what: string) => ({ trouble: `Line ${i + 1}: ${what}` });
    let value: unknown;
    try {
      value = JSON.parse(line);
    } catch {
      value = null;
    }
    if (typeof value !== 'object' || value === null)
      return said('this is no JSON object; each line of a recording is one.');
    const { type, ...rest } = value as Record<string, unknown>;
    if (head === null) {
      const fault = faultOfHead(value as Record<string, unknown>, value);
      if (fault !== null) return said(fault);
      head = value as RecordingHead;
    } else if (type === 'entry') {
      const fault = faultOf(rest, entries.at(-1)?.tick ?? 0, head);
      if (fault !== null) return said(fault);
      for (const name of REASONS) if (isReason(rest[name])) rest[name] = readReason(rest[name]);
      entries.push(rest as unknown as LedgerEntry);
    } else if (type !== 'hash' && type !== 'end')
      return said(`“${String(type)}” is no type of line.`);
  }
  return head ? { head, entries } : { trouble: 'The file is empty.' };
}
