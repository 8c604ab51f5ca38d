import { compileProject } from '../compile/compile-project.ts';
import { applyCommand } from '../editing/apply-command.ts';
import { CommandError, type DocumentCommand } from '../editing/commands/commands.ts';
import { recordedInputs, revisit, type Run } from '../ledger/run.ts';
import type { Name, ProjectDocument } from '../model/documents.ts';
import { swapProgram } from '../world/handover/swap.ts';
import { tickAsRecorded } from '../world/phases/tick.ts';
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
/** Numbers are tried multiplied and divided by these, and with as much added and taken off; smallest first. */
const FACTORS = [1.1, 1.3, 1.7, 2.5, 5, 10];
/** Times the way between a number that changes nothing and one that does is halved. */
const HALVINGS = 5;

/** How a number is changed by each size: the changed one. Sums count in ones where the number is smaller than one. */
const WAYS: readonly ((value: number, size: number) => number)[] = [
  (value, size) => value * size,
  (value, size) => value / size,
  (value, size) => value + Math.max(1, Math.abs(value)) * (size - 1),
  (value, size) => value - Math.max(1, Math.abs(value)) * (size - 1),
];

/** The numbers a size makes of another, each once. Of a large one a sum is tried only where it crosses zero: else a factor does about the same. */
function changed(value: number, size: number): { after: number; way: number }[] {
  const found: { after: number; way: number }[] = [];
  WAYS.forEach((change, way) => {
    const after = rounded(change(value, size));
    const isSum = way >= 2;
    if (isSum && Math.abs(value) >= 1 && Math.sign(after) === Math.sign(value)) return;
    if (after !== value && !found.some((each) => each.after === after)) found.push({ after, way });
  });
  return found;
}

/** The tick from which is tried: a whole second, so that a snapshot is near, under the edit that is in force. */
function firstTick(run: Run, program: Program, { tick: asked }: TryQuestion): number {
  const { ticksPerSecond } = program;
  const edited = run.edits.findLast(({ afterTick }) => afterTick < asked)?.afterTick ?? 0;
  const wanted = Math.max(run.keptFrom, edited, asked - TRY_SECONDS * ticksPerSecond, 0);
  return Math.min(asked - 1, Math.ceil(wanted / ticksPerSecond) * ticksPerSecond);
}

/** When the goal was met in a run of the past. */
interface Met {
  /** The tick in which the agent came to the goal to be so at the end; −1 where it was not. */
  entered: number;
  /** Every tick in which it was so. */
  ticks: ReadonlySet<number>;
}

/** Runs the past again from a tick under another program, with the same input. */
function runAgain(
  run: Run,
  program: Program,
  from: number,
  { agent, mind, tick: asked }: TryQuestion,
  goal: Target,
): Met {
  const world = swapProgram(revisit(run, from), program, 0, run.seed);
  const isMet = watchGoal(world, agent, mind, goal);
  let entered = -1;
  const ticks = new Set<number>();
  const inputsAt = recordedInputs(run, from);
  while (world.tick < asked) {
    tickAsRecorded(world, inputsAt(world.tick + 1));
    if (isMet()) {
      ticks.add(world.tick);
      if (entered < 0) entered = world.tick;
    } else entered = -1;
  }
  return { entered, ticks };
}

/** How large a change is: by factor or by sum, whichever makes less of it. */
function sizeOf({ site: { value }, after }: Tried): number {
  const bySum = 1 + Math.abs(after - value) / Math.max(1, Math.abs(value));
  if (value * after <= 0) return bySum;
  return Math.min(bySum, Math.max(after / value, value / after));
}

/** A number as people write it: three figures that count. */
function rounded(value: number): number {
  return Number(value.toPrecision(3));
}

/** Half way between two numbers: of one sign by factors, else by sums. */
function middleOf(a: number, b: number): number {
  return a * b > 0 ? Math.sign(a) * Math.sqrt(a * b) : (a + b) / 2;
}

/** A number may be so much farther from what it was, as a share of the change, where that takes fewer digits. */
const ROUNDING = 0.05;

/** The number with the fewest digits between one that fails and one that does, or a little beyond that. */
function roundest(before: number, fails: number, enough: number): number {
  const does = enough + (enough - before) * ROUNDING;
  for (let digits = 0, unit = 1; digits <= 12; digits++, unit *= 10) {
    const toward = does > fails ? Math.floor(does * unit) : Math.ceil(does * unit);
    const found = Number((toward / unit).toFixed(digits));
    if ((found - fails) * (does - fails) > 0) return found;
  }
  return enough;
}

interface Tried {
  site: NumberSite;
  after: number;
  command: DocumentCommand;
  entered: number;
}

/**
 * Looks for the smallest single change of a number with which the agent would have come to the goal, from
 * small changes to large ones, by factors and by sums; the number is then brought as near to what it was as will do. Each step is one
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
  const of = sites.reduce(
    (sum, { value }) => sum + FACTORS.reduce((all, size) => all + changed(value, size).length, 0),
    0,
  );
  let tried = 0;
  // The tick may have run under an earlier edit than the one that is in force.
  const before = runAgain(run, run.latest.program, from, question, goal);
  if (before.entered >= 0) return 'already';
  /** A longer time with which it does the same, and only ends later, is no answer. */
  const onlyLasts = (site: NumberSite, entered: number) => site.lasts && before.ticks.has(entered);

  const attempt = (site: NumberSite, after: number): Tried | null => {
    tried++;
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
    const { entered } = runAgain(run, program, from, question, goal);
    return entered < 0 || onlyLasts(site, entered) ? null : { site, after, command, entered };
  };

  /** The number nearest to what it was that does, between one that does not and one that does; of those about as near the roundest. */
  function* nearer(found: Tried, below: number): Generator<TryProgress, Tried> {
    let best = found;
    let fails = below;
    const take = (trial: Tried | null, after: number) => {
      if (trial) best = trial;
      else fails = after;
    };
    for (let i = 0; i < HALVINGS; i++) {
      const middle = rounded(middleOf(fails, best.after));
      if (middle === fails || middle === best.after) break;
      take(attempt(found.site, middle), middle);
      yield { tried, of };
    }
    const round = roundest(found.site.value, fails, best.after);
    if (round !== best.after) {
      take(attempt(found.site, round), round);
      yield { tried, of };
    }
    return best;
  }

  for (const [level, size] of FACTORS.entries()) {
    const found: { trial: Tried; below: number }[] = [];
    for (const site of sites) {
      for (const { after, way } of changed(site.value, size)) {
        const trial = attempt(site, after);
        const below = level === 0 ? site.value : WAYS[way](site.value, FACTORS[level - 1]);
        if (trial) found.push({ trial, below });
        yield { tried, of };
      }
    }
    if (found.length === 0) continue;
    let best: Tried | null = null;
    for (const { trial, below } of found) {
      const near: Tried = yield* nearer(trial, below);
      if (!best || sizeOf(near) < sizeOf(best)) best = near;
    }
    const { site, after, command, entered } = best!;
    return { words: site.words, before: site.value, after, command, from, entered };
  }
  return null;
}
