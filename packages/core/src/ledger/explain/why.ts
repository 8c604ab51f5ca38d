import { reasonText } from '../../world/readout/reason-text.ts';
import { BUILTIN_BY_SIGNATURE } from '../../expression/builtins.ts';
import { keysIn, partsOf, type CheckedExpression, type Ir } from '../../expression/ir.ts';
import type { MindProgram } from '../../mind/program.ts';
import { SENSE_KINDS, SENSES, type Sense } from '../../terms/senses.ts';
import { activityEnd, transitionTaken } from '../../world/readout/readout.ts';
import { readRows } from '../../world/readout/rows.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { choicesOf, whyPicked } from './choices.ts';
import {
  activeStates,
  asleepNow,
  wokeSince,
  entriesOf,
  fact,
  keysOf,
  lastBefore,
  mindIn,
  placeOf,
  QuestionError,
  titleIn,
  whoIsAsked,
  type Asked,
  type Question,
  type Statement,
} from './statement.ts';

/** Whose ledger is looked through, and what it holds up to the tick asked about. */
export interface Past {
  question: Question;
  asked: Asked;
  entries: readonly LedgerEntry[];
}

/** The end of the activity that a transition waited for. */
function endedBefore({ question, asked, entries }: Past, at: number): Statement[] {
  const { tick: when } = entries[at];
  const end = lastBefore(
    entries,
    'end',
    at,
    ({ tick: ended, ending }) => ended === when && ending !== 'stopped',
  );
  const entry = end < 0 ? undefined : entries[end];
  return entry?.kind === 'end' ? [endFact(question, asked, entry)] : [];
}

/** How an action ended, as a statement. */
export function endFact(
  question: Question,
  asked: Asked,
  { action, state, ending, reason, tick }: Extract<LedgerEntry, { kind: 'end' }>,
): Statement {
  const title = titleIn(question, asked, state, tick);
  return fact(
    `${action} in ${title} ended in ${ending}${reason ? `: ${reasonText(reason)}` : ''}`,
    tick,
  );
}

/** What the senses had brought when a transition was taken: the last percept that fits. */
function perceivedBefore(
  { entries }: Past,
  at: number,
  fits: (percept: Extract<LedgerEntry, { kind: 'percept' }>) => boolean,
): Statement[] {
  const last = lastBefore(entries, 'percept', at, fits);
  const entry = last < 0 ? undefined : entries[last];
  return entry?.kind === 'percept' ? [perceptFact(entry)] : [];
}

/** What a sense brought, as a statement. */
export function perceptFact(entry: Extract<LedgerEntry, { kind: 'percept' }>): Statement {
  const { sense, how, of, x, y, strength, tick } = entry;
  const source = of === '' ? '' : ` of ${of}`;
  return fact(
    `${SENSE_KINDS[sense].title.toLowerCase()}${source}: ${how}, at (${x.toFixed(1)}, ${y.toFixed(1)})`,
    tick,
    [],
    [{ part: sense === 'sight' ? 'awareness' : 'strength', value: strength.toFixed(2) }],
  );
}

/** The senses an expression speaks of. */
function sensesIn(ir: Ir): Set<Sense | 'attention'> {
  return new Set(
    partsOf(ir).flatMap((part) => {
      const sense = part.op === 'call' ? BUILTIN_BY_SIGNATURE.get(part.name)?.sense : undefined;
      return sense === undefined ? [] : [sense];
    }),
  );
}

/** What led to a transition besides its guard: the event's source, or the percepts and memory the guard speaks of. */
function causesOf(past: Past, at: number): Statement[] {
  const { question, asked, entries } = past;
  const taken = entries[at] as Extract<LedgerEntry, { kind: 'transition' }>;
  const [event, what] = taken.on?.split('.') ?? [];
  const raised: Statement[] = [];
  if (event === 'done') raised.push(...endedBefore(past, at));
  if (SENSES.includes(event as Sense))
    raised.push(
      ...perceivedBefore(
        past,
        at,
        ({ sense, how }) => sense === event && (what === undefined || how === what),
      ),
    );
  const mind = mindIn(question, asked, taken.tick);
  const guard = mind && guardOf(mind, taken);
  if (!guard) return raised;
  const senses = sensesIn(guard.ir);
  const seen = [...senses].flatMap((sense) =>
    perceivedBefore(past, at, (percept) => sense === 'attention' || percept.sense === sense),
  );
  const keys = keysOf(question, asked, taken.tick);
  const known = keysIn(guard.ir).flatMap((key) => {
    const { name } = keys[key];
    const written = lastBefore(entries, 'memory', at, (entry) => entry.key === name);
    const entry = written < 0 ? undefined : entries[written];
    return entry?.kind === 'memory' ? [fact(`${name} was set to ${entry.value}`, entry.tick)] : [];
  });
  return unlike([...raised, ...seen, ...known]);
}

/** Each statement once. */
function unlike(statements: readonly Statement[]): Statement[] {
  return statements.filter(
    ({ statement, since }, i) =>
      statements.findIndex((other) => other.statement === statement && other.since === since) === i,
  );
}

/** The guard that was looked at when a transition was taken. */
function guardOf(
  { machine }: MindProgram,
  entry: Extract<LedgerEntry, { kind: 'transition' }>,
): CheckedExpression | null {
  return transitionTaken(machine, entry)?.when ?? null;
}

/** The transitions an explanation goes back. */
export const DEPTH = 6;

export function whyEntered(past: Past, state: string, before: number, depth: number): Statement[] {
  const { question, asked, entries } = past;
  const entered = lastBefore(entries, 'enter', before, (entry) => entry.state === state);
  if (entered < 0 && question.run.keptFrom > 0)
    return [fact('what led there is no longer kept', question.run.keptFrom)];
  const at = lastBefore(
    entries,
    'transition',
    entered,
    (entry) => entry.tick === entries[entered].tick,
  );
  const taken = at < 0 ? undefined : entries[at];
  if (taken?.kind !== 'transition')
    return [fact('the run began there', entries[entered]?.tick ?? 0)];
  const { from, order, on, when, values = [] } = taken;
  const reason = [on && `on ${on}`, when].filter(Boolean).join(' and ') || 'its time was over';
  const title = titleIn(question, asked, from, taken.tick);
  const earlier =
    depth > 0
      ? [
          fact(
            `it was in ${title}`,
            tickEntered(entries, from, at),
            whyEntered(past, from, at, depth - 1),
          ),
        ]
      : [];
  return [
    {
      ...fact(
        `transition ${order} of ${title}: ${reason}`,
        taken.tick,
        [...causesOf(past, at), ...earlier],
        values,
      ),
      place: placeOf(asked, from, title),
    },
  ];
}

export function tickEntered(
  entries: readonly LedgerEntry[],
  state: string,
  before: number,
): number | null {
  const entered = lastBefore(entries, 'enter', before, (entry) => entry.state === state);
  return entered < 0 ? null : entries[entered].tick;
}

/** What the rows of the running activity came to, and which of them run. */
function rowsNow({ agent, mind }: Asked, state: number): Statement[] {
  return readRows(agent, mind, state).map(({ title, depth, kind, result, guard }) => {
    const guarded = guard === null ? [] : [{ part: 'guard', value: guard }];
    const what = kind === 'rule' ? 'fires' : result === 'running' ? 'runs' : result;
    return {
      ...fact(`${'· '.repeat(depth)}${title}: ${what}`, null, [], guarded),
      holds: result !== 'failure' && result !== 'stopped',
    };
  });
}

const ENDINGS = { success: 'it succeeded', failure: 'it failed' };

/** Why the agent is in the innermost state it is in at that tick. Throws a {@link QuestionError} where that can't be asked. */
export function why(question: Question): Statement {
  const asked = whoIsAsked(question);
  const { agent, mind } = asked;
  const entries = entriesOf(question, asked);
  const active = activeStates(asked);
  const state = active[active.length - 1];
  const asleep = asleepNow(asked, entries);
  if (state === undefined) {
    if (asleep.length > 0)
      return fact(`${agent.placed.title} decides nothing`, asleep[0].since, asleep);
    throw new QuestionError('This mind has not decided yet at that tick; ask about a later one.');
  }
  const { id, title, activity } = mind.program.machine.states[state];
  const causes = whyEntered({ question, asked, entries }, id, entries.length - 1, DEPTH);
  const rows = rowsNow(asked, state);
  const picked = choicesOf(asked, state).flatMap((choice) =>
    whyPicked(question, asked, choice, entries),
  );
  const doing: Statement[] =
    rows.length > 0 ? [{ ...fact(`it does ${activity!.name}`, null, rows), aside: true }] : [];
  const entered = tickEntered(entries, id, entries.length - 1);
  const end = activityEnd(agent, mind, state);
  const ended =
    end === null
      ? []
      : [fact(`${activity!.name} has ended, and it stays: ${ENDINGS[end.ending]}`, end.tick)];
  return {
    ...fact(`${agent.placed.title} is in ${title}`, entered, [
      ...asleep,
      ...wokeSince(asked, entries, entered),
      ...ended,
      ...causes,
      ...picked,
      ...doing,
    ]),
    place: placeOf(asked, id, title),
  };
}
