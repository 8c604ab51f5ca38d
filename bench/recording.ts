import {
  advance,
  createRun,
  createWorld,
  seek,
  tick,
  type Input,
  type Program,
  type Run,
} from '@crooked-lantern/core';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { median, rounded, timed, type Figure } from './measure.ts';
import { largeOrchard, NIGHT_WATCH, strolling } from './orchards.ts';

/** What it costs to keep a run with its past, to go back in it, and to run without keeping anything. */

const WARDENS = 44;
const MINUTES = 10;
const SEEKS = 200;

/** A player who is never still: every tenth of a second another key. */
function busy(program: Program, at: number): Input[] {
  const others = strolling(program, at);
  if (at % 6 !== 1) return others;
  const name = program.agents.find((agent) => agent.name.startsWith('gleaner'))!.name;
  const turn = Math.floor(at / 6);
  const keys = { x: (turn % 3) - 1, y: ((turn >> 2) % 3) - 1, gait: turn % 5 === 0 ? 'run' : null };
  return [...others.filter(({ agent }) => agent !== name), { agent: name, ...keys }];
}

/** Ten minutes of Night Watch with 50 agents, recorded as the pages do. */
function record(): Run {
  const program = largeOrchard(WARDENS, () => {}, NIGHT_WATCH);
  const run = createRun(program, 1);
  const ticks = MINUTES * 60 * program.ticksPerSecond;
  while (run.head < ticks) advance(run, busy(program, run.head + 1));
  return run;
}

/** Megabytes in use once all that can go is gone. */
function megabytes(): number {
  setFlagsFromString('--expose-gc');
  const collect = runInNewContext('gc') as () => void;
  collect();
  collect();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return (heapUsed + arrayBuffers) / 1e6;
}

/** The recording, made once for both figures; it is let go after the second. */
let kept: { run: Run; mb: number } | null = null;

function recording(): { run: Run; mb: number } {
  if (kept) return kept;
  const before = megabytes();
  const run = record();
  kept = { run, mb: megabytes() - before };
  return kept;
}

export function memory(): Figure {
  const { run, mb } = recording();
  return {
    figure: 'memory.mb',
    value: rounded(mb),
    unit: 'MB of a recording, 10 minutes, 50 agents, a busy player',
    goal: '<= 32',
    detail: {
      agents: run.world.agents.length,
      snapshots: run.snapshots.length,
      entries: run.entries.length,
      inputs: run.inputs.length,
    },
  };
}

export function seeking(): Figure {
  const { run } = recording();
  const times = Array.from({ length: SEEKS }, (_, i) => {
    // Far apart, and at every distance from a snapshot.
    const goal = (i * 7919 + (i % 60)) % run.head;
    return timed(() => seek(run, goal));
  }).sort((a, b) => a - b);
  kept = null;
  return {
    figure: 'seek.p95_ms',
    value: rounded(times[Math.floor(SEEKS * 0.95)]),
    unit: 'ms until any tick of that recording is back, 95 of 100',
    goal: '<= 33',
    detail: { median_ms: rounded(median(times)), longest_ms: rounded(times[SEEKS - 1]) },
  };
}

/** How much faster than life a batch goes: nobody watches, nothing is recorded. */
export function batch(): Figure {
  const program = largeOrchard(WARDENS, () => {}, NIGHT_WATCH);
  const world = createWorld(program);
  const second = program.ticksPerSecond;
  const play = () => {
    for (let i = 0; i < 10 * second; i++) tick(world, busy(program, world.tick + 1));
  };
  play();
  const times = Array.from({ length: 9 }, () => timed(play));
  return {
    figure: 'batch.speed',
    value: rounded(10_000 / median(times)),
    unit: 'seconds of play a core-second, 50 agents, nothing recorded',
    goal: '>= 200',
    detail: { tick_us: rounded((median(times) * 1000) / (10 * second)) },
  };
}
