import {
  advance,
  advanceTo,
  bindBreakpoints,
  checkProject,
  createObserver,
  createRun,
  createWorld,
  observe,
  seek,
  tick,
  watchFor,
  whatEverLedTo,
  why,
  whyNotNamed,
  type Input,
  type Program,
  type Run,
} from '@crooked-lantern/core';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { median, rounded, slowest, timed, type Figure } from './measure.ts';
import { largeOrchard, largeProject, NIGHT_WATCH, strolling } from './orchards.ts';

/** What it costs to keep a run with its past, to go back in it, and to run without keeping anything. */

/** With the rest of the night, 200 agents. */
const WATCHED_WARDENS = 176;
/** The same, 50. */
const WARDENS = 44;
const MINUTES = 10;
const SEEKS = 200;
const QUESTIONS = 150;
/** Ticks of one agent that an answer looks back, as the pages ask for it. */
const AGENT_TICKS = 7_000;
const FAR_SECONDS = 60;

/** A player who is never still: every tenth of a second another key. */
function busy(program: Program, at: number): Input[] {
  const others = strolling(program, at);
  if (at % 6 !== 1) return others;
  const name = program.agents.find((agent) => agent.name.startsWith('gleaner'))!.name;
  const turn = Math.floor(at / 6);
  const keys = { x: (turn % 3) - 1, y: ((turn >> 2) % 3) - 1, gait: turn % 5 === 0 ? 'run' : null };
  return [...others.filter(({ agent }) => agent !== name), { agent: name, ...keys }];
}

/** Ten minutes of Night Watch with 200 agents, recorded as the pages do. */
function record(): Run {
  const program = largeOrchard(WATCHED_WARDENS, () => {}, NIGHT_WATCH);
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

/** The recording, made once for all figures of it; it is let go after the last. */
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
    unit: 'MB of a recording, 10 minutes, 200 agents, a busy player',
    goal: '<= 64',
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
  });
  const { p95, median: middle, most } = slowest(times);
  return {
    figure: 'seek.p95_ms',
    value: p95,
    unit: 'ms until any tick of that recording is back, 95 of 100',
    goal: '<= 33',
    detail: { median_ms: middle, longest_ms: most },
  };
}

/** Questions of every kind about agents and ticks all over the recording. */
export function asking(): Figure {
  const { run } = recording();
  const thinkers = run.world.agents.filter(({ minds }) => minds.length > 0);
  const times = Array.from({ length: QUESTIONS }, (_, i) => {
    const { name, minds } = thinkers[(i * 31) % thinkers.length];
    const question = {
      run,
      agent: name,
      tick: 1 + ((i * 104_729) % (run.head - 1)),
      back: Math.ceil(AGENT_TICKS / run.world.agents.length),
    };
    const { states } = minds[0].program.machine;
    const state = states[(i * 7) % states.length].id;
    return timed(() => {
      if (i % 3 === 0) why(question);
      else if (i % 3 === 1) whyNotNamed(question, state);
      else whatEverLedTo(question, state);
    });
  });
  kept = null;
  const { p95, median: middle, most } = slowest(times);
  return {
    figure: 'why.p95_ms',
    value: p95,
    unit: 'ms until a question about any tick of that recording is answered, 95 of 100',
    goal: '<= 150',
    detail: { median_ms: middle, longest_ms: most },
  };
}

/** How much faster than life a run goes on to a breakpoint that is far off, recorded and watched for what is noticed. */
export function runningOn(): Figure {
  const document = largeProject(WARDENS, () => {}, NIGHT_WATCH);
  const { program } = checkProject(document);
  const second = program!.ticksPerSecond;
  const breakpoints = { late: { on: 'condition' as const, when: `time > ${FAR_SECONDS}` } };
  const times = Array.from({ length: 3 }, () => {
    const run = createRun(program!, 1);
    const watched = watchFor(bindBreakpoints({ ...document, breakpoints }, program!), run);
    const noticed = createObserver();
    return (
      timed(() => {
        while (advanceTo(watched, run, busy(program!, run.head + 1)).length === 0)
          observe(noticed, run, () => false);
      }) / run.head
    );
  });
  return {
    figure: 'runon.speed',
    value: rounded(1000 / second / median(times)),
    unit: 'times as fast as life to a breakpoint a minute off, 50 agents',
    goal: '>= 40',
    detail: { tick_us: rounded(median(times) * 1000) },
  };
}

/** How much faster than real time a batch runs: no page, no recording. */
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
