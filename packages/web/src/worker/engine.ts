import {
  advanceTo,
  beginBranch,
  applyEdit,
  bindBreakpoints,
  checkDocument,
  checkProject,
  createBranches,
  createRun,
  goesAsRecorded,
  goToBranch,
  lastMet,
  letGo,
  nameBranch,
  partHere,
  playedAgent,
  recover,
  renumberEdit,
  seek,
  watchFor,
  TickError,
  withSetup,
  type Branches,
  type Breakpoints,
  type PartedBy,
  type Program,
  type ProjectDocument,
  type Run,
} from '@crooked-lantern/core';
import { createChoiceHistory, keepChoiceHistory } from './choice-history.ts';
import { createSent, frameOf, type View } from './frames.ts';
import {
  begunAnew,
  createPlayerInput,
  giveAgain,
  inputsFor,
  movedInTime,
  stopGiving,
  tell,
} from './player-input.ts';
import { createNoticing, notice, takeLimits, timesNoticed } from './noticing.ts';
import type { EngineApi, EngineFailure, Frame } from '../engine/protocol.ts';
import { errorOf } from '../state/thrown.ts';
import { guarded } from './guarded.ts';
import { createQuestions, NOTHING_RUNS } from './questions.ts';
import { differsOnlyInWatching } from './only-watching.ts';
import { createReadings } from './readings.ts';
import { createRowHistory, keepRowHistory } from './row-history.ts';

const FRAME_MS = 1000 / 60;
/** Work done in one go before messages are looked for again. */
const BUDGET_MS = 12;
/** Real time that may be caught up with; more is let go, so that a slow machine does not race afterwards. */
const BACKLOG_MS = 250;
/** How far is run on to look for a breakpoint, in seconds of the run. */
const SEARCH_SECONDS = 30 * 60;
/** Documents of earlier edits that are kept, to say what was changed between two. */
const DOCUMENTS_KEPT = 100;

/** What the engine needs of where it lives. */
export interface Surroundings {
  /** Takes what there is to draw. */
  show(frame: Frame): void;
  /** Whether what was shown last has not been drawn yet. While a run goes on it is given nothing more then, or it would fall ever further behind. */
  isBehind(): boolean;
  /** Milliseconds that only grow. */
  now(): number;
  /** Calls back after so many milliseconds, when messages have been looked at. */
  later(work: () => void, ms: number): void;
  /** Takes a failure, to be shown to the user. */
  fail(failure: EngineFailure): void;
}

export function failureOf(
  during: EngineFailure['during'],
  error: Error,
  stopped: boolean,
): EngineFailure {
  const { message } = error;
  const { tick, phase, agent } =
    error instanceof TickError ? error : { tick: null, phase: null, agent: null };
  const { cause } = error;
  const stack = (cause instanceof Error ? cause.stack : error.stack) ?? '';
  return { during, message, stopped, tick, phase, agent, stack };
}

/** Runs a project with time, by ticks and from its past, and shows it frame by frame. */
export function createEngine({ show, isBehind, now, later, fail }: Surroundings): EngineApi {
  let document: ProjectDocument | null = null;
  /** What the latest program was compiled from: the document before its errors, where it has some. */
  let inForce: ProjectDocument | null = null;
  /** The set-up the run began with; null for as the project says. */
  let setup: string | null = null;
  let branches: Branches | null = null;
  /** By edit, what it was compiled from. */
  const documents = new Map<number, ProjectDocument>();
  /** Changes that were tried and not made are numbered downwards from −1. */
  let lastTried = 0;
  /** No command has yet said whether to play or where to rest. */
  let fresh = true;
  /** Ticks owed to real time. */
  let owed = 0;
  let lastTime = 0;
  /** A tick ahead of the head to run on to, −1 for none. */
  let goal = -1;
  let waiting = false;
  /** Nothing has been shown since the last failure, so that showing itself may be what fails. */
  let failing = false;
  let breakpoints: Breakpoints | null = null;
  const players = createPlayerInput();
  const sent = createSent();
  const weighed = createChoiceHistory();
  const noticing = createNoticing();
  const view: View = {
    playing: false,
    speed: 1,
    agent: null,
    mind: null,
    state: null,
    wanted: { rays: true, paths: true, forces: false, known: false, side: false, places: true },
    rows: createRowHistory(),
    choice: null,
    resting: false,
    givesAgain: false,
    stops: [],
    towards: null,
    setup: null,
    branches: null,
    noticed: 0,
    followed: [],
  };

  const running = (): Run | null => branches?.run ?? null;

  function loop(): void {
    waiting = false;
    try {
      goOnAndShow();
    } catch (thrown) {
      failed('run', errorOf(thrown));
    }
  }

  function goOnAndShow(): void {
    const run = running();
    if (!run) return;
    const begin = now();
    if (goal >= 0) runTowardsGoal(run, begin);
    else if (view.playing) runWithTime(run, begin);
    const isNoticed = notice(noticing, branches!, () => now() - begin < BUDGET_MS);
    keepRowHistory(view.rows, run, view);
    keepChoiceHistory(weighed, run, view.choice);
    view.noticed = timesNoticed(noticing, branches!);
    view.towards = goal >= 0 ? goal : null;
    view.setup = setup;
    view.resting = !view.playing && !fresh && goal < 0;
    view.givesAgain = !players.pressed && run.world.tick < run.head && run.inputs.length > 0;
    view.branches = branches;
    // A page that can't keep up is spared what the next frame shows anyway.
    if (!(view.playing || goal >= 0) || !isBehind()) show(frameOf(run, view, sent));
    failing = false;
    if (goal >= 0 || (!isNoticed && !view.playing)) wake();
    else if (view.playing) wake(Math.max(0, FRAME_MS - (now() - begin)));
  }

  /** Tells of a failure. Where it left the run half changed, that rests at its last snapshot from here on. */
  function failed(during: EngineFailure['during'], error: Error): void {
    const run = running();
    const isBroken = error instanceof TickError && error.world === run?.world;
    const stopped = isBroken || during === 'run';
    if (stopped) rest();
    if (run && isBroken) bringBack(run);
    fail(failureOf(during, error, stopped));
    if (stopped && !failing) wake();
    failing = true;
  }

  /** From the last snapshot; where that can't be, from the beginning. */
  function bringBack(run: Run): void {
    movedInTime(players);
    stopGiving(players);
    breakpoints = null;
    view.stops = [];
    try {
      recover(run);
    } catch {
      beginAnew(run, 'restart', run.seed);
    }
  }

  function runTowardsGoal(towards: Run, begin: number): void {
    while (towards.world.tick < goal && now() - begin < BUDGET_MS * 4) goOn(towards);
    if (goal >= 0 && towards.world.tick < goal) return;
    goal = -1;
    stopGiving(players);
  }

  function runWithTime(live: Run, begin: number): void {
    const { ticksPerSecond } = live.world.statics.program;
    const elapsed = Math.min(BACKLOG_MS, begin - lastTime);
    lastTime = begin;
    owed += (elapsed / 1000) * ticksPerSecond * view.speed;
    while (owed >= 1) {
      owed -= 1;
      goOn(live);
      keepRowHistory(view.rows, live, view);
      keepChoiceHistory(weighed, live, view.choice);
      if (!view.playing) break;
      if (now() - begin > BUDGET_MS) {
        owed = Math.min(owed, 1);
        break;
      }
    }
  }

  /**
   * Runs one tick, and rests where a breakpoint is met. From the past, what is recorded is gone through while
   * nothing differs; else it is kept as a branch, and what players did then is given again until one does something else.
   */
  function goOn(live: Run): void {
    const { tick, result } = live.world;
    // A run that has ended stands still.
    if (result) return rest();
    breakpoints ??= breakpointsOf(live);
    if (!players.pressed && goesAsRecorded(live)) view.stops = advanceTo(breakpoints, live, null);
    else {
      if (tick < live.head) {
        if (!players.pressed) giveAgain(players, live.inputs, tick, live.head);
        partHere(branches!, players.pressed ? 'input' : 'edit');
      }
      view.stops = advanceTo(breakpoints, live, inputsFor(players, tick + 1));
    }
    notice(noticing, branches!, () => false);
    if (view.stops.length > 0 || live.world.result) rest();
  }

  function breakpointsOf(live: Run): Breakpoints {
    return watchFor(inForce ? bindBreakpoints(inForce, live.latest.program) : [], live);
  }

  /** Draws the present, and keeps going where there is something to run. */
  function wake(ms = 0): void {
    if (waiting) return;
    waiting = true;
    later(loop, ms);
  }

  function rest(): void {
    fresh = false;
    view.playing = false;
    goal = -1;
  }

  function beginAnew({ latest }: Run, by: PartedBy, seed: number, program = latest.program): void {
    const run = createRun(program, latest.edit, seed);
    beginBranch(branches!, run, by);
    breakpoints = null;
    begunAnew(players, program.agents[playedAgent(run.world)]?.name);
    goal = -1;
    owed = 0;
  }

  /** A program that begins as a set-up has it, or (with null) as the project says; or why it can't. */
  function beginningWith(chosen: string | null): Program | { trouble: string } {
    if (!document) return { trouble: NOTHING_RUNS };
    const { program, findings } = checkProject(
      chosen === null ? document : withSetup(document, chosen),
    );
    return program ?? { trouble: findings.find(({ severity }) => severity === 'error')!.message };
  }

  /** Goes by ticks: back, on through what is recorded, and on from where that ends or players have done something else. */
  function step(at: Run, ticks: number): void {
    rest();
    const target = at.world.tick + ticks;
    if (ticks < 0) movedInTime(players);
    if (!players.pressed) seek(at, target);
    view.stops = [];
    while (at.world.tick < target && view.stops.length === 0 && !at.world.result) goOn(at);
    wake();
  }

  const api: EngineApi = {
    ...createReadings({
      branches: () => branches,
      document: () => document,
      inForce: () => inForce,
      view,
      weighed,
      noticing,
    }),
    ...createQuestions({
      branches: () => branches,
      document: () => inForce,
      documentOf: (edit) => documents.get(edit),
      keepTried: (tried) => {
        documents.set(--lastTried, tried);
        return lastTried;
      },
      beginningWith,
      soon: (work) => later(work, 0),
      wake,
    }),
    goToBranch(id) {
      if (!branches) return;
      rest();
      movedInTime(players);
      stopGiving(players);
      if (goToBranch(branches, id)) breakpoints = null;
      wake();
    },
    nameBranch(id, name) {
      if (branches) nameBranch(branches, id, name);
      wake();
    },
    letGoOfBranch(id) {
      if (branches) letGo(branches, id);
      wake();
    },
    async submit(edited, edit, hasForm = false) {
      document = edited;
      const { program: plain, findings } = (hasForm ? checkProject : checkDocument)(edited);
      // A set-up that can't begin any more is a finding, and holds up no edit.
      const program =
        plain && setup !== null ? (checkProject(withSetup(edited, setup)).program ?? plain) : plain;
      if (program) {
        const run = running();
        if (run && inForce && differsOnlyInWatching(inForce, edited)) renumberEdit(run, edit);
        else if (run) applyEdit(run, program, edit);
        else branches = createBranches(createRun(program, edit));
        inForce = edited;
        takeLimits(noticing, edited.observationLimits);
        documents.set(edit, edited);
        const [oldest] = documents.keys();
        if (documents.size > DOCUMENTS_KEPT) documents.delete(oldest);
        breakpoints = null;
        wake();
      }
      return { findings, runs: program !== null };
    },
    runOn() {
      const run = running();
      if (!run) return;
      rest();
      goal = run.head + SEARCH_SECONDS * run.world.statics.program.ticksPerSecond;
      wake();
    },
    async goBack() {
      const run = running();
      if (!run) return NOTHING_RUNS;
      rest();
      const last = lastMet((breakpoints ??= breakpointsOf(run)), run);
      if (!last) return 'No breakpoint was met before this moment in what is kept of the run.';
      movedInTime(players);
      seek(run, last.tick);
      view.stops = [last];
      wake();
      return null;
    },
    play() {
      rest();
      view.playing = true;
      owed = 0;
      lastTime = now();
      wake();
    },
    pause() {
      rest();
      wake();
    },
    nudge(ticks) {
      const run = running();
      if (run) step(run, ticks);
    },
    restart(seed) {
      const run = running();
      if (!run) return;
      beginAnew(run, seed === null ? 'restart' : 'seed', seed ?? run.seed);
      wake();
    },
    setSpeed(speed) {
      view.speed = speed;
      wake();
    },
    seek(tick) {
      const run = running();
      if (!run) return;
      rest();
      movedInTime(players);
      seek(run, tick);
      goal = tick > run.head ? tick : -1;
      wake();
    },
    setInput(input) {
      tell(players, input);
      wake();
    },
    watch(agent, mind, state) {
      Object.assign(view, { agent, mind, state });
      wake();
    },
    follow(agents) {
      view.followed = agents;
      wake();
    },
    weigh(choice) {
      view.choice = choice;
      wake();
    },
    show(wanted) {
      view.wanted = wanted;
      wake();
    },
    possess(agent) {
      const run = running();
      if (!run) return;
      const { agents } = run.world;
      const before = agents[playedAgent(run.world)];
      if (before?.name === agent) return;
      const still = { x: 0, y: 0, gait: null };
      if (before) tell(players, { agent: before.name, ...still, control: 'minds' });
      tell(players, { agent, ...still, control: 'player' });
      if (!view.playing) step(run, 1);
    },
    putDown(agent, x, y) {
      const run = running();
      if (!run) return;
      tell(players, { agent, x: 0, y: 0, gait: null, place: [x, y] });
      if (!view.playing) step(run, 1);
    },
    async begin(chosen) {
      const run = running();
      if (!run || !document) {
        // What is submitted next begins as the set-up has it.
        setup = chosen;
        return null;
      }
      const program = beginningWith(chosen);
      if ('trouble' in program) return program.trouble;
      setup = chosen;
      beginAnew(run, 'setup', program.seed, program);
      api.play();
      return null;
    },
    replay({ seed, inputs: recorded }, until) {
      const run = running();
      if (!run) return;
      beginAnew(run, 'replay', seed);
      giveAgain(players, recorded, 0, until);
      rest();
      goal = until;
      wake();
    },
  };
  return guarded(api, failed);
}
