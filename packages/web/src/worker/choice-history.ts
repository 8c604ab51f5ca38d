import { doneNow, readChoice, seek, type Run } from '@crooked-lantern/core';
import type { ChoicePast, WatchedChoice } from '../engine/protocol.ts';

/** What the options of the watched choice were worth in the last seconds, tick by tick. */

/** Seconds that are kept while the run goes on. */
const KEPT_SECONDS = 30;
/** Seconds that are run again where the run did not go straight on. */
const AGAIN_SECONDS = 4;
/** Parts of the range of an input that are counted apart. */
export const BINS = 20;

interface Sample {
  /** By option: what it was worth at most; NaN where it did not compete. */
  scores: Float32Array;
  /** Place of the option that ran; −1 for none. */
  running: number;
  /** By option and consideration: the share of its range its input lay at; NaN for nothing. */
  inputs: Float32Array;
}

export interface ChoiceHistory {
  /** Whose choice, and of which run and edit; another starts again. */
  of: string;
  run: Run | null;
  tick: number;
  samples: Sample[];
  options: string[];
  /** How many considerations each option has. */
  widths: number[];
}

export function createChoiceHistory(): ChoiceHistory {
  return { of: '', run: null, tick: -1, samples: [], options: [], widths: [] };
}

function add(history: ChoiceHistory, run: Run, watched: WatchedChoice): void {
  const readout = readChoice(run.world, watched);
  history.tick = run.world.tick;
  if (!readout) return;
  const widths = readout.options.map(({ rows }) =>
    Math.max(0, ...rows.map((row) => row.cells.length)),
  );
  if (history.options.length !== readout.options.length) history.samples = [];
  history.options = readout.options.map(({ id }) => id);
  // An option that rests says nothing of its considerations.
  history.widths = widths.map((width, i) => Math.max(width, history.widths[i] ?? 0));
  const scores = new Float32Array(widths.length).fill(NaN);
  const inputs = new Float32Array(widths.reduce((sum, _, i) => sum + history.widths[i], 0)).fill(
    NaN,
  );
  let from = 0;
  readout.options.forEach(({ rows }, place) => {
    const best = rows.reduce<(typeof rows)[number] | null>(
      (most, row) => (most === null || row.score > most.score ? row : most),
      null,
    );
    if (best?.bar === null) scores[place] = best.score;
    best?.cells.forEach(({ x, value }, i) => {
      if (value !== null) inputs[from + i] = x;
    });
    from += history.widths[place];
  });
  history.samples.push({
    scores,
    running: readout.options.findIndex(({ id }) => id === doneNow(readout)),
    inputs,
  });
}

/** Takes in the tick the run has just done, or, where it did not go straight on, runs the last seconds again. */
export function keepChoiceHistory(
  history: ChoiceHistory,
  run: Run,
  watched: WatchedChoice | null,
): void {
  const { tick, statics } = run.world;
  const of = watched
    ? [watched.agent, watched.mind, watched.choice, run.edits.length].join(' ')
    : '';
  const isSame = history.of === of && history.run === run;
  if (isSame && history.tick === tick) return;
  const goesOn = isSame && history.tick === tick - 1;
  const { ticksPerSecond } = statics.program;
  if (!watched || !goesOn) Object.assign(history, createChoiceHistory());
  history.of = of;
  history.run = run;
  if (!watched) return;
  if (goesOn) add(history, run, watched);
  else {
    const first = Math.max(run.keptFrom, tick - AGAIN_SECONDS * ticksPerSecond + 1);
    for (let at = first; at <= tick; at++) {
      seek(run, at);
      add(history, run, watched);
    }
  }
  if (history.samples.length > KEPT_SECONDS * ticksPerSecond) history.samples.shift();
}

export function choicePastOf({ tick, samples, options, widths }: ChoiceHistory): ChoicePast {
  const scores = new Float32Array(samples.length * options.length);
  samples.forEach((sample, i) => scores.set(sample.scores, i * options.length));
  let from = 0;
  const bins = widths.map((width) => {
    const begin = from;
    from += width;
    return Array.from({ length: width }, (_, i) => {
      const counts = new Array<number>(BINS).fill(0);
      for (const { inputs } of samples) {
        const x = inputs[begin + i];
        if (x === x && x !== undefined) counts[Math.min(BINS - 1, Math.floor(x * BINS))]++;
      }
      return counts;
    });
  });
  return {
    tick,
    options,
    scores,
    running: Int8Array.from(samples, ({ running }) => running),
    bins,
  };
}
