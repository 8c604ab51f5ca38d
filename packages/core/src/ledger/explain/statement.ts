import { readList } from '../../mind/machine/cells.ts';
import type { RunnableMind } from '../../mind/machine/mind.ts';
import type { Agent } from '../../world/agents/agent.ts';
import type { Program } from '../../world/program/program.ts';
import type { LedgerEntry, Reading } from '../../world/state/recorder.ts';
import type { Input } from '../../world/program/program.ts';
import { tick } from '../../world/phases/tick.ts';
import { createWorld, setRecorder, type World } from '../../world/world.ts';

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
  /** Which of its minds, by name; left out: the first. */
  mind?: string;
  tick: number;
  inputs?: readonly { tick: number; input: Input }[];
}

/** Whom a question is about. */
export interface Asked {
  agent: Agent;
  mind: RunnableMind;
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

function askedOf(world: World, { agent: name, mind }: Question): Asked {
  const agent = world.agents.find((candidate) => candidate.name === name);
  if (!agent)
    throw new QuestionError(
      `There is no agent “${name}”. There are: ${world.agents.map((other) => other.name).join(', ')}.`,
    );
  if (agent.minds.length === 0)
    throw new QuestionError(`“${name}” has no mind, so it decides nothing.`);
  const found =
    mind === undefined ? agent.minds[0] : agent.minds.find(({ program }) => program.name === mind);
  if (!found)
    throw new QuestionError(
      `“${name}” has no mind “${mind}”. It has: ${agent.minds.map(({ program }) => program.name).join(', ')}.`,
    );
  return { agent, mind: found };
}

/** Whom the question is about, before anything has run. Throws a {@link QuestionError} for nobody. */
export function whoIsAsked(question: Question): Asked {
  return askedOf(createWorld(question.program, question.seed), question);
}

/** Runs up to the tick asked about and calls `look` after every tick. */
export function rerun(
  question: Question,
  look: (asked: Asked) => void,
): Asked & { entries: LedgerEntry[] } {
  const { program, seed, tick: last, inputs = [] } = question;
  const world = createWorld(program, seed);
  const asked = askedOf(world, question);
  const which = asked.mind === asked.agent.minds[0] ? undefined : asked.mind.program.name;
  const entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => {
    if (entry.agent === asked.agent.name && entry.mind === which) entries.push(entry);
  });
  while (world.tick < last) {
    const now = world.tick + 1;
    tick(
      world,
      inputs.filter((entry) => entry.tick === now).map(({ input }) => input),
    );
    look(asked);
  }
  return { ...asked, entries };
}

export function titleOf({ mind }: Asked, state: string): string {
  return mind.program.machine.states.find(({ id }) => id === state)?.title ?? state;
}

/** Indices of the active states, outermost first. */
export function activeStates({ agent, mind }: Asked): number[] {
  return readList(agent.memory, mind.machine.cells.active);
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
