import { isAncestor } from '../../mind/machine/runnable.ts';
import type { TransitionProgram } from '../../mind/program.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import {
  activeStates,
  asleepNow,
  entriesOf,
  fact,
  lastBefore,
  placeOf,
  finished,
  firstLooked,
  rerunning,
  sinceOf,
  type RerunProgress,
  whoIsAsked,
  titleOf,
  type Asked,
  type Question,
  type Statement,
} from './statement.ts';
import { look, partStatement, watchGuard, type WatchedPart } from './watch.ts';
import { whyNotOption } from './choices.ts';
import { noRow } from './find-row.ts';
import { targetNamed, type Target } from './target.ts';
import { whyNotRow } from './why-not-row.ts';
import { DEPTH, tickEntered, whyEntered } from './why.ts';

interface WatchedTransition {
  /** Id of the state it leaves. */
  from: string;
  transition: TransitionProgram;
  parts: WatchedPart[];
}

/** Transitions that would lead to the state or into it. */
function transitionsTo({ mind }: Asked, state: string): TransitionProgram[] {
  const { states, transitions } = mind.program.machine;
  const goal = states.findIndex(({ id }) => id === state);
  const leads = (target: number) => target === goal || isAncestor(states, goal, target);
  return transitions.filter(({ target }) => target >= 0 && leads(target));
}

function stateOfTransition(
  asked: Asked,
  { from, transition, parts }: WatchedTransition,
  { entries, first }: { entries: readonly LedgerEntry[]; first: number | null },
): Statement {
  const { agent, mind } = asked;
  const { active, since: activeSince } = sinceOf(asked, from, entries);
  const { states, transitions } = mind.program.machine;
  const source = states[transition.source].title;
  const needs: Statement[] = [
    {
      statement: `it is in ${source}`,
      holds: active,
      values: [],
      since: activeSince,
      nearest: null,
      cause: [],
    },
    ...parts.map((part) => partStatement(part, agent, first)),
  ];
  const seconds = (ticks: number) => `${Number((ticks / agent.ticksPerSecond).toFixed(2))} s`;
  const now = agent.tick;
  if (transition.forTicks > 0) {
    const since = agent.memory[mind.machine.transitions[transitions.indexOf(transition)].heldAt];
    const held = active && since >= 0 ? now - since : 0;
    needs.push({
      statement: `all that for ${seconds(transition.forTicks)}`,
      holds: held >= transition.forTicks,
      values: [{ part: 'so far', value: seconds(held) }],
      since: since < 0 ? null : since,
      nearest: null,
      cause: [],
    });
  }
  if (transition.afterTicks > 0) {
    const spent = active ? now - activeSince! : 0;
    needs.push({
      statement: `${seconds(transition.afterTicks)} in ${source}`,
      holds: spent >= transition.afterTicks,
      values: [{ part: 'so far', value: seconds(spent) }],
      since: null,
      nearest: null,
      cause: [],
    });
  }
  if (transition.on !== '')
    needs.push({
      statement: `the event ${transition.on}`,
      holds: false,
      values: [],
      since: null,
      nearest: null,
      cause: [],
    });
  return {
    statement: `transition ${transition.order} of ${source}`,
    holds: needs.every(({ holds }) => holds),
    values: [],
    since: null,
    nearest: null,
    cause: needs,
    place: placeOf(asked, from, source),
    ...(active ? {} : { aside: true }),
  };
}

/**
 * Why the agent is not in a state, does not pick an option, or a row does not run, at that tick. For a state: for each
 * transition that leads there, what would have to hold, what does not, since when, and when it came nearest.
 *
 * @throws {QuestionError} the mind has no such state, option or row at that tick
 */
export function whyNot(question: Question, target: Target): Statement {
  return finished(whyNotSteps(question, target));
}

/** The same of what a text of a person names; see {@link targetNamed}. */
export function whyNotNamed(question: Question, text: string): Statement {
  return whyNot(question, targetNamed(whoIsAsked(question).mind, text));
}

/** The same in steps, for a past that is long. */
export function* whyNotSteps(
  question: Question,
  target: Target,
): Generator<RerunProgress, Statement> {
  const asked = whoIsAsked(question);
  const { states } = asked.mind.program.machine;
  if (target.kind === 'state' && !states.some(({ id }) => id === target.state))
    throw noRow(asked.mind, target.state);
  const entries = entriesOf(question, asked);
  const answer =
    target.kind === 'state'
      ? yield* whyNotState(question, target.state)
      : target.kind === 'option'
        ? whyNotOption(question, asked, target, entries)
        : yield* whyNotRow(question, asked.mind, target);
  const first = firstLooked(question);
  return {
    ...answer,
    cause: answer.holds ? answer.cause : [...wouldWake(asked, entries), ...answer.cause],
    ...(first === null ? {} : { lookedFrom: first }),
  };
}

/** A sleeping agent would first have to wake, whatever the question. */
function wouldWake(asked: Asked, entries: readonly LedgerEntry[]): Statement[] {
  return asleepNow(asked, entries).map((asleep) => ({
    ...asleep,
    statement: 'it is awake, and decides',
    holds: false,
    values: [{ part: 'it', value: asleep.statement }],
  }));
}

/** The transitions to be watched from here on; those that were so before an edit go on where their guards say the same. */
function watchTransitions(
  asked: Asked,
  state: string,
  before: readonly WatchedTransition[],
): WatchedTransition[] {
  const { states } = asked.mind.program.machine;
  return transitionsTo(asked, state).map((transition) => {
    const from = states[transition.source].id;
    const known = before.find(
      (other) => other.from === from && other.transition.order === transition.order,
    );
    return {
      from,
      transition,
      parts: watchGuard(transition.when, known?.parts),
    };
  });
}

function* whyNotState(question: Question, state: string): Generator<RerunProgress, Statement> {
  let watched: WatchedTransition[] = [];
  let under: Asked['mind'] | null = null;
  const asked = yield* rerunning(question, (now) => {
    const active = new Set(activeStates(now));
    if (now.mind !== under) watched = watchTransitions(now, state, watched);
    under = now.mind;
    for (const { transition, parts } of watched)
      for (const part of parts) look(part, now.agent, active.has(transition.source));
  });
  const entries = entriesOf(question, asked);
  const { agent, mind } = asked;
  const title = titleOf(asked, state);
  const last = entries.length - 1;
  const index = mind.program.machine.states.findIndex(({ id }) => id === state);
  if (activeStates(asked).includes(index)) {
    return fact(
      `${agent.placed.title} is in ${title}`,
      tickEntered(entries, state, last),
      whyEntered({ question, asked, entries }, state, last, DEPTH),
    );
  }
  // The ways that are open come before those of states it is not in.
  const rest = { entries, first: firstLooked(question) };
  const ways = watched
    .map((entry) => stateOfTransition(asked, entry, rest))
    .sort((a, b) => Number(a.aside ?? false) - Number(b.aside ?? false));
  const left = lastBefore(entries, 'exit', last, (entry) => entry.state === state);
  const none = fact('no transition leads there', null);
  return {
    statement: `${agent.placed.title} is in ${title}`,
    holds: false,
    values: [],
    since: left < 0 ? null : entries[left].tick,
    nearest: null,
    cause: ways.length > 0 ? ways : [none],
  };
}
