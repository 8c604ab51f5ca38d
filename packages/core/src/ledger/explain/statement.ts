import { readList } from '../../mind/machine/cells.ts';
import type { RunnableMind } from '../../mind/machine/mind.ts';
import type { MindProgram, StackProgram } from '../../mind/program.ts';
import { degrees } from '../../numeric/trigonometry.ts';
import type { Agent } from '../../world/agents/agent.ts';
import type { Program } from '../../world/program/program.ts';
import type { LedgerEntry, Reading } from '../../world/state/recorder.ts';
import type { World } from '../../world/world.ts';
import { programAt, replayTick, revisit, type RunPast } from '../run.ts';

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
  /** It is a matter of its own, or counts for little: a way out of a state that is not active. */
  aside?: true;
  /** The state in whose sheet it is written, where it is. */
  place?: StatementPlace;
  /** The first tick that was looked at, where what was kept before it was not. */
  lookedFrom?: number;
}

/** A state of a mind, by its names in the document. */
export interface StatementPlace {
  mind: string;
  state: string;
  title: string;
}

/** What is asked about: a tick of a run. The run stays where it is. */
export interface Question {
  run: RunPast;
  /** By name. */
  agent: string;
  /** Which of its minds, by name; left out: the first. */
  mind?: string;
  tick: number;
  /** So many ticks before it are run again, to say since when and how nearly; left out: all that is kept. */
  back?: number;
}

/** How far the past has been run again, in ticks. */
export interface RerunProgress {
  done: number;
  of: number;
}

/** The agent a question is about. */
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

/** Something that a statement rests on, and whether it is so. */
export function condition(holds: boolean, statement: string): Statement {
  return { ...fact(statement, null), holds };
}

export function degreesText(radians: number): string {
  return `${Math.round(degrees(radians))}°`;
}

/** More agents than this are not listed where one is not found. */
const NAMED = 12;

/** The agent the question is about in a world. Throws a {@link QuestionError} for an unknown agent, and for one without such a mind. */
export function askedOf(world: World, { agent: name, mind }: Question): Asked {
  const agent = world.agents.find((candidate) => candidate.name === name);
  if (!agent) {
    const there = world.agents.map((other) => other.name);
    throw new QuestionError(
      `There is no agent “${name}”.${there.length > NAMED ? '' : ` There are: ${there.join(', ')}.`}`,
    );
  }
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

/** The agent the question is about, at its tick. Throws a {@link QuestionError} for an unknown agent, and for a tick that can't be asked about. */
export function whoIsAsked(question: Question): Asked {
  checkTick(question);
  return askedOf(revisit(question.run, question.tick), question);
}

/** Throws a {@link QuestionError} for a tick that can’t be asked about. */
export function checkTick({ run, tick: at }: Question): void {
  if (at < 1)
    throw new QuestionError('Minds first decide in tick 1; ask about that tick or a later one.');
  if (at > run.head)
    throw new QuestionError(`The run has come to tick ${run.head}; tick ${at} is still ahead.`);
  if (at < run.keptFrom)
    throw new QuestionError(`What was before tick ${run.keptFrom} is no longer kept.`);
}

/** The ledger’s entries of the agent the question is about, up to its tick. */
export function entriesOf({ run, tick: last }: Question, { agent, mind }: Asked): LedgerEntry[] {
  const which = mind === agent.minds[0] ? undefined : mind.program.name;
  return run.entries.filter(
    (entry) => entry.tick <= last && entry.agent === agent.name && entry.mind === which,
  );
}

/** The tick after which the past is looked at. */
function lookedAfter({ run, tick: last, back = Infinity }: Question): number {
  return Math.max(run.keptFrom, Math.min(last - 1, last - back));
}

/** Where the past was not looked at as far as it is kept: the first tick that was. */
export function firstLooked(question: Question): number | null {
  const after = lookedAfter(question);
  return after > question.run.keptFrom ? after + 1 : null;
}

/** Ticks that are run between two stops. */
const TICKS_AT_ONCE = 60;

/**
 * Runs the past again up to the tick asked about and calls `look` after every tick in which the asked agent was
 * there. It stops now and then, so that who goes on with it can end it.
 */
export function* rerunning(
  question: Question,
  look: (asked: Asked) => void,
): Generator<RerunProgress, Asked> {
  const { run, tick: last } = question;
  let asked: Asked | null = null;
  let program: Program | null = null;
  const from = lookedAfter(question);
  let world = revisit(run, from);
  while (world.tick < last) {
    world = replayTick(run, world);
    if (world.statics.program !== program) {
      ({ program } = world.statics);
      asked = null;
    }
    asked ??= isThere(world, question) ? askedOf(world, question) : null;
    if (asked) look(asked);
    if (world.tick % TICKS_AT_ONCE === 0) yield { done: world.tick - from, of: last - from };
  }
  return askedOf(world, question);
}

/** Goes on with work to its end. */
export function finished<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

/** Since when a state is active, or is not; null where what is kept does not say. */
export function sinceOf(
  { agent, mind }: Asked,
  state: string,
  entries: readonly LedgerEntry[],
): { active: boolean; since: number | null } {
  const { states } = mind.program.machine;
  const index = states.findIndex(({ id }) => id === state);
  const active = activeStates({ agent, mind }).includes(index);
  if (active) return { active, since: agent.memory[mind.machine.states[index].enteredAt] };
  const left = lastBefore(entries, 'exit', entries.length - 1, (entry) => entry.state === state);
  return { active, since: left < 0 ? null : entries[left].tick };
}

function isThere(world: World, { agent: name, mind }: Question): boolean {
  const agent = world.agents.find((candidate) => candidate.name === name);
  const minds = agent?.minds ?? [];
  return (
    minds.length > 0 && (mind === undefined || minds.some(({ program }) => program.name === mind))
  );
}

/** The minds the agent had when it decided in a tick, and the keys they shared; under another edit these may be others. */
function stackIn(question: Question, { agent }: Asked, at: number): StackProgram | null {
  const { agents, archetypes, stacks } = programAt(question.run, at);
  const placed = agents.find(({ name }) => name === agent.name);
  return (placed && stacks[archetypes[placed.archetype].stack]) ?? null;
}

export function keysOf(question: Question, asked: Asked, at: number): StackProgram['keys'] {
  return stackIn(question, asked, at)?.keys ?? [];
}

/** The mind as it was when it decided in a tick; null where there was none. */
export function mindIn(question: Question, asked: Asked, at: number): MindProgram | null {
  const minds = stackIn(question, asked, at)?.minds ?? [];
  return minds.find(({ name }) => name === asked.mind.program.name) ?? null;
}

/** What a state was called in a tick. */
export function titleIn(question: Question, asked: Asked, state: string, at: number): string {
  const mind = mindIn(question, asked, at) ?? asked.mind.program;
  return mind.machine.states.find(({ id }) => id === state)?.title ?? state;
}

/** Where a state is written, for a statement about it. */
export function placeOf({ mind }: Asked, state: string, title: string): StatementPlace {
  return { mind: mind.program.name, state, title };
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

/** Why an agent decides nothing at all; empty where it decides. */
export function asleepNow({ agent }: Asked, entries: readonly LedgerEntry[]): Statement[] {
  if (agent.isDead) return [];
  if (agent.asleep) return [fact('it is asleep until it is woken', null)];
  // Absent agents rest too, and a director, which has no body, is one of them.
  if (!agent.resting || agent.archetype.sleepDistance === 0) return [];
  const began = lastBefore(entries, 'sleeps', entries.length - 1);
  const value = `${agent.archetype.sleepDistance} m`;
  return [
    fact(
      'it sleeps, since every player is beyond its sleep distance',
      began < 0 ? null : entries[began].tick,
      [],
      [{ part: 'sleep distance', value }],
    ),
  ];
}

/** When an agent that had slept since it entered its state has woken; empty where it has not. */
export function wokeSince(
  { agent }: Asked,
  entries: readonly LedgerEntry[],
  entered: number | null,
): Statement[] {
  const woke = lastBefore(entries, 'wakes', entries.length - 1);
  if (agent.resting || woke < 0 || entries[woke].tick <= (entered ?? 0)) return [];
  return [fact('it woke, as a player came within its sleep distance', entries[woke].tick)];
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
