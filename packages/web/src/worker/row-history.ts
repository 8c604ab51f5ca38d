import {
  readRowCells,
  rowCode,
  rowPlaces,
  seek,
  type Program,
  type Run,
} from '@crooked-lantern/core';
import { HISTORY_TICKS } from '../engine/protocol.ts';

/** What the rows of the watched state came to in the last ticks, exactly: for the strips beside them. */

export interface RowHistory {
  /** Whose rows, and of which run and edit; another starts again. */
  of: string;
  run: Run | null;
  /** The tick of the last entry. */
  tick: number;
  /** By tick, the oldest first; at most {@link HISTORY_TICKS}. For each row its place in `ROW_CODES`. */
  results: Uint8Array[];
  /** The cells of the rows at the last tick. */
  cells: Float64Array;
  /** Where the rows are written, in the program that is in force at the tick. */
  paths: string[];
  program: Program | null;
}

export interface Watched {
  agent: string | null;
  mind: string | null;
  state: string | null;
}

export function createRowHistory(): RowHistory {
  return {
    of: '',
    run: null,
    tick: -1,
    results: [],
    cells: new Float64Array(),
    paths: [],
    program: null,
  };
}

function asked({ agent, mind, state }: Watched) {
  return agent === null || state === null ? null : { agent, state, mind: mind ?? undefined };
}

function add(history: RowHistory, run: Run, watched: Watched): void {
  const whose = asked(watched);
  const { tick } = run.world;
  const cells = whose ? readRowCells(run.world, whose) : new Float64Array();
  history.cells = cells;
  history.results.push(Uint8Array.from(cells, (cell) => rowCode(cell, tick)));
  if (history.results.length > HISTORY_TICKS) history.results.shift();
  history.tick = tick;
}

/** Takes in the tick the run has just done, or, where it did not go straight on, runs the last ticks again. */
export function keepRowHistory(history: RowHistory, run: Run, watched: Watched): void {
  const { tick } = run.world;
  const { agent, mind, state } = watched;
  const of = [agent, mind, state, run.edits.length].join(' ');
  const isSame = history.of === of && history.run === run;
  if (isSame && history.tick === tick) return;
  const goesOn = isSame && history.tick === tick - 1;
  const { program } = run.world.statics;
  if (!isSame || history.program !== program) {
    const whose = asked(watched);
    history.program = program;
    history.paths = whose ? rowPlaces(run.world, whose).map(({ path }) => path) : [];
  }
  history.of = of;
  history.run = run;
  if (goesOn || history.paths.length === 0) {
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
