import {
  advance,
  applyEdit,
  checkInMind,
  checkProject,
  createRun,
  pictureBodies,
  picturePaths,
  pictureRays,
  readMind,
  runningEdit,
  seek,
  worldHash,
  type Input,
  type ProjectDocument,
  type Run,
} from '@crooked-lantern/core';
import * as Comlink from 'comlink';
import type { EngineApi, Frame } from './protocol.ts';
import { createRowHistory, keepRowHistory, type RowHistory } from './row-history.ts';

const FRAME_MS = 1000 / 60;
/** Work done in one go before the worker looks for messages again. */
const BUDGET_MS = 12;
/** Real time that may be caught up with; more is let go, so that a slow machine does not race afterwards. */
const BACKLOG_MS = 250;
const SPEECH_SECONDS = 2.5;

interface Engine {
  document: ProjectDocument | null;
  run: Run | null;
  playing: boolean;
  /** Nobody has yet said whether to play or where to rest. */
  fresh: boolean;
  speed: number;
  /** Ticks owed to real time. */
  owed: number;
  lastTime: number;
  inputs: Input[];
  /** A tick ahead of the head to run on to, −1 for none. */
  goal: number;
  sentEntries: number;
  entriesOf: unknown;
  agent: string | null;
  mind: string | null;
  state: string | null;
  overlays: { sight: boolean; paths: boolean };
  rows: RowHistory;
  timer: ReturnType<typeof setTimeout> | null;
}

const engine: Engine = {
  document: null,
  run: null,
  playing: false,
  fresh: true,
  speed: 1,
  owed: 0,
  lastTime: 0,
  inputs: [],
  goal: -1,
  sentEntries: 0,
  entriesOf: null,
  agent: null,
  mind: null,
  state: null,
  overlays: { sight: true, paths: true },
  rows: createRowHistory(),
  timer: null,
};

function newEntries(run: Run): Pick<Frame, 'entries' | 'entriesAnew'> {
  const { entries } = run;
  // The run drops entries by taking a new list, which tells us that ours no longer fits.
  const entriesAnew = engine.entriesOf !== entries || entries.length < engine.sentEntries;
  const fresh = entriesAnew ? entries.slice() : entries.slice(engine.sentEntries);
  engine.entriesOf = entries;
  engine.sentEntries = entries.length;
  return { entries: fresh, entriesAnew };
}

function post(): void {
  const { run, overlays } = engine;
  if (!run) return;
  keepRowHistory(engine.rows, run, engine);
  const { world } = run;
  const spoken = SPEECH_SECONDS * world.statics.program.ticksPerSecond;
  const frame: Frame = {
    tick: world.tick,
    head: run.head,
    keptFrom: run.keptFrom,
    edit: runningEdit(run),
    playing: engine.playing,
    speed: engine.speed,
    seed: run.seed,
    bodies: pictureBodies(world),
    rays: overlays.sight ? pictureRays(world) : null,
    paths: overlays.paths ? picturePaths(world) : null,
    speech: world.agents.flatMap(({ speech, spokenAt, index }) =>
      spokenAt >= 0 && world.tick - spokenAt < spoken ? [{ agent: index, text: speech }] : [],
    ),
    ...newEntries(run),
    rows: engine.rows.results,
    readout:
      engine.agent === null
        ? null
        : readMind(world, engine.agent, engine.state, engine.mind ?? undefined),
    hash: engine.playing || engine.fresh || engine.goal >= 0 ? null : worldHash(world),
  };
  const transfer: Transferable[] = [frame.bodies.buffer];
  if (frame.rays) transfer.push(frame.rays.buffer);
  postMessage({ frame }, { transfer });
}

function loop(): void {
  engine.timer = null;
  const { run } = engine;
  if (!run) return;
  const begin = performance.now();
  if (engine.goal >= 0) runTowardsGoal(run, begin);
  else if (engine.playing) runWithTime(run, begin);
  post();
  if (engine.playing || engine.goal >= 0) {
    const rest = engine.goal >= 0 ? 0 : Math.max(0, FRAME_MS - (performance.now() - begin));
    engine.timer = setTimeout(loop, rest);
  }
}

function runTowardsGoal(run: Run, begin: number): void {
  while (run.head < engine.goal && performance.now() - begin < BUDGET_MS * 4)
    advance(run, takeInputs());
  if (run.head >= engine.goal) engine.goal = -1;
}

function runWithTime(run: Run, begin: number): void {
  const { ticksPerSecond } = run.world.statics.program;
  const elapsed = Math.min(BACKLOG_MS, begin - engine.lastTime);
  engine.lastTime = begin;
  engine.owed += (elapsed / 1000) * ticksPerSecond * engine.speed;
  while (engine.owed >= 1) {
    engine.owed -= 1;
    advance(run, takeInputs());
    keepRowHistory(engine.rows, run, engine);
    if (performance.now() - begin > BUDGET_MS) {
      engine.owed = Math.min(engine.owed, 1);
      break;
    }
  }
}

function takeInputs(): Input[] {
  if (engine.inputs.length === 0) return engine.inputs;
  const { inputs } = engine;
  engine.inputs = [];
  return inputs;
}

/** Draws the present, and keeps going where there is something to run. */
function wake(): void {
  if (engine.timer === null) engine.timer = setTimeout(loop, 0);
}

const engineApi: EngineApi = {
  async submit(document, edit) {
    engine.document = document;
    const { program, findings } = checkProject(document);
    if (program) {
      if (engine.run) applyEdit(engine.run, program, edit);
      else engine.run = createRun(program, edit);
      wake();
    }
    return { findings, program };
  },
  async checkExpression(mind, source, place) {
    return engine.document ? checkInMind(engine.document, mind, source, place) : [];
  },
  play() {
    engine.fresh = false;
    engine.playing = true;
    engine.goal = -1;
    engine.owed = 0;
    engine.lastTime = performance.now();
    wake();
  },
  pause() {
    engine.fresh = false;
    engine.playing = false;
    engine.goal = -1;
    wake();
  },
  nudge(ticks) {
    const { run } = engine;
    if (!run) return;
    engine.fresh = false;
    engine.playing = false;
    const goal = run.world.tick + ticks;
    if (goal !== run.world.tick) seek(run, goal);
    while (run.head < goal) advance(run, takeInputs());
    wake();
  },
  restart(seed) {
    if (!engine.run) return;
    const { program } = engine.run.world.statics;
    engine.run = createRun(program, runningEdit(engine.run), seed ?? engine.run.seed);
    engine.inputs = [];
    engine.goal = -1;
    engine.owed = 0;
    wake();
  },
  setSpeed(speed) {
    engine.speed = speed;
    wake();
  },
  seek(tick) {
    if (!engine.run) return;
    engine.fresh = false;
    engine.playing = false;
    seek(engine.run, tick);
    engine.goal = tick > engine.run.head ? tick : -1;
    wake();
  },
  setInput(input) {
    engine.inputs.push(input);
  },
  watch(agent, mind, state) {
    engine.agent = agent;
    engine.mind = mind;
    engine.state = state;
    wake();
  },
  show(overlays) {
    engine.overlays = overlays;
    wake();
  },
};

Comlink.expose(engineApi);
