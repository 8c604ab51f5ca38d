import type { LedgerEntry } from '../../world/state/recorder.ts';
import { readMindOf } from '../../world/readout/readout.ts';
import {
  activeStates,
  fact,
  lastBefore,
  QuestionError,
  rerun,
  titleOf,
  type Asked,
  type Question,
  type Statement,
} from './statement.ts';

/** What led to a transition besides its guard: the event's source, or the percept and memory the guard speaks of. */
function causesOf(asked: Asked, entries: readonly LedgerEntry[], at: number): Statement[] {
  const taken = entries[at] as Extract<LedgerEntry, { kind: 'transition' }>;
  const causes: Statement[] = [];
  if (taken.on?.startsWith('done')) {
    const end = lastBefore(
      entries,
      'end',
      at,
      (entry) => entry.tick === taken.tick && entry.ending !== 'stopped',
    );
    const entry = end < 0 ? undefined : entries[end];
    if (entry?.kind === 'end')
      causes.push(
        fact(
          `${entry.action} in ${titleOf(asked, entry.state)} ended in ${entry.ending}${entry.reason ? `: ${entry.reason}` : ''}`,
          entry.tick,
        ),
      );
  }
  const guard = taken.when ?? '';
  if (
    /sees|awareness|attention|distance|bearing|lastSeen/.test(guard) ||
    taken.on?.startsWith('sight')
  ) {
    const percept = lastBefore(entries, 'percept', at);
    const entry = percept < 0 ? undefined : entries[percept];
    if (entry?.kind === 'percept') {
      const place = `(${entry.x.toFixed(1)}, ${entry.y.toFixed(1)})`;
      causes.push(
        fact(
          `sight of ${entry.of}: ${entry.how}, at ${place}`,
          entry.tick,
          [],
          [{ part: 'awareness', value: entry.strength.toFixed(2) }],
        ),
      );
    }
  }
  for (const { name } of asked.agent.stack!.program.keys) {
    if (!new RegExp(`\\b${name}\\b`).test(guard)) continue;
    const written = lastBefore(entries, 'memory', at, (entry) => entry.key === name);
    const entry = written < 0 ? undefined : entries[written];
    if (entry?.kind === 'memory')
      causes.push(fact(`${name} was set to ${entry.value}`, entry.tick));
  }
  return causes;
}

/** The transitions an explanation goes back. */
export const DEPTH = 6;

export function whyEntered(
  asked: Asked,
  entries: readonly LedgerEntry[],
  state: string,
  before: number,
  depth: number,
): Statement[] {
  const entered = lastBefore(entries, 'enter', before, (entry) => entry.state === state);
  const at = lastBefore(
    entries,
    'transition',
    entered,
    (entry) => entry.tick === entries[entered].tick,
  );
  const taken = at < 0 ? undefined : entries[at];
  if (taken?.kind !== 'transition')
    return [fact('the run began there', entries[entered]?.tick ?? 0)];
  const reason =
    [taken.on && `on ${taken.on}`, taken.when].filter(Boolean).join(' and ') || 'its time was over';
  const earlier =
    depth > 0
      ? [
          fact(
            `it was in ${titleOf(asked, taken.from)}`,
            tickEntered(entries, taken.from, at),
            whyEntered(asked, entries, taken.from, at, depth - 1),
          ),
        ]
      : [];
  return [
    fact(
      `transition ${taken.order} of ${titleOf(asked, taken.from)}: ${reason}`,
      taken.tick,
      [...causesOf(asked, entries, at), ...earlier],
      taken.values ?? [],
    ),
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
  const { id } = mind.program.machine.states[state];
  const readout = readMindOf(agent, mind, id);
  return (readout.state?.rows ?? []).flatMap(({ title, depth, kind, result, guard }) => {
    if (result === null) return [];
    const guarded = guard ? [{ part: 'guard', value: guard.text }] : [];
    const what = kind === 'rule' ? 'fires' : result === 'running' ? 'runs' : result;
    return [
      {
        ...fact(`${'· '.repeat(depth)}${title}: ${what}`, null, [], guarded),
        holds: result !== 'failure' && result !== 'stopped',
      },
    ];
  });
}

/** Why the agent is in the innermost state it is in at that tick. Throws a {@link QuestionError} where that can't be asked. */
export function why(question: Question): Statement {
  if (question.tick < 1)
    throw new QuestionError('Minds first decide in tick 1; ask about that tick or a later one.');
  const { agent, mind, entries } = rerun(question, () => {});
  const asked = { agent, mind };
  const active = activeStates(asked);
  const state = active[active.length - 1];
  if (state === undefined)
    throw new QuestionError('This mind has not decided yet at that tick; ask about a later one.');
  const { id, title, activity } = mind.program.machine.states[state];
  const causes = whyEntered(asked, entries, id, entries.length - 1, DEPTH);
  const rows = rowsNow(asked, state);
  const doing = rows.length > 0 ? [fact(`it does ${activity!.name}`, null, rows)] : [];
  return fact(
    `${agent.placed.title} is in ${title}`,
    tickEntered(entries, id, entries.length - 1),
    [...doing, ...causes],
  );
}
