import type { LedgerEntry } from '../world/state/recorder.ts';
import type { WrittenReason } from '../world/readout/reason-text.ts';
import { entryLine } from './lines.ts';
import type { RunPast } from './run.ts';

/** What a run recorded, as files that other programs read. Their columns and fields stand in docs/recordings.md. */

/** What a recording says of itself, before its entries. */
export interface RecordingHead {
  type: 'run';
  format: 'crooked-lantern/recording';
  version: 2;
  title: string;
  ticksPerSecond: number;
  seed: number;
  edit: number;
  /** The first tick and the last. */
  from: number;
  to: number;
  agents: RecordedAgent[];
}

interface RecordedAgent {
  name: string;
  title: string;
  /** It begins asleep, and is so until it is woken or hit. */
  asleep?: true;
}

/** What exports take from a run, wherever it is kept. */
export type Recorded = Pick<RunPast, 'seed' | 'keptFrom' | 'head' | 'entries'> & {
  latest: Pick<RunPast['latest'], 'program' | 'edit'>;
};

function headOf(
  { seed, keptFrom, head, latest }: Omit<Recorded, 'entries'>,
  title: string,
): RecordingHead {
  const { ticksPerSecond, agents } = latest.program;
  return {
    type: 'run',
    format: 'crooked-lantern/recording',
    version: 2,
    title,
    ticksPerSecond,
    seed,
    edit: latest.edit,
    from: keptFrom,
    to: head,
    agents: agents.map(({ name, title: called, asleep }) => ({
      name,
      title: called,
      ...(asleep && { asleep }),
    })),
  };
}

/** The first line of JSON Lines; an entry a line follows, in the order they were recorded. */
export function recordingHead(run: Omit<Recorded, 'entries'>, title: string): string {
  return JSON.stringify(headOf(run, title));
}

function recordingLines(run: Recorded, title: string): string {
  return [recordingHead(run, title), ...run.entries.map(entryLine)].join('\n') + '\n';
}

/** The columns of the table, after tick and seconds. */
export const TABLE_COLUMNS = [
  'agent',
  'mind',
  'kind',
  'state',
  'to',
  'order',
  'row',
  'action',
  'ending',
  'choice',
  'option',
  'score',
  'sense',
  'how',
  'of',
  'key',
  'value',
  'move',
  'result',
  'harm',
  'amount',
  'left',
  'by',
  'x',
  'y',
  'reason',
  'text',
] as const;

/** A field as RFC 4180 has it. */
function field(value: unknown): string {
  if (value === undefined || value === null) return '';
  const text = typeof value === 'object' ? JSON.stringify(value) : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** The heading of the table: CSV (RFC 4180), an entry a row; what has no column of its own is left to JSON Lines. */
export const TABLE_HEAD = ['tick', 'seconds', ...TABLE_COLUMNS].join(',');

/** An entry as a row of the table. */
export function tableRow(entry: LedgerEntry, ticksPerSecond: number): string {
  const written = JSON.parse(entryLine(entry)) as Record<string, unknown>;
  const { reason } = written as { reason?: WrittenReason };
  const values: Record<string, unknown> = { ...written, reason: reason?.text };
  // A transition leaves the state it comes from.
  const from = entry.kind === 'transition' ? entry.from : values.state;
  const cells = TABLE_COLUMNS.map((column) => field(column === 'state' ? from : values[column]));
  return [entry.tick, Number((entry.tick / ticksPerSecond).toFixed(6)), ...cells].join(',');
}

function recordingTable({ latest, entries }: Recorded): string {
  const { ticksPerSecond } = latest.program;
  const rows = entries.map((entry) => tableRow(entry, ticksPerSecond));
  return [TABLE_HEAD, ...rows].join('\r\n') + '\r\n';
}

/** One event of the Trace Event Format; times in microseconds. */
interface TraceEvent {
  name: string;
  cat?: string;
  ph: 'X' | 'i' | 'C' | 'M';
  ts: number;
  dur?: number;
  pid: number;
  tid: number;
  s?: 't';
  args?: Record<string, unknown>;
}

/** What lasts, by what begins and ends it. */
class Spans {
  private readonly begun = new Map<string, { name: string; tick: number; tid: number }>();
  private readonly put: (name: string, tid: number, from: number, to: number) => void;
  constructor(put: (name: string, tid: number, from: number, to: number) => void) {
    this.put = put;
  }
  begin(key: string, name: string, tid: number, tick: number): void {
    this.end(key, tick);
    this.begun.set(key, { name, tick, tid });
  }
  end(key: string, tick: number): void {
    const span = this.begun.get(key);
    if (!span) return;
    this.begun.delete(key);
    this.put(span.name, span.tid, span.tick, tick);
  }
  endAll(tick: number): void {
    for (const key of this.begun.keys()) this.end(key, tick);
  }
}

/** Trace Event Format, as general viewers of timelines read it: an agent a thread, states, rows and moves as spans, the rest as marks. */
export function recordingTrace(run: Recorded, title: string): string {
  const { ticksPerSecond, agents } = run.latest.program;
  const at = (tick: number) => Math.round((tick * 1_000_000) / ticksPerSecond);
  const events: TraceEvent[] = [
    { name: 'process_name', ph: 'M', ts: 0, pid: 1, tid: 0, args: { name: title } },
    ...agents.map(({ name, title: called }, i): TraceEvent => ({
      name: 'thread_name',
      ph: 'M',
      ts: 0,
      pid: 1,
      tid: i + 1,
      args: { name: `${called} (${name})` },
    })),
  ];
  const threads = new Map(agents.map(({ name }, i) => [name, i + 1]));
  const states = new Spans((name, tid, from, to) =>
    events.push({ name, cat: 'state', ph: 'X', ts: at(from), dur: at(to) - at(from), pid: 1, tid }),
  );
  const rows = new Spans((name, tid, from, to) =>
    events.push({ name, cat: 'row', ph: 'X', ts: at(from), dur: at(to) - at(from), pid: 1, tid }),
  );
  for (const entry of run.entries) {
    const tid = threads.get(entry.agent) ?? 0;
    const mark = (name: string) =>
      events.push({
        name,
        cat: entry.kind,
        ph: 'i',
        s: 't',
        ts: at(entry.tick),
        pid: 1,
        tid,
        args: argsOf(entry),
      });
    const whose = `${entry.agent} ${entry.mind ?? ''}`;
    if (entry.kind === 'enter')
      states.begin(`${whose} ${entry.state}`, entry.state, tid, entry.tick);
    else if (entry.kind === 'exit') states.end(`${whose} ${entry.state}`, entry.tick);
    else if (entry.kind === 'begin')
      rows.begin(`${whose} ${entry.state} ${entry.row}`, entry.action, tid, entry.tick);
    else if (entry.kind === 'end') rows.end(`${whose} ${entry.state} ${entry.row}`, entry.tick);
    else if (entry.kind === 'move')
      events.push({
        name: entry.move,
        cat: 'move',
        ph: 'X',
        ts: at(entry.tick),
        dur: at(entry.lasts),
        pid: 1,
        tid,
      });
    else if (entry.kind === 'awareness')
      events.push({
        name: `awareness of ${entry.agent}`,
        ph: 'C',
        ts: at(entry.tick),
        pid: 1,
        tid,
        args: { awareness: entry.value },
      });
    else mark(entry.kind);
  }
  states.endAll(run.head);
  rows.endAll(run.head);
  return JSON.stringify({ displayTimeUnit: 'ms', traceEvents: events });
}

function argsOf(entry: LedgerEntry): Record<string, unknown> {
  const { tick: _, agent: __, kind: ___, ...rest } = entry;
  return rest;
}

export const RECORDING_FORMATS = {
  lines: { title: 'JSON Lines', ending: '.recording.jsonl', type: 'application/jsonl' },
  table: { title: 'CSV', ending: '.recording.csv', type: 'text/csv' },
  trace: { title: 'Trace Event Format', ending: '.trace.json', type: 'application/json' },
} as const;

export type RecordingFormat = keyof typeof RECORDING_FORMATS;

export function recordingAs(format: RecordingFormat, run: Recorded, title: string): string {
  if (format === 'lines') return recordingLines(run, title);
  return format === 'table' ? recordingTable(run) : recordingTrace(run, title);
}
