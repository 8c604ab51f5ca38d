import {
  advance,
  answer,
  applyCommand,
  applyEdit,
  checkProject,
  coverageOf,
  coverageOver,
  createRun,
  differenceOf,
  findParting,
  firstUnlikeDecision,
  givenApart,
  keepBeside,
  pastOfBranch,
  programAt,
  QuestionError,
  recordedInputs,
  recordingAs,
  runFigures,
  runOf,
  pastOf,
  tryChanges,
  whyNotSteps,
  type Branches,
  type PartedBy,
  type Program,
  type ProjectDocument,
  type Run,
  type RunPast,
  type Question,
} from '@crooked-lantern/core';
import { addEntries, createLanes } from '../engine/lanes.ts';
import type {
  AskedMind,
  Comparison,
  EngineAnswer,
  EngineApi,
  EngineQuestion,
  RunBeside,
} from '../engine/protocol.ts';

/** Questions about what was recorded. Those that take long are looked into piece by piece, with messages read in between. */

/** What questions need of the engine they are asked of. */
export interface AskedEngine {
  branches(): Branches | null;
  /** What the latest program was compiled from. */
  document(): ProjectDocument | null;
  /** What an edit was compiled from; undefined where that is no longer known. */
  documentOf(edit: number): ProjectDocument | undefined;
  /** Keeps what is tried and not made, and gives a number for it, below 0. */
  keepTried(document: ProjectDocument): number;
  /** A program that begins as a set-up has it, or why it can't. */
  beginningWith(setup: string | null): Program | { trouble: string };
  /** Calls back when messages have been looked at. */
  soon(work: () => void): void;
  /** Draws what there is. */
  wake(): void;
}

export type Questions = Pick<
  EngineApi,
  | 'ask'
  | 'askFarBack'
  | 'tryChange'
  | 'compare'
  | 'runBeside'
  | 'coverage'
  | 'exportRun'
  | 'stopLooking'
>;

/** The answer to a question about a run before there is one. */
export const NOTHING_RUNS = 'Nothing runs yet: fix the errors listed under Findings.';
const ENDED = { trouble: 'The search was ended.' };

/** Ticks run in one go before messages are looked at again. */
const TICKS_AT_ONCE = 120;

/** So many ticks of one agent are run again for an answer that is wanted at once. */
const AGENT_TICKS = 7_000;

function questionOf(run: RunPast, { agent, mind }: AskedMind, tick: number): Question {
  return { run, agent, tick, ...(mind !== undefined && { mind }) };
}

function answerTo(run: RunPast, asked: EngineQuestion, tick: number): EngineAnswer {
  const agents = programAt(run, tick).agents.length;
  const back = Math.ceil(AGENT_TICKS / Math.max(1, agents));
  try {
    return { tick, answer: answer({ ...questionOf(run, asked, tick), back }, asked.asking) };
  } catch (error) {
    if (!(error instanceof QuestionError)) throw error;
    return { tick, trouble: error.message };
  }
}

function partedBy(how: RunBeside): PartedBy {
  if ('seed' in how) return 'seed';
  if ('setup' in how) return 'setup';
  return 'change' in how ? 'tried' : 'edit';
}

export function createQuestions(engine: AskedEngine): Questions {
  /** What was begun or ended: one piece of work goes on while none came after it. */
  let looks = 0;
  const pause = () => new Promise<void>((goOn) => engine.soon(goOn));

  /** Goes on with work step by step; null where it was ended. */
  async function whole<Step, T>(
    work: Generator<Step, T>,
    onStep: (step: Step) => void,
  ): Promise<{ value: T } | null> {
    const look = ++looks;
    for (;;) {
      const step = work.next();
      if (step.done) return { value: step.value };
      onStep(step.value);
      await pause();
      if (look !== looks) return null;
    }
  }

  /** A run that is to go as the one that goes on did, but for what differs; or why it can't. */
  function beside(run: Run, how: RunBeside): { made: Run } | { trouble: string } {
    const { program, edit } = run.latest;
    if ('setup' in how) {
      const begun = engine.beginningWith(how.setup);
      return 'trouble' in begun ? begun : { made: createRun(begun, edit, run.seed) };
    }
    if (!('change' in how))
      return { made: createRun(program, edit, 'seed' in how ? how.seed : run.seed) };
    const document = applyCommand(engine.document()!, how.change);
    const tried = checkProject(document).program;
    if (!tried) return { trouble: 'With that change the project has errors.' };
    const made = runOf(pastOf(run), how.from);
    applyEdit(made, tried, engine.keepTried(document));
    return { made };
  }

  return {
    async ask(question) {
      const run = engine.branches()?.run;
      const tick = run?.world.tick ?? 0;
      return run ? answerTo(run, question, tick) : { tick, trouble: NOTHING_RUNS };
    },
    async askFarBack(asked, onProgress) {
      const run = engine.branches()?.run;
      const tick = run?.world.tick ?? 0;
      if (!run) return { tick, trouble: NOTHING_RUNS };
      try {
        const looking = whyNotSteps(questionOf(run, asked, tick), asked.target);
        const result = await whole(looking, ({ done, of }) => onProgress(done / of));
        return result ? { tick, answer: result.value } : { tick, ...ENDED };
      } catch (error) {
        if (!(error instanceof QuestionError)) throw error;
        return { tick, trouble: error.message };
      }
    },
    async tryChange({ agent, mind, target }, onProgress) {
      const run = engine.branches()?.run;
      const document = engine.document();
      if (!run || !document) return { trouble: NOTHING_RUNS };
      const { tick } = run.world;
      const thinker = run.world.agents.find(({ name }) => name === agent);
      const of = mind ?? thinker?.minds[0]?.program.name;
      if (of === undefined) return { trouble: `“${agent}” has no mind, so it decides nothing.` };
      const hasMoved = () =>
        engine.branches()?.run !== run || run.world.tick !== tick || engine.document() !== document;
      let tried = 0;
      const search = tryChanges(run, document, { agent, mind: of, goal: target, tick });
      const result = await whole(search, (step) => {
        ({ tried } = step);
        onProgress(step);
        if (hasMoved()) looks++;
      });
      if (!result) return hasMoved() ? { trouble: 'The run has moved on: ask again.' } : ENDED;
      if (result.value === 'already')
        return {
          trouble: 'With the current edit it would be: run on from an earlier tick to see.',
        };
      return { found: result.value, tried };
    },
    async compare(id, onProgress) {
      const branches = engine.branches();
      const other = branches && pastOfBranch(branches, id);
      if (!other) return { trouble: 'That branch is no longer kept: choose another.' };
      // What goes on is compared as it is now.
      const runs = [pastOf(branches.run), other] as const;
      const looking = await whole(findParting(runs), ({ at, of }) => onProgress(at / of));
      if (!looking) return ENDED;
      const { value: parting } = looking;
      const until = Math.min(runs[0].head, runs[1].head);
      const given = givenApart(runs, parting?.tick ?? until);
      const [before, after] = (given.edits ?? []).map((edit) => engine.documentOf(edit));
      const lanes = createLanes();
      addEntries(lanes, other.entries);
      const unlike = firstUnlikeDecision(runs);
      const answerIn = (run: RunPast): EngineAnswer => {
        const { agent, tick } = unlike!;
        return programAt(run, tick).agents.some(({ name }) => name === agent)
          ? answerTo(run, { agent, asking: { ask: 'why' } }, tick)
          : { tick, trouble: 'It was not there.' };
      };
      return {
        id,
        until,
        parting,
        given,
        changes: before && after ? differenceOf(before, after) : null,
        decision: unlike && { ...unlike, answers: [answerIn(runs[0]), answerIn(runs[1])] },
        figures: [runFigures(runs[0], until), runFigures(runs[1], until)],
        lanes,
        head: other.head,
      } satisfies Comparison;
    },
    async runBeside(how, onProgress) {
      const branches = engine.branches();
      if (!branches) return { trouble: NOTHING_RUNS };
      const { run } = branches;
      const begun = beside(run, how);
      if ('trouble' in begun) return begun;
      const { made } = begun;
      const inputsAt = recordedInputs(run, made.world.tick);
      const [from, to] = [made.world.tick, run.head];
      function* going(): Generator<number, void> {
        while (made.world.tick < to) {
          for (let i = 0; i < TICKS_AT_ONCE && made.world.tick < to; i++)
            advance(made, inputsAt(made.world.tick + 1));
          yield (made.head - from) / (to - from);
        }
      }
      if (!(await whole(going(), onProgress))) return ENDED;
      const parted = { tick: from, by: partedBy(how) };
      const id = keepBeside(branches, made, parted, 'change' in how ? how.name : null);
      engine.wake();
      return { id };
    },
    async coverage(over) {
      const branches = engine.branches();
      if (!branches) return null;
      const { run, kept } = branches;
      const pasts = over ? [run, ...kept.map(({ past }) => past)] : [run];
      return { items: coverageOver(pasts.map(coverageOf)), runs: 1 + kept.length };
    },
    async exportRun(format, title) {
      const run = engine.branches()?.run;
      return run ? recordingAs(format, run, title) : null;
    },
    stopLooking() {
      looks++;
    },
  };
}
