import { distance } from '../../numeric/distance.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { fightFigures } from '../figures.ts';
import { unpackSnapshot } from '../packed-snapshot.ts';
import { revisit, type RunPast } from '../run.ts';

/** What each agent did in a run, in figures that two runs can be compared by. Times are in ticks. */

export interface AgentFigures {
  /** How long each state of its first mind was active, by id; outer states count too. */
  states: Map<string, number>;
  transitions: number;
  /** How often each option was picked, as `choice:option`. */
  picks: Map<string, number>;
  /** The tick in which it first noticed an agent; null where it never did. */
  firstNotice: number | null;
  /** How long it had noticed an agent. */
  noticing: number;
  /** Metres, from where it was each second: short curves count as straight. */
  walked: number;
  /** Moves of its own that landed, and the points of health they took. */
  landed: number;
  dealt: number;
  taken: number;
}

/** Stretches that begin and end by name. */
interface Spans {
  begin(name: string, tick: number): void;
  end(name: string, tick: number): void;
  endAll(tick: number): void;
}

function spans(onEnd: (name: string, from: number, to: number) => void): Spans {
  const begun = new Map<string, number>();
  const end = (name: string, tick: number) => {
    const from = begun.get(name);
    if (from === undefined) return;
    begun.delete(name);
    onEnd(name, from, tick);
  };
  return {
    begin: (name, tick) => {
      if (!begun.has(name)) begun.set(name, tick);
    },
    end,
    endAll: (tick) => {
      for (const name of begun.keys()) end(name, tick);
    },
  };
}

function add(counts: Map<string, number>, key: string, amount = 1): void {
  counts.set(key, (counts.get(key) ?? 0) + amount);
}

/** Counts what one agent's entries say, up to the end of the stretch. */
function countEntries(entries: readonly LedgerEntry[], to: number, figures: AgentFigures): void {
  const states = spans((state, from, end) => add(figures.states, state, end - from));
  // Noticing an agent while another is noticed counts once.
  let noticed = 0;
  let since = 0;
  const unnotice = (tick: number) => {
    noticed--;
    if (noticed === 0) figures.noticing += tick - since;
  };
  const others = spans((_, __, end) => unnotice(end));
  const held = new Set<string>();
  for (const entry of entries) {
    const { tick } = entry;
    if (entry.kind === 'enter') states.begin(entry.state, tick);
    else if (entry.kind === 'exit') states.end(entry.state, tick);
    else if (entry.kind === 'transition') figures.transitions++;
    else if (entry.kind === 'picked' && entry.option !== null)
      add(figures.picks, `${entry.choice}:${entry.option}`);
    else if (entry.kind === 'percept' && entry.sense === 'sight') {
      if (entry.how === 'lost') {
        held.delete(entry.of);
        others.end(entry.of, tick);
      } else if (!held.has(entry.of)) {
        held.add(entry.of);
        figures.firstNotice ??= tick;
        if (noticed === 0) since = tick;
        noticed++;
        others.begin(entry.of, tick);
      }
    } else if (entry.kind === 'death') {
      states.endAll(tick);
      others.endAll(tick);
      held.clear();
    }
  }
  states.endAll(to);
  others.endAll(to);
}

/** How far each has come from snapshot to snapshot, and to the last tick, in metres. */
function distances(run: RunPast, to: number): Map<string, number> {
  const walked = new Map<string, number>();
  const last = new Map<string, { x: number; y: number }>();
  const goOn = (name: string, { x, y }: { x: number; y: number }) => {
    const before = last.get(name);
    // Absent agents have no position; one that comes again starts from where it comes in.
    if (x !== x) {
      add(walked, name, 0);
      last.delete(name);
      return;
    }
    add(walked, name, before ? distance(x, y, before.x, before.y) : 0);
    last.set(name, { x, y });
  };
  for (const snapshot of run.snapshots) {
    if (snapshot.tick > to) break;
    for (const { name, body } of unpackSnapshot(snapshot).agents) goOn(name, body);
  }
  for (const { name, body } of revisit(run, to).agents) goOn(name, body);
  return walked;
}

/** The figures of all agents of a run up to a tick, by name. */
export function runFigures(run: RunPast, to = run.head): Map<string, AgentFigures> {
  const byAgent = new Map<string, LedgerEntry[]>();
  const upTo = run.entries.filter(({ tick }) => tick <= to);
  for (const entry of upTo) {
    if (entry.agent === '' || entry.mind !== undefined) continue;
    const own = byAgent.get(entry.agent);
    if (own) own.push(entry);
    else byAgent.set(entry.agent, [entry]);
  }
  const fights = fightFigures(upTo, { from: run.keptFrom, to });
  const walked = distances(run, to);
  return new Map(
    [...walked].map(([agent, metres]) => {
      const fought = fights.get(agent);
      const figures: AgentFigures = {
        states: new Map(),
        transitions: 0,
        picks: new Map(),
        firstNotice: null,
        noticing: 0,
        walked: metres,
        landed: fought?.all.landed ?? 0,
        dealt: fought?.all.dealt ?? 0,
        taken: fought?.taken ?? 0,
      };
      countEntries(byAgent.get(agent) ?? [], to, figures);
      return [agent, figures];
    }),
  );
}
