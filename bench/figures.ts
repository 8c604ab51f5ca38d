import { execFileSync } from 'node:child_process';
import path from 'node:path';
import {
  atan2,
  beginTick,
  compileFlag,
  createWorld,
  PHASES,
  setRecorder,
  tick,
  type Agent,
  type Program,
  type World,
} from '@crooked-lantern/core';
import { largeChoice, OPTIONS, TARGETS, weigher, weigherByHand } from './choices.ts';
import { battle } from './battle.ts';
import { twoLines } from './duel.ts';
import { knownGrowth, squadGrowth, strikeGrowth } from './growth.ts';
import { GUARDS } from './handwritten-guards.ts';
import { handwrittenWardens } from './handwritten-warden.ts';
import { median, rounded, sideBySide, timed, type Figure } from './measure.ts';
import { createMaze, ourWays, theirWays } from './paths.ts';
import { asking, batch, memory, runningOn, seeking } from './recording.ts';
import { largeOrchard, NIGHT_WATCH, programOf, strolling } from './orchards.ts';

const ROUND_TICKS = 120;

function worldByHand(program: Program): World {
  const world = createWorld(program);
  const [walk, run] = ['walk', 'run'].map((gait) => program.gaits.indexOf(gait));
  const wardens = handwrittenWardens(walk, run, atan2);
  world.decideFor = (agent) => wardens.decide(agent);
  return world;
}

/** Lets the wardens meet the gleaners, so that what is measured is not the calm before. */
function settled(world: World, ticks = 600): World {
  for (let i = 1; i <= ticks; i++) tick(world, strolling(world.statics.program, i));
  return world;
}

function ticks(world: World, count = ROUND_TICKS): number {
  const { program } = world.statics;
  return timed(() => {
    for (let i = 0; i < count; i++) tick(world, strolling(program, world.tick + 1));
  });
}

const FIRST_OF_MINDS = PHASES.findIndex(({ name }) => name === 'minds');
const BEFORE = PHASES.slice(0, FIRST_OF_MINDS);
const MINDS = PHASES.slice(FIRST_OF_MINDS, FIRST_OF_MINDS + 2);
const AFTER = PHASES.slice(FIRST_OF_MINDS + 2);

/** One tick with the minds, and what they do, looked at apart. */
function tickAround(world: World, minds: (run: () => void) => void): void {
  const inputs = strolling(world.statics.program, world.tick + 1);
  beginTick(world);
  for (const { run } of BEFORE) run(world, inputs);
  minds(() => {
    for (const { run } of MINDS) run(world, inputs);
  });
  for (const { run } of AFTER) run(world, inputs);
}

function mindsAlone(world: World): number {
  let spent = 0;
  for (let i = 0; i < ROUND_TICKS; i++)
    tickAround(world, (run) => {
      spent += timed(run);
    });
  return spent;
}

function mindRatio(): Figure {
  const program = largeOrchard(200);
  const [compiled, byHand] = [settled(createWorld(program)), settled(worldByHand(program))];
  const { a, b, ratio } = sideBySide(
    () => mindsAlone(compiled),
    () => mindsAlone(byHand),
    41,
  );
  return {
    figure: 'mind.ratio',
    value: rounded(ratio),
    unit: 'compiled / by hand, minds step alone',
    goal: '<= 2.0',
    detail: {
      compiled_us_per_agent_tick: rounded((a * 1000) / ROUND_TICKS / 200),
      by_hand_us_per_agent_tick: rounded((b * 1000) / ROUND_TICKS / 200),
    },
  };
}

function tickRatio(): Figure {
  const program = largeOrchard(200);
  const [compiled, byHand] = [settled(createWorld(program)), settled(worldByHand(program))];
  const { a, b, ratio } = sideBySide(
    () => ticks(compiled),
    () => ticks(byHand),
    41,
  );
  return {
    figure: 'tick.ratio',
    value: rounded(ratio),
    unit: 'compiled / by hand, whole tick',
    goal: '<= 1.2',
    detail: {
      compiled_ms_per_tick: rounded(a / ROUND_TICKS),
      by_hand_ms_per_tick: rounded(b / ROUND_TICKS),
    },
  };
}

function recordRatio(): Figure {
  const program = largeOrchard(200);
  const recording = createWorld(program);
  let entries = 0;
  setRecorder(recording, () => entries++);
  const [on, off] = [settled(recording), settled(createWorld(program))];
  const { a, b, ratio } = sideBySide(
    () => ticks(on),
    () => ticks(off),
    41,
  );
  return {
    figure: 'record.ratio',
    value: rounded(ratio),
    unit: 'ledger on / off, whole tick',
    goal: '<= 1.08',
    detail: {
      on_ms_per_tick: rounded(a / ROUND_TICKS),
      off_ms_per_tick: rounded(b / ROUND_TICKS),
      entries,
    },
  };
}

/** A program whose wardens have these guards on the way from one state to another, so that they are compiled like any. */
function programWithGuards(wardens: number): Program {
  return largeOrchard(wardens, (document) => {
    const { warden } = document.minds;
    const guards = GUARDS.map(([when]) => ({ to: 'rounds', when }));
    warden.machine!.states.push({ id: 'guards', transitions: guards });
  });
}

/** The guards compiled, in the order of {@link GUARDS}. */
function compiledGuards(program: Program): ((agent: Agent) => boolean)[] {
  const { states, transitions } = program.stacks[0].minds[0].machine;
  const state = states.find(({ id }) => id === 'guards')!;
  return state.transitions.map((leave) => compileFlag(transitions[leave].when!.ir));
}

/** Agents that are in the middle of things, and the guards to ask them. */
export function guardsAndAgents(wardens: number) {
  const program = programWithGuards(wardens);
  const world = settled(createWorld(program));
  const agents = world.agents.filter(({ minds }) => minds.length > 0);
  return { agents, compiled: compiledGuards(program), byHand: GUARDS.map(([, guard]) => guard) };
}

function askAll(guards: readonly ((agent: Agent) => boolean)[], agents: readonly Agent[]): number {
  let held = 0;
  for (let round = 0; round < 100; round++)
    for (const guard of guards)
      for (let i = 0; i < agents.length; i++) if (guard(agents[i])) held++;
  return held;
}

function expressionRatio(): Figure {
  const { agents, compiled, byHand } = guardsAndAgents(64);
  const time = (guards: readonly ((agent: Agent) => boolean)[]) => () =>
    timed(() => askAll(guards, agents));
  const { a, b, ratio } = sideBySide(time(compiled), time(byHand), 25, 10);
  const asked = 100 * compiled.length * agents.length;
  return {
    figure: 'expression.ratio',
    value: rounded(ratio),
    unit: 'compiled / closures by hand',
    goal: '<= 1.3',
    detail: {
      guards: compiled.length,
      compiled_ns: rounded((a * 1e6) / asked),
      by_hand_ns: rounded((b * 1e6) / asked),
    },
  };
}

/** Bytes the minds of 200 wardens leave behind in a tick, recording off. Needs a runtime that shows its heap. */
function mindBytes(): Figure {
  const program = largeOrchard(200);
  const world = settled(createWorld(program));
  const samples: number[] = [];
  for (let i = 0; i < 600; i++) {
    tickAround(world, (run) => {
      const before = process.memoryUsage().heapUsed;
      run();
      const bytes = process.memoryUsage().heapUsed - before;
      // A collection in between makes it negative and says nothing.
      if (bytes >= 0) samples.push(bytes);
    });
  }
  const empty: number[] = [];
  for (let i = 0; i < 600; i++) {
    const before = process.memoryUsage().heapUsed;
    const bytes = process.memoryUsage().heapUsed - before;
    if (bytes >= 0) empty.push(bytes);
  }
  const mean = (list: number[]) => list.reduce((sum, value) => sum + value, 0) / list.length;
  return {
    figure: 'mind.bytes',
    value: rounded(Math.max(0, mean(samples) - mean(empty)) / 200),
    unit: 'bytes an agent and tick, minds step alone',
    detail: { median_of_200_agents: median(samples), measuring_alone: rounded(mean(empty)) },
  };
}

/** Half of the 16.7 ms a tick may take at 60 Hz. */
const HALF_BUDGET_MS = 1000 / 60 / 2;

/** Milliseconds of the median tick with this many wardens. */
function tickTime(wardens: number): number {
  const world = settled(createWorld(largeOrchard(wardens, () => {}, NIGHT_WATCH)), 300);
  const { program } = world.statics;
  return median(
    Array.from({ length: 180 }, () => timed(() => tick(world, strolling(program, world.tick + 1)))),
  );
}

function crowdAgents(): Figure {
  const detail: Record<string, number> = {};
  let most = 0;
  for (const wardens of [250, 500, 1000, 2000, 4000, 8000]) {
    const time = tickTime(wardens);
    detail[`tick_ms_at_${wardens}`] = rounded(time);
    if (time > HALF_BUDGET_MS) {
      // Between the last that fits and the first that doesn't, time grows nearly in a straight line.
      const before = detail[`tick_ms_at_${most}`] ?? 0;
      most = Math.floor(most + ((wardens - most) * (HALF_BUDGET_MS - before)) / (time - before));
      break;
    }
    most = wardens;
  }
  return {
    figure: 'crowd.agents',
    value: most,
    unit: 'wardens one core ticks at 60 Hz with half the time to spare',
    goal: '>= 1000',
    detail,
  };
}

/** Our search over cells against a general graph package on the same grids, with the same estimate. */
function pathRatio(): Figure {
  const mazes = [1, 2, 3].map((seed) => createMaze(seed));
  const { a, b, ratio } = sideBySide(
    () => timed(() => mazes.forEach(ourWays)),
    () => timed(() => mazes.forEach(theirWays)),
    7,
  );
  const paths = mazes.reduce((sum, { requests }) => sum + requests.length, 0);
  return {
    figure: 'path.ratio',
    value: rounded(ratio),
    unit: 'ours / a general graph package, equal costs',
    goal: '<= 0.5',
    detail: { ours_us: rounded((a * 1000) / paths), theirs_us: rounded((b * 1000) / paths) },
  };
}

/** Sizes of crowds, each measured in a process of its own. */
const CROWDS = [125, 250, 500, 1000, 2000, 4000, 8000];

/** What a warden costs among many against what it costs among few. */
function crowdGrowth(): Figure {
  const program = path.join(import.meta.dirname, 'crowd-cost.js');
  const costs = new Map(
    CROWDS.map((wardens) => {
      const printed = execFileSync(process.execPath, [program, String(wardens)], {
        encoding: 'utf8',
      });
      return [wardens, (Number(printed) * 1000) / wardens];
    }),
  );
  return {
    figure: 'crowd.growth',
    value: rounded(costs.get(8000)! / costs.get(500)!),
    unit: 'time a warden at 8,000 / at 500, each in a process of its own',
    goal: '<= 1.2',
    detail: Object.fromEntries([...costs].map(([size, us]) => [`us_at_${size}`, rounded(us)])),
  };
}

/** Weighing 50 options by 6 considerations for 20 targets, against the same written by hand. */
function choiceRatio(): Figure {
  const { agent } = largeChoice();
  const [compiled, byHand] = [weigher(agent), weigherByHand(agent)];
  const time = (weigh: () => unknown) => () =>
    timed(() => {
      for (let i = 0; i < 200; i++) weigh();
    });
  const { a, b, ratio } = sideBySide(time(compiled), time(byHand), 41, 10);
  return {
    figure: 'choice.ratio',
    value: rounded(ratio),
    unit: `compiled / by hand, ${OPTIONS} options for ${TARGETS} targets`,
    goal: '<= 1.3',
    detail: { compiled_us: rounded((a * 1000) / 200), by_hand_us: rounded((b * 1000) / 200) },
  };
}

/** Bytes one weighing of the same choice leaves behind. Needs a runtime that shows its heap. */
function choiceBytes(): Figure {
  const { agent } = largeChoice();
  const weigh = weigher(agent);
  for (let i = 0; i < 2000; i++) weigh();
  const samples: number[] = [];
  for (let i = 0; i < 400; i++) {
    const before = process.memoryUsage().heapUsed;
    for (let k = 0; k < 10; k++) weigh();
    const bytes = process.memoryUsage().heapUsed - before;
    // A collection in between makes it negative and says nothing.
    if (bytes >= 0) samples.push(bytes / 10);
  }
  return {
    figure: 'choice.bytes',
    value: rounded(median(samples)),
    unit: 'bytes a weighing, recording off',
    goal: 'near 0',
    detail: { candidates: OPTIONS * TARGETS },
  };
}

/** Milliseconds of one tick that minds take. */
function mindsOf(world: World): number {
  let spent = 0;
  tickAround(world, (run) => {
    spent = timed(run);
  });
  return spent;
}

/** Two hundred against two hundred, all with choices, moves and guards. */
function duelTick(): Figure {
  const world = settled(createWorld(programOf(twoLines(200))), 240);
  const times = Array.from({ length: 200 }, () => timed(() => tick(world)));
  const known = world.agents.reduce((sum, { known }) => sum + known.tracked.length, 0);
  return {
    figure: 'duel.tick_ms',
    value: rounded(median(times)),
    unit: 'ms a tick, 200 against 200, median',
    detail: {
      agents: world.agents.length,
      known_to_each: rounded(known / world.agents.length),
      minds_ms: rounded(median(Array.from({ length: 60 }, () => mindsOf(world)))),
    },
  };
}

/** Two hundred keepers against two hundred beetles, all deciding and fighting, in ten seconds of it. */
function battleTick(): Figure {
  const world = settled(createWorld(programOf(battle(200))), 180);
  const times = Array.from({ length: 600 }, () => timed(() => tick(world)));
  return {
    figure: 'battle.ms',
    value: rounded(times.reduce((sum, ms) => sum + ms, 0) / times.length),
    unit: 'ms a tick, 200 against 200, mean',
    goal: '<= 8',
    detail: {
      living: world.agents.filter(({ isDead }) => !isDead).length,
      slowest: rounded(Math.max(...times)),
    },
  };
}

export const FIGURES: Record<string, () => Figure> = {
  'mind.ratio': mindRatio,
  'tick.ratio': tickRatio,
  'record.ratio': recordRatio,
  'expression.ratio': expressionRatio,
  'mind.bytes': mindBytes,
  'crowd.agents': crowdAgents,
  'crowd.growth': crowdGrowth,
  'squad.growth': squadGrowth,
  'strike.growth': strikeGrowth,
  'known.growth': knownGrowth,
  'path.ratio': pathRatio,
  'choice.ratio': choiceRatio,
  'choice.bytes': choiceBytes,
  'duel.tick_ms': duelTick,
  'battle.ms': battleTick,
  'memory.mb': memory,
  'seek.p95_ms': seeking,
  'why.p95_ms': asking,
  'runon.speed': runningOn,
  'batch.speed': batch,
};
