import { compileFlag } from '../expression/closures.ts';
import type { CheckedExpression } from '../expression/ir.ts';
import { readText } from '../expression/readout.ts';
import { breakpointWords, type BreakpointKind } from '../model/documents/run.ts';
import type { Agent } from '../world/agents/agent.ts';
import type { BreakpointProgram } from '../world/program/breakpoint-program.ts';
import type { Input, Program } from '../world/program/program.ts';
import { nameTables } from '../world/recording/names.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import type { World } from '../world/world.ts';
import { advance, entriesOfTick, revisit, seek, type Run } from './run.ts';

/** Ticks at which a run stops by itself, found as it goes on or looking back. */

/** What made a run stop. */
export interface Stop {
  /** Name of the breakpoint. */
  breakpoint: string;
  tick: number;
  /** By name. */
  agent: string;
  words: string;
}

/** Breakpoints with what they have met. */
export interface Breakpoints {
  /** What the conditions were read for; under another program they mean nothing. */
  program: Program;
  bound: readonly BreakpointProgram[];
  /** Ticks at which each was met, by its place in `bound`. */
  met: number[][];
  watched: readonly WatchedCondition[];
  /** The tick after which the conditions were looked at last; −1 for none. */
  lookedAt: number;
}

/** One condition in one agent. */
interface WatchedCondition {
  place: number;
  agent: number;
  expression: CheckedExpression;
  test: (agent: Agent) => boolean;
  held: boolean;
}

/** What an entry of the ledger is, in the order of `BREAKPOINT_KINDS.….of`; null for entries of other kinds. */
const PARTS: Record<
  Exclude<BreakpointKind, 'condition'>,
  (entry: LedgerEntry) => readonly string[] | null
> = {
  enter: (entry) => (entry.kind === 'enter' ? [entry.state] : null),
  exit: (entry) => (entry.kind === 'exit' ? [entry.state] : null),
  transition: (entry) => (entry.kind === 'transition' ? [entry.from, String(entry.order)] : null),
  ended: (entry) =>
    entry.kind === 'end' && entry.row !== undefined
      ? [entry.state, String(entry.row + 1), entry.ending]
      : null,
  picked: (entry) => (entry.kind === 'picked' ? [entry.choice, entry.option ?? 'nothing'] : null),
  move: (entry) => (entry.kind === 'move' ? [entry.move] : null),
  hit: (entry) => (entry.kind === 'hit' ? [entry.move, entry.result] : null),
  percept: (entry) => (entry.kind === 'percept' ? [entry.sense, entry.how, entry.of] : null),
  memory: (entry) => (entry.kind === 'memory' ? [entry.key, entry.value] : null),
};

/** What an entry stops a run for; null where the breakpoint is about something else. */
function stopAt({ name, document, agents }: BreakpointProgram, entry: LedgerEntry): Stop | null {
  const { on, of = '' } = document;
  if (on === 'condition' || (agents !== null && !agents.has(entry.agent))) return null;
  const parts = PARTS[on](entry);
  if (!parts || !of.split(':').every((wanted, i) => wanted === '' || wanted === parts[i]))
    return null;
  const words = breakpointWords({ on, of: parts.filter(Boolean).join(':') });
  return { breakpoint: name, tick: entry.tick, agent: entry.agent, words };
}

/**
 * Breakpoints ready to watch a run. What the ledger already holds counts as met; of conditions, what is
 * met from here on.
 */
export function watchFor(bound: readonly BreakpointProgram[], run: Run): Breakpoints {
  const { program } = run.latest;
  return {
    program,
    bound,
    met: bound.map((each) =>
      run.entries.filter((entry) => stopAt(each, entry)).map((entry) => entry.tick),
    ),
    watched: bound.flatMap(({ agents, conditions }, place) =>
      program.agents.flatMap(({ name, archetype }, agent): WatchedCondition[] => {
        const stack = program.stacks[program.archetypes[archetype].stack];
        const expression = stack && conditions.get(stack.minds[0].name);
        if (!expression || (agents !== null && !agents.has(name))) return [];
        return [{ place, agent, expression, test: compileFlag(expression.ir), held: true }];
      }),
    ),
    lookedAt: -1,
  };
}

/** Looks at all conditions and gives those that have just come true. */
function lookAtConditions({ watched, program }: Breakpoints, world: World): WatchedCondition[] {
  if (world.statics.program !== program) return [];
  return watched.filter((each) => {
    const before = each.held;
    each.held = each.test(world.agents[each.agent]);
    return each.held && !before;
  });
}

function conditionStop(breakpoints: Breakpoints, each: WatchedCondition, world: World): Stop {
  const agent = world.agents[each.agent];
  const worth = readText(each.expression, agent, nameTables(agent.program));
  return {
    breakpoint: breakpoints.bound[each.place].name,
    tick: world.tick,
    agent: agent.name,
    words: `${each.expression.source}: ${worth}`,
  };
}

/**
 * Runs one tick on, as {@link advance} does, and gives what it is to stop for. A breakpoint that is switched
 * off counts, and stops nothing. Nothing of this changes the run.
 *
 * @param inputs null where the recorded future is gone through and stays
 */
export function advanceTo(
  breakpoints: Breakpoints,
  run: Run,
  inputs: readonly Input[] | null = [],
): Stop[] {
  const from = run.world.tick;
  for (const met of breakpoints.met) while (met.length > 0 && met[met.length - 1] > from) met.pop();
  // After a jump in time what held before is what holds where the run goes on from.
  if (breakpoints.lookedAt !== from) lookAtConditions(breakpoints, run.world);
  if (inputs) advance(run, inputs);
  else seek(run, from + 1);
  const { world } = run;
  breakpoints.lookedAt = world.tick;
  const stops: Stop[] = [];
  const meet = (place: number, stop: Stop) => {
    const { document } = breakpoints.bound[place];
    const met = breakpoints.met[place];
    met.push(stop.tick);
    if (!document.off && met.length >= (document.after ?? 1)) stops.push(stop);
  };
  for (const entry of entriesOfTick(run, world.tick))
    breakpoints.bound.forEach((each, place) => {
      const stop = stopAt(each, entry);
      if (stop) meet(place, stop);
    });
  for (const each of lookAtConditions(breakpoints, world))
    meet(each.place, conditionStop(breakpoints, each, world));
  return stops;
}

/**
 * The last time before the world’s tick that a breakpoint was met, however often it is to be passed over;
 * null where there is none in what is kept. For conditions the kept past is run again.
 */
export function lastMet(breakpoints: Breakpoints, run: Run): Stop | null {
  const now = run.world.tick;
  const wanted = breakpoints.bound.filter(({ document }) => !document.off);
  let last: Stop | null = null;
  for (let i = run.entries.length - 1; i >= 0 && !last; i--) {
    const entry = run.entries[i];
    if (entry.tick >= now) continue;
    for (const each of wanted) last ??= stopAt(each, entry);
  }
  const looking = watchFor(wanted, run);
  if (looking.watched.length === 0 || now < 1) return last;
  revisit(run, now - 1, run.keptFrom, (world) => {
    for (const each of lookAtConditions(looking, world)) {
      const stop = conditionStop(looking, each, world);
      if (!last || stop.tick >= last.tick) last = stop;
    }
  });
  return last;
}
