import { compileProject } from '../compile/compile-project.ts';
import { applyCommand } from '../editing/apply-command.ts';
import { CommandError, type DocumentCommand } from '../editing/commands/commands.ts';
import { recordedInputs, revisit, type Run } from '../ledger/run.ts';
import type { Name, ProjectDocument } from '../model/documents.ts';
import { swapProgram } from '../world/handover/swap.ts';
import { tick } from '../world/phases/tick.ts';
import type { Program } from '../world/program/program.ts';
import type { Target } from '../ledger/explain/target.ts';
import { watchGoal } from './goal.ts';
import { numbersThatMatter, type NumberSite } from './numbers.ts';

/** The smallest single change of a number that would have had an agent in a state, pick an option or do a row, found by running it. */

/** What is asked: why the agent is not in a state, does not pick an option or do a row, at the tick. */
export interface TryQuestion {
  agent: Name;
  mind: Name;
  goal: Target;
  tick: number;
}

export interface FoundChange {
  /** What the number is called, and what it is now. */
  words: string;
  before: number;
  /** The number with which the answer is another. */
  after: number;
  command: DocumentCommand;
  /** The tick from which it was tried, and the one in which the agent comes there, or begins it, to stay so until it was asked. */
  from: number;
  entered: number;
}

export interface TryProgress {
  /** Runs that were made. */
  tried: number;
  /** Of how many at most, before one is found. */
  of: number;
}

/** Seconds before the question from which changes are tried. */
const TRY_SECONDS = 10;
/** Numbers are tried multiplied and divided by these, smallest first. */
const FACTORS = [1.1, 1.3, 1.7, 2.5, 5, 10];
/** Times the way between a factor that changes nothing and one that does is halved. */
const HALVINGS = 5;

/** The tick from which is tried: a whole second, so that a snapshot is near, under the edit that is in force. */
function firstTick(run: Run, program: Program, { tick: asked }: TryQuestion): number {
  const { ticksPerSecond } = program;
  const edited = run.edits.findLast(({ afterTick }) => afterTick < asked)?.afterTick ?? 0;
  const wanted = Math.max(run.keptFrom, edited, asked - TRY_SECONDS * ticksPerSecond, 0);
  return Math.min(asked - 1, Math.ceil(wanted / ticksPerSecond) * ticksPerSecond);
}

/**
 * Runs the past again from a tick under another program, with the same input. Gives the tick in which the
 * agent comes to the goal to be so at the end; −1 where it does not.
 */
function runAgain(
  run: Run,
  program: Program,
  from: number,
  { agent, mind, tick: asked }: TryQuestion,
  goal: Target,
): number {
  const world = swapProgram(revisit(run, from), program, 0, run.seed);
  const isMet = watchGoal(world, agent, mind, goal);
  let entered = -1;
  const inputsAt = recordedInputs(run, from);
  while (world.tick < asked) {
    tick(world, inputsAt(world.tick + 1));
    if (!isMet()) entered = -1;
    else if (entered < 0) entered = world.tick;
  }
  return entered;
}

/** How far a factor is from changing nothing, up or down. */
function sizeOf({ factor }: Tried): number {
  return Math.max(factor, 1 / factor);
}

/** A number as people write it: three figures that count. */
function rounded(value: number): number {
  return Number(value.toPrecision(3));
}

interface Tried {
  site: NumberSite;
  /** What it is multiplied with. */
  factor: number;
  after: number;
  command: DocumentCommand;
  entered: number;
}

/**
 * Looks for the smallest single change of a number with which the agent would have come to the goal, from
 * small factors to large ones; the number is then brought as near to what it was as will do. Each step is one
 * run of the past, so that who goes on with it can stop at any: null where no number does it, `already` where
 * the edit in force does.
 *
 * @param document the one that is in force, without errors
 */
export function* tryChanges(
  run: Run,
  document: ProjectDocument,
  question: TryQuestion,
): Generator<TryProgress, FoundChange | 'already' | null> {
  const { agent, mind, goal } = question;
  const from = firstTick(run, run.latest.program, question);
  const sites = numbersThatMatter(document, agent, mind, goal);
  const of = sites.length * FACTORS.length * 2;
  let tried = 0;
  // The tick may have run under an earlier edit than the one that is in force.
  if (runAgain(run, run.latest.program, from, question, goal) >= 0) return 'already';

  const attempt = (site: NumberSite, factor: number): Tried | null => {
    tried++;
    const after = rounded(site.value * factor);
    if (after === site.value) return null;
    const command = site.put(after);
    let program: Program | null = null;
    try {
      program = compileProject(applyCommand(document, command)).program;
    } catch (error) {
      // Out of the bounds of its field: no number to be tried.
      if (!(error instanceof CommandError)) throw error;
    }
    if (!program) return null;
    const entered = runAgain(run, program, from, question, goal);
    return entered < 0 ? null : { site, factor, after, command, entered };
  };

  /** The factor nearest to 1 that does, between one that does not and one that does. */
  function* nearer(found: Tried, below: number): Generator<TryProgress, Tried> {
    let best = found;
    let [fails, does] = [below, found.factor];
    for (let i = 0; i < HALVINGS; i++) {
      const middle = Math.sqrt(fails * does);
      const trial = attempt(found.site, middle);
      yield { tried, of };
      if (trial) [best, does] = [trial, middle];
      else fails = middle;
    }
    return best;
  }

  for (const [level, size] of FACTORS.entries()) {
    const found: Tried[] = [];
    for (const site of sites) {
      for (const factor of [size, 1 / size]) {
        const trial = attempt(site, factor);
        if (trial) found.push(trial);
        yield { tried, of };
      }
    }
    if (found.length === 0) continue;
    const before = level === 0 ? 1 : FACTORS[level - 1];
    let best: Tried | null = null;
    for (const each of found) {
      const near: Tried = yield* nearer(each, each.factor > 1 ? before : 1 / before);
      if (!best || sizeOf(near) < sizeOf(best)) best = near;
    }
    const { site, after, command, entered } = best!;
    return { words: site.words, before: site.value, after, command, from, entered };
  }
  return null;
}
