import type { LedgerEntry } from '../world/state/recorder.ts';
import { readReason, type WrittenReason } from '../world/readout/reason-text.ts';
import type { RecordingHead } from './exports.ts';

/** Reads recordings that were exported as JSON Lines, without the project they are of. */

/** A recording that was read, or what is wrong with it, where. */
export type ReadRecording = { head: RecordingHead; entries: LedgerEntry[] } | { trouble: string };

type Fields = Readonly<Record<string, 'number' | 'string' | 'list' | 'reason'>>;

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

/** The fields that hold reasons, wherever they stand. */
const REASONS = ['reason', 'trouble'] as const;

/** A reason of version 1 is text alone. */
function isReason(value: unknown): value is string | WrittenReason {
  if (typeof value === 'string') return true;
  if (typeof value !== 'object' || value === null) return false;
  const { code, text, values = [] } = value as Partial<WrittenReason>;
  return typeof code === 'string' && typeof text === 'string' && Array.isArray(values);
}

function isOf(value: unknown, type: Fields[string]): boolean {
  if (type === 'reason') return isReason(value);
  return type === 'list' ? Array.isArray(value) : typeof value === type;
}

/** What is wrong with an entry, in words; null where nothing is. */
function faultOf(entry: Record<string, unknown>, last: number): string | null {
  const { tick, agent, kind } = entry;
  if (!Number.isInteger(tick) || typeof agent !== 'string')
    return 'an entry has a whole number as “tick” and a text as “agent”.';
  if ((tick as number) < last) return 'its tick is before that of the line above.';
  if (typeof kind !== 'string' || !Object.hasOwn(FIELDS, kind))
    return `“${String(kind)}” is no kind of entry.`;
  const fields: Fields = FIELDS[kind as LedgerEntry['kind']];
  const missing = Object.keys(fields).find((name) => !isOf(entry[name], fields[name]));
  const faulty = REASONS.find((name) => entry[name] !== undefined && !isReason(entry[name]));
  if (missing === undefined && faulty !== undefined)
    return `“${faulty}” is a text, or has a “code” and a “text”.`;
  return missing === undefined
    ? null
    : `an entry of kind “${kind}” has a ${fields[missing] === 'string' ? 'text' : fields[missing]} as “${missing}”.`;
}

function isHead(value: object): value is RecordingHead {
  const { title, ticksPerSecond, seed, from, to, agents } = value as Partial<RecordingHead>;
  return (
    typeof title === 'string' &&
    [ticksPerSecond, seed, from, to].every(Number.isInteger) &&
    ticksPerSecond! > 0 &&
    Array.isArray(agents) &&
    agents.every((agent) => typeof agent?.name === 'string' && typeof agent.title === 'string')
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
  return isHead(head) ? null : 'the first line lacks a field, or has one of another kind.';
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
      const fault = faultOf(rest, entries.at(-1)?.tick ?? 0);
      if (fault !== null) return said(fault);
      for (const name of REASONS) if (isReason(rest[name])) rest[name] = readReason(rest[name]);
      entries.push(rest as unknown as LedgerEntry);
    } else if (type !== 'hash' && type !== 'end')
      return said(`“${String(type)}” is no type of line.`);
  }
  return head ? { head, entries } : { trouble: 'The file is empty.' };
}
