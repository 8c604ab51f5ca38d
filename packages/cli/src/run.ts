import {
  createWorld,
  endLine,
  entryLine,
  writtenEntry,
  type LedgerEntry,
  setRecorder,
  tick,
  worldHash,
} from '@crooked-lantern/core';
import { compiledFile } from './read-file.ts';

export interface RunOptions {
  seed?: number;
  seconds: number;
  json: boolean;
}

export function run(file: string, { seed, seconds, json }: RunOptions): number {
  const program = compiledFile(file, 'it was not run');
  if (!program) return 1;
  const world = createWorld(program, seed);
  const lines: string[] = [];
  setRecorder(world, (entry) =>
    lines.push(json ? entryLine(entry) : plain(entry, program.ticksPerSecond)),
  );
  const ticks = Math.round(seconds * program.ticksPerSecond);
  for (let i = 0; i < ticks; i++) {
    tick(world);
    if (lines.length > 1000) process.stdout.write(`${lines.splice(0).join('\n')}\n`);
  }
  const hash = worldHash(world);
  lines.push(json ? endLine(world.tick, hash) : `tick ${world.tick}, state hash ${hash}`);
  process.stdout.write(`${lines.join('\n')}\n`);
  return 0;
}

function plain(entry: LedgerEntry, ticksPerSecond: number): string {
  const { type: _, tick: _at, agent: _agent, kind: _kind, ...rest } = writtenEntry(entry);
  const { tick: at, agent, kind } = entry;
  return `${(at / ticksPerSecond).toFixed(3).padStart(9)} s  ${agent.padEnd(12)} ${kind.padEnd(10)} ${JSON.stringify(rest)}`;
}
