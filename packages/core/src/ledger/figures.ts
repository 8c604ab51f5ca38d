import { HIT_RESULTS, type HitResult } from '../terms/fighting.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';

/** What fights come to in figures, from the entries of the ledger. */

/** Counts of what came of moves, and what they did. */
export interface FightFigures extends Record<HitResult, number> {
  /** How often a move was begun. */
  uses: number;
  /** How often one was broken off. */
  broken: number;
  /** Points of health it took from others. */
  dealt: number;
  /** Ticks from the beginnings of moves to their ends. */
  ticks: number;
}

export interface FighterFigures {
  all: FightFigures;
  byMove: Map<string, FightFigures>;
  /** Points of health it lost, from any cause. */
  taken: number;
  deaths: number;
}

/** Ticks: the first that counts, and the last. */
export interface Stretch {
  from: number;
  to: number;
}

function noFigures(): FightFigures {
  const results = Object.fromEntries(HIT_RESULTS.map((result) => [result, 0]));
  return { ...(results as Record<HitResult, number>), uses: 0, broken: 0, dealt: 0, ticks: 0 };
}

/** A move that has begun and may still go on. */
interface Begun {
  at: number;
  lasts: number;
  figures: readonly FightFigures[];
}

/** Whether an entry says something of a fight. */
export function isOfFight({ kind }: LedgerEntry): boolean {
  return (
    kind === 'move' || kind === 'hit' || kind === 'broken' || kind === 'harm' || kind === 'death'
  );
}

/**
 * The figures of all who fought in a stretch, by agent. A move counts where it began, what came of it where
 * that happened; its time only as far as it lies in the stretch. Entries are in the order they were recorded.
 */
export function fightFigures(
  entries: readonly LedgerEntry[],
  { from, to }: Stretch,
): Map<string, FighterFigures> {
  const fighters = new Map<string, FighterFigures>();
  const fighterOf = (agent: string) => {
    let fighter = fighters.get(agent);
    if (!fighter) {
      fighter = { all: noFigures(), byMove: new Map(), taken: 0, deaths: 0 };
      fighters.set(agent, fighter);
    }
    return fighter;
  };
  /** Both rows an entry counts in: the agent’s, and that of the move. */
  const figuresOf = (agent: string, move: string): readonly FightFigures[] => {
    const { all, byMove } = fighterOf(agent);
    let figures = byMove.get(move);
    if (!figures) byMove.set(move, (figures = noFigures()));
    return [all, figures];
  };
  const running = new Map<string, Begun>();
  const end = (agent: string, tick: number) => {
    const begun = running.get(agent);
    if (!begun) return;
    running.delete(agent);
    const last = Math.min(begun.at + begun.lasts, tick, to + 1);
    const ticks = Math.max(0, last - Math.max(from, begun.at));
    for (const figures of begun.figures) figures.ticks += ticks;
  };
  for (const entry of entries) {
    const { tick, agent } = entry;
    if (tick > to) break;
    const counts = tick >= from;
    if (entry.kind === 'move') {
      end(agent, tick);
      // One that began before and reaches into the stretch has its time counted.
      if (tick + entry.lasts <= from) continue;
      const figures = figuresOf(agent, entry.move);
      if (counts) for (const each of figures) each.uses++;
      running.set(agent, { at: tick, lasts: entry.lasts, figures });
    } else if (entry.kind === 'broken') {
      end(agent, tick);
      if (counts) for (const each of figuresOf(agent, entry.move)) each.broken++;
    } else if (entry.kind === 'hit' && counts) {
      for (const each of figuresOf(agent, entry.move)) {
        each[entry.result]++;
        each.dealt += entry.harm;
      }
    } else if (entry.kind === 'harm' && counts) fighterOf(agent).taken += entry.amount;
    else if (entry.kind === 'death') {
      end(agent, tick);
      if (counts) fighterOf(agent).deaths++;
    }
  }
  for (const agent of running.keys()) end(agent, Infinity);
  return fighters;
}
