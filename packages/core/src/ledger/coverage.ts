import type { MindProgram } from '../mind/program.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { firstMind } from '../world/recording/names.ts';
import { flattenRows, readRow } from '../world/readout/rows.ts';
import { revisit, type RunPast } from './run.ts';

/** What of the minds was ever active, taken, reached or picked in a run. */

export type CoveredPart = 'state' | 'transition' | 'row' | 'option';

export interface CoverageItem {
  part: CoveredPart;
  mind: string;
  /** Where it is shown: the state itself, the one a transition leaves, or the first that does the row or weighs the option. */
  state: string;
  /** What tells it from others of its part in the mind: an id, `state order`, where a row is written, `choice:option`. */
  key: string;
  title: string;
  /** How often it was entered, taken or picked, by any agent; of rows how many agents have reached it. */
  times: number;
}

/** Everything a mind could do, not yet done. */
function itemsOf({ name: mind, machine }: MindProgram): CoverageItem[] {
  const items = new Map<string, CoverageItem>();
  const put = (item: Omit<CoverageItem, 'mind' | 'times'>) => {
    const id = itemId({ ...item, mind });
    if (!items.has(id)) items.set(id, { ...item, mind, times: 0 });
  };
  const { states, transitions } = machine;
  for (const { id: state, title, kind, transitions: own, activity } of states) {
    // A history is never active itself.
    if (kind !== 'history' && kind !== 'deepHistory')
      put({ part: 'state', state, key: state, title });
    for (const leave of own) {
      const { order, target, when, on } = transitions[leave];
      const to = target < 0 ? 'stays' : `to ${states[target].title}`;
      const reason = [on && `on ${on}`, when?.source].filter(Boolean).join(', ');
      put({
        part: 'transition',
        state,
        key: `${state} ${order}`,
        title: `${title} ${order}: ${to}${reason && `, ${reason}`}`,
      });
    }
    if (!activity) continue;
    for (const { row } of flattenRows(activity.root)) {
      if (row.path !== '') put({ part: 'row', state, key: row.path, title: row.title });
      if (!('body' in row) || row.body.kind !== 'choice') continue;
      const { name: choice, title: of, options } = row.body.choice;
      for (const { id, title: option } of options)
        put({ part: 'option', state, key: `${choice}:${id}`, title: `${option} (${of})` });
    }
  }
  return [...items.values()];
}

function itemId({ part, mind, key }: Pick<CoverageItem, 'part' | 'mind' | 'key'>): string {
  return `${mind} ${part} ${key}`;
}

/** Everything that the minds of a run’s latest program could do, with how often it was done. */
export function coverageOf(run: RunPast): CoverageItem[] {
  const { program } = run.latest;
  const minds = new Map(
    program.stacks.flatMap((stack) => stack.minds.map((mind) => [mind.name, mind] as const)),
  );
  const items = new Map(
    [...minds.values()].flatMap(itemsOf).map((item) => [itemId(item), item] as const),
  );
  const count = (part: CoveredPart, mind: string, key: string) => {
    const item = items.get(itemId({ part, mind, key }));
    if (item) item.times++;
  };
  const firstMinds = new Map(
    program.agents.map(({ name, archetype }) => [name, firstMind(program, archetype)?.name]),
  );
  /** The transition that an entry speaks of as it is numbered now: under an edit of before it may have stood elsewhere. */
  const orderNow = (mind: string, entry: Extract<LedgerEntry, { kind: 'transition' }>): number => {
    const { states = [], transitions = [] } = minds.get(mind)?.machine ?? {};
    const own = states.find(({ id }) => id === entry.from)?.transitions ?? [];
    const same = own
      .map((index) => transitions[index])
      .filter(
        ({ target, on, when }) =>
          (states[target]?.id ?? null) === entry.to &&
          when?.source === entry.when &&
          (on === '' ? entry.on === undefined : (entry.on?.startsWith(on) ?? false)),
      );
    return (same.find(({ order }) => order === entry.order) ?? same[0])?.order ?? -1;
  };
  for (const entry of run.entries) {
    const mind = entry.mind ?? firstMinds.get(entry.agent) ?? '';
    if (entry.kind === 'enter') count('state', mind, entry.state);
    else if (entry.kind === 'transition')
      count('transition', mind, `${entry.from} ${orderNow(mind, entry)}`);
    else if (entry.kind === 'picked' && entry.option !== null)
      count('option', mind, `${entry.choice}:${entry.option}`);
  }
  const world = revisit(run, run.head);
  for (const { memory, minds: own } of world.agents)
    for (const { program: mind, machine } of own) {
      /** By where it is written: a row that several states do counts once for each agent. */
      const reached = new Set<string>();
      mind.machine.states.forEach(({ activity }, i) => {
        const cells = machine.states[i].activity?.rows ?? [];
        if (!activity || cells.length === 0) return;
        flattenRows(activity.root).forEach(({ row: { path } }, row) => {
          if (readRow(memory[cells[row]])) reached.add(path);
        });
      });
      for (const path of reached) count('row', mind.name, path);
    }
  return [...items.values()];
}

/** The coverage of several runs as one: of what the first knows, how often it was done in all of them. */
export function coverageOver(runs: readonly (readonly CoverageItem[])[]): CoverageItem[] {
  const [first = [], ...others] = runs;
  const times = new Map<string, number>();
  for (const item of others.flat()) {
    const id = itemId(item);
    times.set(id, (times.get(id) ?? 0) + item.times);
  }
  return first.map((item) => ({ ...item, times: item.times + (times.get(itemId(item)) ?? 0) }));
}
