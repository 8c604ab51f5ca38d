import {
  createWorld,
  entryLine,
  hashLine,
  recordingAs,
  recordingHead,
  setRecorder,
  TABLE_HEAD,
  tableRow,
  tick,
  worldHash,
  writtenEntry,
  type LedgerEntry,
  type Program,
  type World,
} from '@crooked-lantern/core';
import type { Beginning } from './beginning.ts';
import { print } from './output.ts';
import { compiledFile } from './read-file.ts';

export const RUN_FORMATS = ['text', 'json', 'csv', 'trace'] as const;
/** For people, a recording of JSON Lines that the viewer opens, a table, or a timeline. */
export type RunFormat = (typeof RUN_FORMATS)[number];

export interface RunOptions extends Beginning {
  seed?: number;
  seconds: number;
  as: RunFormat;
}

/** How a run is written: what comes before it, of each entry, and after it. */
interface Writing {
  head: string;
  entry(entry: LedgerEntry): string;
  end(world: World): string;
}

/** Seconds of the run after which what it has recorded is written at the latest. */
const WRITE_SECONDS = 1;

export async function run(file: string, options: RunOptions): Promise<number> {
  const { seed, seconds } = options;
  const program = compiledFile(file, 'it was not run', options);
  if (!program) return 1;
  const world = createWorld(program, seed);
  const ticks = Math.round(seconds * program.ticksPerSecond);
  const writing = writingAs(options, program, seed ?? program.seed, ticks);
  let waiting = writing.head;
  setRecorder(world, (entry) => (waiting += writing.entry(entry)));
  for (let i = 1; i <= ticks; i++) {
    tick(world);
    if (waiting === '' || i % (WRITE_SECONDS * program.ticksPerSecond) !== 0) continue;
    const text = waiting;
    waiting = '';
    await print(text);
  }
  await print(waiting + writing.end(world));
  return 0;
}

function writingAs({ as }: RunOptions, program: Program, seed: number, ticks: number): Writing {
  const { title } = program;
  const { ticksPerSecond } = program;
  const run = { seed, keptFrom: 0, head: ticks, latest: { program, edit: 1 } };
  switch (as) {
    case 'text':
      return {
        head: '',
        entry: (entry) => `${plain(entry, ticksPerSecond)}\n`,
        end: (world) => `tick ${world.tick}, state hash ${worldHash(world)}\n`,
      };
    case 'json':
      return {
        head: `${recordingHead(run, title)}\n`,
        entry: (entry) => `${entryLine(entry)}\n`,
        end: (world) => `${hashLine(world.tick, worldHash(world))}\n`,
      };
    case 'csv':
      return {
        head: `${TABLE_HEAD}\r\n`,
        entry: (entry) => `${tableRow(entry, ticksPerSecond)}\r\n`,
        end: () => '',
      };
    case 'trace': {
      // Its spans are known only when they have ended.
      const entries: LedgerEntry[] = [];
      return {
        head: '',
        entry: (entry) => {
          entries.push(entry);
          return '';
        },
        end: () => `${recordingAs('trace', { ...run, entries }, title)}\n`,
      };
    }
  }
}

function plain(entry: LedgerEntry, ticksPerSecond: number): string {
  const { type: _, tick: _at, agent: _agent, kind: _kind, ...rest } = writtenEntry(entry);
  const { tick: at, agent, kind } = entry;
  return `${(at / ticksPerSecond).toFixed(3).padStart(9)} s  ${agent.padEnd(12)} ${kind.padEnd(10)} ${JSON.stringify(rest)}`;
}
