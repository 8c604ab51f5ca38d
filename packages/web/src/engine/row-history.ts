import { readRowResults, seek, type RowReadout, type Run } from '@crooked-lantern/core';

/** What the rows of the watched state came to in the last ticks, exactly: for the strips beside them. */

/** Ticks a strip shows. */
export const HISTORY_TICKS = 48;

type Results = RowReadout['result'][];

export interface RowHistory {
  /** Whose rows, and of which edit and seed; another starts again. */
  of: string;
  /** The tick of the last entry. */
  tick: number;
  /** By tick, the oldest first; at most {@link HISTORY_TICKS}. */
  results: Results[];
}

export interface Watched {
  agent: string | null;
  mind: string | null;
  state: string | null;
}

export function createRowHistory(): RowHistory {
  return { of: '', tick: -1, results: [] };
}

function read(run: Run, { agent, mind, state }: Watched): Results {
  if (agent === null || state === null) return [];
  return readRowResults(run.world, agent, state, mind ?? undefined);
}

function add(history: RowHistory, run: Run, watched: Watched): void {
  history.results.push(read(run, watched));
  if (history.results.length > HISTORY_TICKS) history.results.shift();
  history.tick = run.world.tick;
}

/** Takes in the tick the run has just done, or, where it did not go straight on, runs the last ticks again. */
export function keepRowHistory(history: RowHistory, run: Run, watched: Watched): void {
  const { tick } = run.world;
  const { agent, mind, state } = watched;
  const of = [agent, mind, state, run.seed, run.edits.length].join(' ');
  if (history.of === of && history.tick === tick) return;
  const goesOn = history.of === of && history.tick === tick - 1;
  history.of = of;
  if (goesOn || read(run, watched).length === 0) {
    if (!goesOn) history.results = [];
    add(history, run, watched);
    return;
  }
  history.results = [];
  for (let at = Math.max(run.keptFrom, tick - HISTORY_TICKS + 1); at <= tick; at++) {
    seek(run, at);
    add(history, run, watched);
  }
}
