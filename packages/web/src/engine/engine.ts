import {
  advance,
  advanceTo,
  applyEdit,
  bindBreakpoints,
  checkInMind,
  checkDocument,
  checkProject,
  createRun,
  inputsOf,
  lastMet,
  playedAgent,
  QuestionError,
  readChoiceAt,
  readHeat,
  readInMind,
  renumberEdit,
  seek,
  tryChanges,
  watchFor,
  why,
  whyNot,
  withSetup,
  type Breakpoints,
  type ProjectDocument,
  type Run,
} from '@crooked-lantern/core';
import { choicePastOf, createChoiceHistory, keepChoiceHistory } from './choice-history.ts';
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
import type { EngineApi, Frame } from './protocol.ts';
import { createRowHistory, keepRowHistory } from './row-history.ts';

const FRAME_MS = 1000 / 60;
/** Work done in one go before messages are looked for again. */
const BUDGET_MS = 12;
/** Real time that may be caught up with; more is let go, so that a slow machine does not race afterwards. */
const BACKLOG_MS = 250;
/** How far is run on to look for a breakpoint, in seconds of the run. */
const SEARCH_SECONDS = 30 * 60;
/** What is said to whoever asks about a run before there is one. */
const NOTHING_RUNS = 'Nothing runs yet: mend the errors listed under Findings.';

/** What the engine needs of where it lives. */
export interface Surroundings {
  /** Takes what there is to draw. */
  show(frame: Frame): void;
  /** Milliseconds that only grow. */
  now(): number;
  /** Calls back after so many milliseconds, when messages have been looked at. */
  later(work: () => void, ms: number): void;
}

/** Whether two documents make the same program: what an edit leaves alone is the same object. */
function differsOnlyInBreakpoints(before: ProjectDocument, after: ProjectDocument): boolean {
  const keys = new Set([...Object.keys(before), ...Object.keys(after)]) as Set<
    keyof ProjectDocument
  >;
  keys.delete('breakpoints');
  return [...keys].every((key) => before[key] === after[key]);
}

/** Runs a project with time, by ticks and from its past, and shows it frame by frame. */
export function createEngine({ show, now, later }: Surroundings): EngineApi {
  let document: ProjectDocument | null = null;
  /** What the latest program was compiled from: the document before its errors, where it has some. */
  let inForce: ProjectDocument | null = null;
  /** The set-up the run began with; null for as the project says. */
  let setup: string | null = null;
  let run: Run | null = null;
  /** Nobody has yet said whether to play or where to rest. */
  let fresh = true;
  /** Ticks owed to real time. */
  let owed = 0;
  let lastTime = 0;
  /** A tick ahead of the head to run on to, −1 for none. */
  let goal = -1;
  let waiting = false;
  let breakpoints: Breakpoints | null = null;
  /** Searches for a change that were begun or ended: one goes on while none came after it. */
  let searches = 0;
  const players = createPlayerInput();
  const sent = createSent();
  const weighed = createChoiceHistory();
  const view: View = {
    playing: false,
    speed: 1,
    agent: null,
    mind: null,
    state: null,
    wanted: { rays: true, paths: true, forces: false, known: false, places: true },
    rows: createRowHistory(),
    choice: null,
    resting: false,
    givesAgain: false,
    stops: [],
    towards: null,
  };

  function loop(): void {
    waiting = false;
    if (!run) return;
    const begin = now();
    if (goal >= 0) runTowardsGoal(run, begin);
    else if (view.playing) runWithTime(run, begin);
    keepRowHistory(view.rows, run, view);
    keepChoiceHistory(weighed, run, view.choice);
    view.towards = goal >= 0 ? goal : null;
    view.resting = !view.playing && !fresh && goal < 0;
    view.givesAgain = !players.pressed && run.world.tick < run.head && run.inputs.length > 0;
    show(frameOf(run, view, sent));
    if (goal >= 0) wake();
    else if (view.playing) wake(Math.max(0, FRAME_MS - (now() - begin)));
  }

  function runTowardsGoal(towards: Run, begin: number): void {
    while (towards.head < goal && now() - begin < BUDGET_MS * 4) goOn(towards);
    if (goal >= 0 && towards.head < goal) return;
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
   * Runs one tick, and rests where a breakpoint is met. From the past, what players did then is given again, unless
   * they have done something else.
   */
  function goOn(live: Run): void {
    const { tick } = live.world;
    if (tick < live.head && !players.pressed) giveAgain(players, live.inputs, tick, live.head);
    breakpoints ??= breakpointsOf(live);
    view.stops = advanceTo(breakpoints, live, inputsFor(players, tick + 1));
    if (view.stops.length > 0) rest();
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

  function beginAnew({ latest }: Run, seed: number, program = latest.program): void {
    run = createRun(program, latest.edit, seed);
    breakpoints = null;
    begunAnew(players, program.agents[playedAgent(run.world)]?.name);
    goal = -1;
    owed = 0;
  }

  /** Goes by ticks: back, on through what is recorded, and on from where that ends or players have done something else. */
  function step(at: Run, ticks: number): void {
    rest();
    const target = at.world.tick + ticks;
    if (ticks < 0) movedInTime(players);
    if (!players.pressed) seek(at, target);
    view.stops = [];
    while (at.world.tick < target && view.stops.length === 0) goOn(at);
    wake();
  }

  const api: EngineApi = {
    async submit(edited, edit, hasForm = false) {
      document = edited;
      const { program: plain, findings } = (hasForm ? checkProject : checkDocument)(edited);
      // A set-up that can't begin any more is a finding, and holds up no edit.
      const program =
        plain && setup !== null ? (checkProject(withSetup(edited, setup)).program ?? plain) : plain;
      if (program) {
        if (run && inForce && differsOnlyInBreakpoints(inForce, edited)) renumberEdit(run, edit);
        else if (run) applyEdit(run, program, edit);
        else run = createRun(program, edit);
        inForce = edited;
        breakpoints = null;
        wake();
      }
      return { findings, runs: program !== null };
    },
    async checkExpression(mind, source, place) {
      return document ? checkInMind(document, mind, source, place) : [];
    },
    async readExpression(mind, source, tree) {
      if (!run || !inForce || run.world.statics.program !== run.latest.program) return [];
      const agent = run.world.agents.find(({ name }) => name === view.agent);
      return agent ? readInMind(inForce, agent, mind, source, tree) : [];
    },
    runOn() {
      if (!run) return;
      rest();
      goal = run.head + SEARCH_SECONDS * run.world.statics.program.ticksPerSecond;
      wake();
    },
    async goBack() {
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
    async tryOut(tried, agent, seconds) {
      const { program, findings } = checkDocument(tried);
      if (!program)
        return { trouble: findings.find(({ severity }) => severity === 'error')!.message };
      const { ticksPerSecond } = program;
      const trial = createRun(program, 1);
      for (let i = 0; i < seconds * ticksPerSecond; i++) advance(trial);
      return { entries: trial.entries.filter((entry) => entry.agent === agent), ticksPerSecond };
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
      if (run) step(run, ticks);
    },
    restart(seed) {
      if (!run) return;
      beginAnew(run, seed ?? run.seed);
      wake();
    },
    setSpeed(speed) {
      view.speed = speed;
      wake();
    },
    seek(tick) {
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
    weigh(choice) {
      view.choice = choice;
      wake();
    },
    async choicePast() {
      return view.choice ? choicePastOf(weighed) : null;
    },
    async choiceAt(x, y) {
      return run && view.choice ? readChoiceAt(run.world, view.choice, x, y) : null;
    },
    async ask({ agent, mind, not }) {
      const tick = run?.world.tick ?? 0;
      if (!run) return { tick, trouble: NOTHING_RUNS };
      const question = { run, agent, tick, ...(mind !== undefined && { mind }) };
      try {
        return { tick, answer: not === null ? why(question) : whyNot(question, not) };
      } catch (error) {
        if (!(error instanceof QuestionError)) throw error;
        return { tick, trouble: error.message };
      }
    },
    async tryChange({ agent, mind, not }, onProgress) {
      const search = ++searches;
      const document = inForce;
      const searched = run;
      if (!searched || !document) return { trouble: NOTHING_RUNS };
      const { tick } = searched.world;
      const thinker = searched.world.agents.find(({ name }) => name === agent);
      const of = mind ?? thinker?.minds[0]?.program.name;
      if (of === undefined) return { trouble: `“${agent}” has no mind, so it decides nothing.` };
      const looking = tryChanges(searched, document, { agent, mind: of, state: not, tick });
      let tried = 0;
      for (;;) {
        const step = looking.next();
        if (step.done) {
          if (step.value !== 'already') return { found: step.value, tried };
          return {
            trouble: 'With the edit that is in force it would be: run on from earlier, and see.',
          };
        }
        ({ tried } = step.value);
        onProgress(step.value);
        // Messages are looked at in between.
        await new Promise<void>((goOnWith) => later(goOnWith, 0));
        if (search !== searches) return { trouble: 'The search was ended.' };
        if (run !== searched || run.world.tick !== tick || inForce !== document)
          return { trouble: 'The run has moved on: ask again.' };
      }
    },
    stopTrying() {
      searches++;
    },
    async heat(option, step) {
      return run && view.choice ? readHeat(run.world, view.choice, option, step) : null;
    },
    show(wanted) {
      view.wanted = wanted;
      wake();
    },
    possess(agent) {
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
      if (!run) return;
      tell(players, { agent, x: 0, y: 0, gait: null, place: [x, y] });
      if (!view.playing) step(run, 1);
    },
    async begin(chosen) {
      const before = setup;
      setup = chosen;
      // What is submitted next begins as the set-up has it.
      if (!run || !document) return null;
      const { program, findings } = checkProject(
        chosen === null ? document : withSetup(document, chosen),
      );
      if (!program) {
        setup = before;
        return findings.find(({ severity }) => severity === 'error')!.message;
      }
      beginAnew(run, program.seed, program);
      api.play();
      return null;
    },
    async recording() {
      return run ? { seed: run.seed, inputs: inputsOf(run) } : { seed: 0, inputs: [] };
    },
    replay({ seed, inputs: recorded }, until) {
      if (!run) return;
      beginAnew(run, seed);
      giveAgain(players, recorded, 0, until);
      rest();
      goal = until;
      wake();
    },
  };
  return api;
}
