import { createHash } from 'node:crypto';
import { appendFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect } from 'vitest';
import { entryLine } from '../ledger/lines.ts';
import { advance, createRun, type Run } from '../ledger/run.ts';
import { distance } from '../numeric/distance.ts';
import { createStream, nextRandom } from '../numeric/random.ts';
import { tick } from '../world/phases/tick.ts';
import type { Input, Program } from '../world/program/program.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { createWorld, setRecorder, type World } from '../world/world.ts';
import { demo } from './demo.fixture.ts';

/** What must come out as it came out before: the files in `pinned` are part of the source. */

export const PINNED_DEMOS = [
  'keepers-duel',
  'windfall',
  'night-watch',
  'hive-day',
  'bell-hours',
  'harvest-night',
] as const;

/**
 * Goes up to the agents and things nearby in turn, and acts at random, by dice of its own; every four
 * seconds it is put down near an agent.
 */
export function restless(world: World, player: string): Input[] {
  const at = world.tick + 1;
  if (at % 15 !== 1) return [];
  const { agents, things } = world;
  const self = agents.find(({ name }) => name === player)!;
  const luck = createStream(at, player);
  const draw = <T>(from: readonly T[]): T => from[Math.floor(nextRandom(luck) * from.length)];
  const others = [...agents.filter((other) => other !== self && !other.away), ...things]
    .map(({ x, y }) => ({ x, y, away: distance(x, y, self.x, self.y) }))
    .sort((a, b) => a.away - b.away)
    .slice(0, 3);
  if (at % 240 === 31) {
    const { x, y } = draw(agents.filter((other) => other.minds.length > 0 && !other.away));
    return [{ agent: player, x: 0, y: 0, gait: null, place: [x + 2, y + draw([-1, 1])] }];
  }
  const { x, y, away } = draw(others);
  const moves = self.archetype.moves.map(({ name }) => name);
  const guards = self.archetype.guards.map(({ name }) => name);
  const gaits = world.statics.program.gaits.filter((_, i) => self.archetype.speeds[i] > 0);
  const act = draw([
    'pickUp',
    'pickUp',
    'drop',
    'throw',
    'use',
    'call',
    undefined,
    ...(moves.length > 0 ? (['strike', 'strike', 'strike', 'dodge'] as const) : []),
    ...(guards.length > 0 ? (['guard', 'lower'] as const) : []),
  ] as const);
  const move = act === 'guard' ? draw(guards) : act === 'strike' ? draw(moves) : undefined;
  return [
    {
      agent: player,
      x: away > 0 ? (x - self.x) / away : 0,
      y: away > 0 ? (y - self.y) / away : 0,
      gait: draw(gaits),
      ...(act ? { act } : {}),
      ...(act === 'throw' ? { at: [x, y] as [number, number] } : {}),
      ...(move ? { move } : {}),
    },
  ];
}

/** An entry as a line, its reasons in words alone. */
function lineInWords(entry: LedgerEntry): string {
  const line = JSON.parse(entryLine(entry)) as Record<string, unknown>;
  for (const name of ['reason', 'trouble'])
    if (line[name]) line[name] = (line[name] as { text: string }).text;
  return JSON.stringify(line);
}

/** A line that is compared, and what stands behind its digests: what each part of it is made of now. */
export interface DigestLine {
  line: string;
  /** By part of the line, such as `awareness`: what was digested. */
  made: ReadonlyMap<string, readonly string[]>;
}

function digest(lines: readonly string[]): string {
  const hash = createHash('sha256');
  for (const line of lines) hash.update(line);
  return hash.digest('hex').slice(0, 6);
}

/**
 * A line for each stretch of so many ticks: how many entries there are of each kind with a digest of them, and a
 * digest of where every body is.
 */
export function* linesOf(
  program: Program,
  seed: number,
  ticks: number,
  player: (world: World) => Input[] = () => [],
  stretch = 60,
): Generator<DigestLine> {
  const world = createWorld(program, seed);
  let entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  while (world.tick < ticks) {
    tick(world, player(world));
    if (world.tick % stretch > 0) continue;
    const made = new Map<string, string[]>([
      [
        'bodies',
        world.agents.map(({ name, x, y, life }) =>
          [name, x.toFixed(6), y.toFixed(6), life.health.toFixed(6)].join(),
        ),
      ],
    ]);
    for (const entry of entries) {
      const known = made.get(entry.kind);
      if (known) known.push(lineInWords(entry));
      else made.set(entry.kind, [lineInWords(entry)]);
    }
    const parts = [...made.keys()].sort().map((part) => {
      const lines = made.get(part)!;
      return `${part} ${lines.length} ${digest(lines)}`;
    });
    const title = `seed ${seed}, ticks ${world.tick - stretch + 1} to ${world.tick}`;
    yield { line: `${title}: ${parts.join(', ')}`, made };
    entries = [];
  }
}

/** Tells the script that runs all tests what was compared: a section that no test reads guards nothing. */
function noteRead(name: string): void {
  const log = process.env.PINNED_READ;
  if (log) appendFileSync(log, `${name}\n`);
}

function lineOf(each: string | DigestLine): string {
  return typeof each === 'string' ? each : each.line;
}

/** So much of what differs is shown. */
const SHOWN = 12;

/** Which parts of a line of digests differ, and what they are made of now. */
function whatDiffers(each: string | DigestLine, was = ''): string {
  if (typeof each === 'string' || each.line === was) return '';
  const before = new Set(was.split(/: |, /));
  const parts = each.line.split(/: |, /).slice(2);
  const differing = parts.filter((part) => !before.has(part)).map((part) => part.split(' ')[0]);
  return [
    `${each.line.split(': ')[0]}: ${differing.join(', ') || 'an entry that is gone'} differ`,
    ...differing.flatMap((part) => [
      `${part} now:`,
      ...(each.made.get(part) ?? []).slice(0, SHOWN),
    ]),
  ].join('\n');
}

/**
 * Lines must be those of a file beside this, or of a section of it (`file#section`), which is written where it is
 * missing. Compares as it goes, so that the first line that differs ends it.
 */
export function expectPinned(name: string, runs: readonly Iterable<string | DigestLine>[]): void {
  noteRead(name);
  const [base, section] = name.split('#');
  const file = path.join(import.meta.dirname, 'pinned', `${base}.txt`);
  const text = existsSync(file) ? readFileSync(file, 'utf8') : '';
  const pinned = sectionOf(text, section);
  if (pinned === null && !process.env.CI) {
    mkdirSync(path.dirname(file), { recursive: true });
    const lines = runs.flatMap((run) => [...run].map(lineOf));
    appendFileSync(file, `${[...(section ? [`[${section}]`] : []), ...lines].join('\n')}\n`);
    return;
  }
  expect(pinned, `${name} is not pinned`).not.toBeNull();
  for (const run of runs)
    for (const each of run) {
      const was = pinned!.shift();
      expect(lineOf(each), whatDiffers(each, was)).toBe(was);
    }
  expect(pinned).toEqual([]);
}

/**
 * A value on one line: maps as objects, numbers cut to six decimals. Of a long one the beginning, and a digest of
 * all of it.
 */
export function jsonLine(value: unknown): string {
  const line = JSON.stringify(value, (_, each: unknown) => {
    if (each instanceof Map) return Object.fromEntries(each);
    if (each instanceof Float32Array || each instanceof Float64Array) return Array.from(each);
    return typeof each === 'number' && !Number.isInteger(each) ? each.toFixed(6) : each;
  });
  if (line === undefined || line.length <= LONG) return String(line);
  const hash = createHash('sha256').update(line).digest('hex').slice(0, 10);
  return `${line.slice(0, LONG)}… ${line.length} characters, ${hash}`;
}

const LONG = 400;

/** The lines of a text, or of what stands in it under `[section]`; null where there is nothing such. */
function sectionOf(text: string, section: string | undefined): string[] | null {
  const lines = text.trimEnd().split('\n');
  if (section === undefined) return text === '' ? null : lines;
  const from = lines.indexOf(`[${section}]`);
  if (from < 0) return null;
  const to = lines.findIndex((line, i) => i > from && /^\[.*\]$/.test(line));
  return lines.slice(from + 1, to < 0 ? undefined : to);
}

/** A recorded run of a demo, played restlessly; no player from tick `until` on. */
export function playedDemo(name: string, ticks: number, seed = 1, until = Infinity): Run {
  const { program, player } = demo(name);
  const run = createRun(program, 1, seed);
  while (run.head < ticks) advance(run, run.head < until ? restless(run.world, player) : []);
  return run;
}
