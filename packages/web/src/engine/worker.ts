import {
  advance,
  applyEdit,
  checkInMind,
  checkProject,
  createRun,
  inputsOf,
  pictureBodies,
  pictureForces,
  pictureKnown,
  picturePaths,
  pictureRays,
  pictureShared,
  pictureThings,
  playedAgent,
  readMind,
  runningEdit,
  seek,
  withSetup,
  worldHash,
  type Input,
  type Program,
  type ProjectDocument,
  type Run,
} from '@crooked-lantern/core';
import * as Comlink from 'comlink';
import type { EngineApi, Frame, WantedParts } from './protocol.ts';
import { createRowHistory, keepRowHistory, type RowHistory } from './row-history.ts';

const FRAME_MS = 1000 / 60;
/** Work done in one go before the worker looks for messages again. */
const BUDGET_MS = 12;
/** Real time that may be caught up with; more is let go, so that a slow machine does not race afterwards. */
const BACKLOG_MS = 250;
const SPEECH_SECONDS = 2.5;

interface Engine {
  document: ProjectDocument | null;
  /** The set-up the run began with; null for as the project says. */
  setup: string | null;
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
  sentProgram: Program | null;
  agent: string | null;
  mind: string | null;
  state: string | null;
  wanted: WantedParts;
  /** Input of an earlier run that is given again, by tick. */
  script: Map<number, Input[]>;
  rows: RowHistory;
  timer: ReturnType<typeof setTimeout> | null;
}

const engine: Engine = {
  document: null,
  setup: null,
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
  sentProgram: null,
  agent: null,
  mind: null,
  state: null,
  wanted: { rays: true, paths: true, forces: false, known: false, places: true },
  script: new Map(),
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

/** The program of the frame, where it is another than the one of the frame before. */
function newProgram({ world }: Run): Program | null {
  const { program } = world.statics;
  if (engine.sentProgram === program) return null;
  engine.sentProgram = program;
  return program;
}

function post(): void {
  const { run, wanted } = engine;
  if (!run) return;
  keepRowHistory(engine.rows, run, engine);
  const { world } = run;
  const spoken = SPEECH_SECONDS * world.statics.program.ticksPerSecond;
  const frame: Frame = {
    tick: world.tick,
    head: run.head,
    keptFrom: run.keptFrom,
    edit: runningEdit(run),
    program: newProgram(run),
    playing: engine.playing,
    speed: engine.speed,
    seed: run.seed,
    bodies: pictureBodies(world),
    rays: wanted.rays ? pictureRays(world) : null,
    paths: wanted.paths ? picturePaths(world) : null,
    forces: wanted.forces ? pictureForces(world) : null,
    known: wanted.known && engine.agent !== null ? pictureKnown(world, engine.agent) : null,
    places: wanted.places ? pictureShared(world) : null,
    things: pictureThings(world),
    gates: [...world.gates],
    played: playedAgent(world),
    noises: recentNoises(run),
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

/** Seconds a noise stays on the picture. */
const NOISE_SECONDS = 0.8;

function recentNoises({ entries, world }: Run): Frame['noises'] {
  const { ticksPerSecond } = world.statics.program;
  const since = world.tick - NOISE_SECONDS * ticksPerSecond;
  const noises: Frame['noises'] = [];
  for (let i = entries.length - 1; i >= 0 && entries[i].tick > since; i--) {
    const entry = entries[i];
    if (entry.kind !== 'noise' || entry.tick > world.tick) continue;
    const { x, y, reach } = entry;
    noises.push({ x, y, reach, age: (world.tick - entry.tick) / ticksPerSecond });
  }
  return noises;
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
    advance(run, takeInputs(run));
  if (run.head >= engine.goal) engine.goal = -1;
}

function runWithTime(run: Run, begin: number): void {
  const { ticksPerSecond } = run.world.statics.program;
  const elapsed = Math.min(BACKLOG_MS, begin - engine.lastTime);
  engine.lastTime = begin;
  engine.owed += (elapsed / 1000) * ticksPerSecond * engine.speed;
  while (engine.owed >= 1) {
    engine.owed -= 1;
    advance(run, takeInputs(run));
    keepRowHistory(engine.rows, run, engine);
    if (performance.now() - begin > BUDGET_MS) {
      engine.owed = Math.min(engine.owed, 1);
      break;
    }
  }
}

/** What players do in the next tick: what a replay says, then what was pressed. */
function takeInputs(run: Run): Input[] {
  const scripted = engine.script.get(run.world.tick + 1);
  if (engine.inputs.length === 0) return scripted ?? engine.inputs;
  const { inputs } = engine;
  engine.inputs = [];
  return scripted ? [...scripted, ...inputs] : inputs;
}

/** The document as the chosen set-up has it begin. */
function asSetUp(document: ProjectDocument): ProjectDocument {
  return engine.setup === null ? document : withSetup(document, engine.setup);
}

function beginAnew({ latest }: Run, seed: number, program = latest.program): void {
  engine.run = createRun(program, latest.edit, seed);
  engine.inputs = [];
  engine.script = new Map();
  engine.goal = -1;
  engine.owed = 0;
}

/** Draws the present, and keeps going where there is something to run. */
function wake(): void {
  if (engine.timer === null) engine.timer = setTimeout(loop, 0);
}

const engineApi: EngineApi = {
  async submit(document, edit) {
    engine.document = document;
    const { program: plain, findings } = checkProject(document);
    // A set-up that can't begin any more is a finding, and holds up no edit.
    const program =
      plain && engine.setup !== null ? (checkProject(asSetUp(document)).program ?? plain) : plain;
    if (program) {
      if (engine.run) applyEdit(engine.run, program, edit);
      else engine.run = createRun(program, edit);
      wake();
    }
    return { findings, runs: program !== null };
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
    // What a player does now makes another future, one step of it at once.
    if (engine.inputs.length > 0 && ticks > 0) advance(run, takeInputs(run));
    if (goal !== run.world.tick) seek(run, goal);
    while (run.head < goal) advance(run, takeInputs(run));
    wake();
  },
  restart(seed) {
    if (!engine.run) return;
    beginAnew(engine.run, seed ?? engine.run.seed);
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
  show(wanted) {
    engine.wanted = wanted;
    wake();
  },
  possess(agent) {
    if (!engine.run) return;
    const { world } = engine.run;
    const played = playedAgent(world);
    const still = { x: 0, y: 0, gait: null };
    const before = world.agents[played];
    if (before?.name === agent) return;
    if (before) engine.inputs.push({ agent: before.name, ...still, control: 'minds' });
    engine.inputs.push({ agent, ...still });
    if (!engine.playing) engineApi.nudge(1);
  },
  putDown(agent, x, y) {
    engine.inputs.push({ agent, x: 0, y: 0, gait: null, place: [x, y] });
    if (!engine.playing) engineApi.nudge(1);
  },
  async begin(setup) {
    const { run, document, setup: before } = engine;
    engine.setup = setup;
    // What is submitted next begins as the set-up has it.
    if (!run || !document) return null;
    const { program, findings } = checkProject(asSetUp(document));
    if (!program) {
      engine.setup = before;
      return findings.find(({ severity }) => severity === 'error')!.message;
    }
    beginAnew(run, program.seed, program);
    engine.fresh = false;
    engineApi.play();
    return null;
  },
  async recording() {
    const { run } = engine;
    return run ? { seed: run.seed, inputs: inputsOf(run) } : { seed: 0, inputs: [] };
  },
  replay({ seed, inputs }, until) {
    if (!engine.run) return;
    beginAnew(engine.run, seed);
    for (const { tick, input } of inputs)
      engine.script.set(tick, [...(engine.script.get(tick) ?? []), input]);
    engine.fresh = false;
    engine.playing = false;
    engine.goal = until;
    wake();
  },
};

Comlink.expose(engineApi);
