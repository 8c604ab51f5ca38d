import type { LedgerEntry } from '../../world/state/recorder.ts';
import {
  entriesOf,
  fact,
  lastBefore,
  placeOf,
  QuestionError,
  titleIn,
  titleOf,
  whoIsAsked,
  type Question,
  type Statement,
} from './statement.ts';
import { whyEntered, type Past } from './why.ts';

/** Questions over the whole run up to a tick, answered from what the ledger holds. */

/** So many times are listed, the latest. */
const LISTED = 40;

function pastOf(question: Question): Past {
  const asked = whoIsAsked(question);
  return { question, asked, entries: entriesOf(question, asked) };
}

/** “Warden 2 came to be in Chase 3 times”, with each time below it, the latest first. */
function times(what: string, each: readonly Statement[]): Statement {
  const count = each.length === 1 ? 'once' : `${each.length} times`;
  return {
    statement: each.length === 0 ? `${what}: never, up to here` : `${what} ${count}`,
    holds: true,
    values: [],
    since: null,
    nearest: null,
    cause: [...each].reverse().slice(0, LISTED),
  };
}

/** What ever led the agent into a state. Throws a {@link QuestionError} where there is no such state. */
export function whatEverLedTo(question: Question, state: string): Statement {
  const past = pastOf(question);
  const { asked, entries } = past;
  if (!asked.mind.program.machine.states.some(({ id }) => id === state))
    throw new QuestionError(`This mind has no state “${state}”.`);
  const title = titleOf(asked, state);
  const each = entries.flatMap((entry, i) =>
    entry.kind === 'enter' && entry.state === state
      ? [
          {
            ...fact(`entered ${title}`, entry.tick, whyEntered(past, state, i, 0)),
            place: placeOf(asked, state, title),
          },
        ]
      : [],
  );
  return times(`${asked.agent.placed.title} came to be in ${title}`, each);
}

/** Who ever told the agent something. */
export function whoTold(question: Question): Statement {
  const { asked, entries } = pastOf(question);
  const each = entries.flatMap((entry) =>
    entry.kind === 'percept' && entry.sense === 'told'
      ? [
          fact(
            `${entry.of || 'an agent'} told it “${entry.how}”, at (${entry.x.toFixed(1)}, ${entry.y.toFixed(1)})`,
            entry.tick,
          ),
        ]
      : [],
  );
  return times(`${asked.agent.placed.title} was told something`, each);
}

/** What the agent did in the tick in which it wrote a key: the transition it took, else the state it was in. */
function whileWriting(past: Past, at: number): Statement[] {
  const { question, asked, entries } = past;
  const { tick } = entries[at];
  const taken = lastBefore(entries, 'transition', at, (entry) => entry.tick === tick);
  const transition = taken < 0 ? undefined : entries[taken];
  if (transition?.kind === 'transition') {
    const { from, order, on, when, values = [] } = transition;
    const title = titleIn(question, asked, from, tick);
    const reason = [on && `on ${on}`, when].filter(Boolean).join(' and ') || 'its time was over';
    return [
      {
        ...fact(`transition ${order} of ${title}: ${reason}`, tick, [], values),
        place: placeOf(asked, from, title),
      },
    ];
  }
  const entered = lastBefore(entries, 'enter', at, () => true);
  const entry = entered < 0 ? undefined : entries[entered];
  if (entry?.kind !== 'enter') return [];
  const title = titleIn(question, asked, entry.state, tick);
  return [
    {
      ...fact(`it was in ${title}`, entry.tick),
      place: placeOf(asked, entry.state, title),
    },
  ];
}

type Write = Extract<LedgerEntry, { kind: 'memory' | 'forgot' }>;

/** When and why a key of the agent’s memory was written, or forgotten. Throws a {@link QuestionError} where it has no such key. */
export function whyRemembered(question: Question, key: string): Statement {
  const past = pastOf(question);
  const { asked, entries } = past;
  if (!asked.agent.stack!.program.keys.some(({ name }) => name === key))
    throw new QuestionError(`This mind has no key “${key}”.`);
  const isOfKey = (entry: LedgerEntry): entry is Write =>
    (entry.kind === 'memory' || entry.kind === 'forgot') && entry.key === key;
  const each = entries.flatMap((entry, i) => {
    if (!isOfKey(entry)) return [];
    const words = entry.kind === 'memory' ? `it was set to ${entry.value}` : 'it was forgotten';
    return [fact(words, entry.tick, entry.kind === 'memory' ? whileWriting(past, i) : [])];
  });
  return times(`${key} of ${asked.agent.placed.title} was written or forgotten`, each);
}
