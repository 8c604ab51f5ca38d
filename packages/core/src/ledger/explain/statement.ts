import type { Agent } from '../../world/agent.ts';
import type { Program } from '../../world/program.ts';
import type { LedgerEntry, Reading } from '../../world/recorder.ts';
import { createWorld, setRecorder, tick, type Input, type World } from '../../world/world.ts';

/**
 * Why an agent did what it did, found by running it again with full attention: nothing is guessed, and
 * nothing needs to have been stored.
 */

/** One thing that is (or is not) so, with what it rests on. */
export interface Statement {
  statement: string;
  holds: boolean;
  /** Parts of the statement and what they are worth. */
  values: Reading[];
  /** Tick since which it has been so without a break; null where that is not known. */
  since: number | null;
  /** For what does not hold: when it came nearest to it, and how. */
  nearest: { tick: number; text: string } | null;
  cause: Statement[];
}

/** What is asked about: a run from its beginning. */
export interface Question {
  program: Program;
  seed: number;
  /** By name. */
  agent: string;
  tick: number;
  inputs?: readonly { tick: number; input: Input }[];
}

/** A question that can't be answered; the message says why. */
export class QuestionError extends Error {}

export function fact(
  statement: string,
  since: number | null,
  cause: Statement[] = [],
  values: Reading[] = [],
): Statement {
  return { statement, holds: true, values, since, nearest: null, cause };
}

/** Runs up to the tick asked about and calls `look` after every tick. */
export function rerun(
  { program, seed, agent, tick: last, inputs = [] }: Question,
  look: (agent: Agent) => void,
): { world: World; agent: Agent; entries: LedgerEntry[] } {
  const world = createWorld(program, seed);
  const asked = world.agents.find(({ name }) => name === agent);
  if (!asked)
    throw new QuestionError(
      `There is no agent “${agent}”. There are: ${program.agents.map(({ name }) => name).join(', ')}.`,
    );
  if (!asked.mind) throw new QuestionError(`“${agent}” has no mind, so it decides nothing.`);
  const entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entry.agent === agent && entries.push(entry));
  while (world.tick < last) {
    const now = world.tick + 1;
    tick(
      world,
      inputs.filter((entry) => entry.tick === now).map(({ input }) => input),
    );
    look(asked);
  }
  return { world, agent: asked, entries };
}

export function titleOf(agent: Agent, state: string): string {
  return agent.mind!.program.machine.states.find(({ id }) => id === state)?.title ?? state;
}

export function lastBefore<K extends LedgerEntry['kind']>(
  entries: readonly LedgerEntry[],
  kind: K,
  from: number,
  fits: (entry: Extract<LedgerEntry, { kind: K }>) => boolean = () => true,
): number {
  for (let i = from; i >= 0; i--) {
    const entry = entries[i];
    if (entry.kind === kind && fits(entry as Extract<LedgerEntry, { kind: K }>)) return i;
  }
  return -1;
}

/** The statement and all it rests on as indented lines, times in seconds. */
export function explanationLines(
  statement: Statement,
  ticksPerSecond: number,
  depth = 0,
): string[] {
  const time = (at: number) => `${(at / ticksPerSecond).toFixed(2)} s`;
  const values = statement.values.map(({ part, value }) => `${part} = ${value}`).join(', ');
  const line = [
    `${'  '.repeat(depth)}${statement.holds ? '+' : '-'} ${statement.statement}`,
    values && `[${values}]`,
    statement.since !== null && `since ${time(statement.since)}`,
    statement.nearest && `nearest at ${time(statement.nearest.tick)}: ${statement.nearest.text}`,
  ].filter(Boolean);
  return [
    line.join('  '),
    ...statement.cause.flatMap((cause) => explanationLines(cause, ticksPerSecond, depth + 1)),
  ];
}
