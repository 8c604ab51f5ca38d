import { because } from '../terms/reasons.ts';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { compiled, nightWatch } from '../testing/demo.fixture.ts';
import { entryLine } from './lines.ts';
import { recordingAs, recordingTrace, TABLE_COLUMNS } from './exports.ts';
import { readRecording } from './read-recording.ts';
import { advance, createRun, type Run } from './run.ts';

/** Ten seconds of Night Watch in which the gleaner runs about. */
function ran(): Run {
  const run = createRun(compiled(nightWatch()), 1, 7);
  for (let i = 1; i <= 600; i++)
    advance(run, i % 150 === 1 ? [{ agent: 'gleaner', x: i % 2, y: -1, gait: 'run' }] : []);
  return run;
}
const run = ran();

describe('a recording as JSON Lines', () => {
  it('is read again as it was, with what it says of itself', () => {
    const read = readRecording(recordingAs('lines', run, 'Night'));
    if ('trouble' in read) throw new Error(read.trouble);
    expect(read.entries.map(entryLine)).toEqual(run.entries.map(entryLine));
    expect(read.head).toMatchObject({ title: 'Night', seed: 7, from: 0, to: 600, edit: 1 });
    expect(read.head.agents).toContainEqual({ name: 'warden2', title: 'Warden 2' });
  });

  const lines = recordingAs('lines', run, 'Night').split('\n');
  const withLine = (at: number, line: string) =>
    readRecording([...lines.slice(0, at - 1), line, ...lines.slice(at)].join('\n'));

  it.each([
    ['nothing', 1, '', /begins with a line of type “run”|is empty/],
    ['no JSON', 3, '{"tick":', /^Line 3: this is no JSON/],
    ['a list', 2, '[]', /^Line 2: “undefined” is no type of line/],
    [
      'another version',
      1,
      lines[0].replace('"version":2', '"version":3'),
      /version 3 can’t be read/,
    ],
    ['a first line without agents', 1, lines[0].replace('agents', 'others'), /lacks a field/],
    [
      'no tick',
      2,
      '{"type":"entry","agent":"a","kind":"did","action":"x"}',
      /whole number as “tick”/,
    ],
    [
      'an unknown kind',
      2,
      '{"type":"entry","tick":0,"agent":"a","kind":"sang"}',
      /“sang” is no kind/,
    ],
    [
      'a missing field',
      2,
      '{"type":"entry","tick":0,"agent":"a","kind":"enter"}',
      /a text as “state”/,
    ],
    [
      'a tick that goes back',
      lines.length - 1,
      '{"type":"entry","tick":1,"agent":"a","kind":"did","action":"x"}',
      /before that of the line above/,
    ],
  ])('with %s says where and what', (_, at, line, words) => {
    expect(withLine(at, line)).toEqual({ trouble: expect.stringMatching(words) });
  });
});

/** As it is written; a text alone is one of version 1. */
const A_REASON = { code: 'handsFull', text: 'the hands are full' };

/** What an entry of each kind has, as the docs say it: its fields, with examples of them. */
function documented(): [kind: string, fields: Record<string, unknown>][] {
  const docs = readFileSync(
    path.resolve(import.meta.dirname, '../../../../docs/recordings.md'),
    'utf8',
  );
  const table = docs.slice(docs.indexOf('| kind '), docs.indexOf('Such a file'));
  return [...table.matchAll(/^\| `(\w+)` +\|[^|]+\|(.*)\|$/gm)].map(([, kind, fields]) => [
    kind,
    Object.fromEntries(
      [...fields.matchAll(/`(\w+)`( \((\w+)\))?/g)].map(([, field, , type]) => [
        field,
        type === 'number' ? 2 : type === 'list' ? ['a'] : type === 'reason' ? A_REASON : 'a',
      ]),
    ),
  ]);
}

it('says who begins asleep', () => {
  const { agents } = run.latest.program;
  const read = readRecording(recordingAs('lines', run, 'Night'));
  if ('trouble' in read) throw new Error(read.trouble);
  const asleep = read.head.agents.map((agent) => agent.asleep === true);
  expect(asleep).toEqual(agents.map((agent) => agent.asleep));
  expect(asleep).toContain(true);
});

it('a recording of version 1, whose reasons are text alone, opens', () => {
  const [head] = recordingAs('lines', run, 'Night').split('\n');
  const old = head.replace('"version":2', '"version":1');
  const entry = {
    type: 'entry',
    tick: 5,
    agent: 'a',
    kind: 'stuck',
    x: 1,
    y: 1,
    reason: 'held up',
  };
  expect(readRecording(`${old}\n${JSON.stringify(entry)}\n`)).toMatchObject({
    entries: [{ kind: 'stuck', reason: because('text', 'held up') }],
  });
});

it('a reason that is neither text nor code is refused', () => {
  const [head] = recordingAs('lines', run, 'Night').split('\n');
  const entry = { type: 'entry', tick: 5, agent: 'a', kind: 'end', state: 's', action: 'wait' };
  const read = readRecording(
    `${head}\n${JSON.stringify({ ...entry, ending: 'failure', reason: { code: 3 } })}\n`,
  );
  expect(read).toEqual({ trouble: 'Line 2: “reason” is a text, or has a “code” and a “text”.' });
});

describe('what no run can have written', () => {
  const [line] = recordingAs('lines', run, 'Night').split('\n');
  const head = JSON.parse(line) as Record<string, unknown>;
  const entry = { type: 'entry', tick: 5, agent: 'a', kind: 'exit', state: 's' };
  const trouble = (more: Record<string, unknown>, ...entries: Record<string, unknown>[]) => {
    const read = readRecording(
      [{ ...head, ...more }, ...entries].map((each) => JSON.stringify(each)).join('\n'),
    );
    return 'trouble' in read ? read.trouble : null;
  };

  it.each<[Record<string, unknown>, RegExp]>([
    [{ to: 1e15 }, /Line 1: it goes from tick 0 to 1000000000000000; a recording goes onward/],
    [{ from: 50, to: 20 }, /goes onward/],
    [{ from: -3 }, /goes onward/],
    [{ ticksPerSecond: 0 }, /“ticksPerSecond” is 0; it is from 1 to 1000/],
    [{ agents: Array.from({ length: 20_001 }, () => ({ name: 'a', title: 'A' })) }, /20001 agents/],
    [{ agents: [null] }, /lacks a field/],
    [{ agents: [{ name: 'a', title: 'A', asleep: 'yes' }] }, /lacks a field/],
  ])('is refused in the head: %j', (more, words) => {
    expect(trouble({})).toBeNull();
    expect(trouble(more)).toMatch(words);
  });

  it.each<[Record<string, unknown>, RegExp]>([
    [{ tick: 1e12 }, /Line 2: its tick is outside of the run, which goes from 0 to 600/],
    [{ mind: 7 }, /“mind” is a text/],
    [{ kind: 'begin', action: 'wait', row: 'first' }, /has a number as “row”/],
    [{ kind: 'transition', from: 's', order: 1, to: 3 }, /has a text, or null, as “to”/],
    [{ kind: 'input', x: 0, y: 0, at: [1, null] }, /a list of two numbers as “at”/],
    [{ kind: 'move', move: 'm', lasts: 1e300 }, /a move lasts from 0 to/],
    [{ kind: 'move', move: 'm', lasts: -1 }, /a move lasts from 0 to/],
  ])('is refused in an entry: %j', (more, words) => {
    expect(trouble({}, entry)).toBeNull();
    expect(trouble({}, { ...entry, ...more })).toMatch(words);
  });
});

describe('an entry of a recording', () => {
  const [head] = recordingAs('lines', run, 'Night').split('\n');
  const read = (kind: string, fields: Record<string, unknown>) =>
    readRecording(
      `${head}\n${JSON.stringify({ type: 'entry', tick: 5, agent: 'a', kind, ...fields })}\n`,
    );

  it('is documented for all kinds there are in a run', () => {
    const kinds = new Set(documented().map(([kind]) => kind));
    expect(kinds.size).toBeGreaterThan(40);
    expect(run.entries.filter(({ kind }) => !kinds.has(kind))).toEqual([]);
  });

  it.each(documented())(
    'of kind %s has what the docs say, and is refused without any of it',
    (kind, fields) => {
      expect(read(kind, fields)).toMatchObject({ entries: [{ kind, tick: 5 }] });
      for (const [field, value] of Object.entries(fields)) {
        const type =
          value === A_REASON
            ? 'reason'
            : Array.isArray(value)
              ? 'list'
              : typeof value === 'number'
                ? 'number'
                : 'text';
        const words = `Line 2: an entry of kind “${kind}” has a ${type} as “${field}”.`;
        expect(read(kind, { ...fields, [field]: undefined })).toEqual({ trouble: words });
        expect(read(kind, { ...fields, [field]: true })).toEqual({ trouble: words });
      }
    },
  );
});

describe('a recording as CSV', () => {
  const rows = recordingAs('table', run, 'Night').trimEnd().split('\r\n');

  it('has a heading and a row for each entry, in order', () => {
    expect(rows[0]).toBe(`tick,seconds,${TABLE_COLUMNS.join(',')}`);
    expect(rows).toHaveLength(1 + run.entries.length);
    const [first] = run.entries;
    expect(rows[1].startsWith(`${first.tick},`)).toBe(true);
  });

  it('quotes what has commas and quotes in it', () => {
    const text = {
      ...run,
      entries: [{ tick: 60, agent: 'a', kind: 'say' as const, text: 'No, "you"' }],
    };
    expect(recordingAs('table', text, 'Night')).toContain('60,1,a,,say');
    expect(recordingAs('table', text, 'Night')).toContain('"No, ""you"""');
  });
});

describe('a recording in the Trace Event Format', () => {
  interface Event {
    name: string;
    cat?: string;
    ph: string;
    ts: number;
    dur?: number;
    tid: number;
  }
  const { traceEvents } = JSON.parse(recordingTrace(run, 'Night')) as { traceEvents: Event[] };
  const of = (ph: string) => traceEvents.filter((event) => event.ph === ph);

  it('has a thread for each agent, and spans that never run backwards or past the end', () => {
    expect(of('M')).toHaveLength(1 + run.latest.program.agents.length);
    for (const { ts, dur, cat } of of('X')) {
      expect(dur).toBeGreaterThanOrEqual(0);
      if (cat !== 'move') expect(ts + dur!).toBeLessThanOrEqual(10_000_000);
    }
  });

  it('has a span for each time a state was entered', () => {
    const entered = run.entries.filter(({ kind }) => kind === 'enter');
    expect(of('X').filter(({ cat }) => cat === 'state')).toHaveLength(entered.length);
  });
});
