/** One measured figure, printed as one line of JSON. */
export interface Figure {
  figure: string;
  value: number;
  unit: string;
  /** What it must reach, where something is set. */
  goal?: string;
  /** What was measured, side by side. */
  detail: Record<string, number>;
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/** Rounds a figure to four significant digits: the rest is noise. */
export function rounded(value: number): number {
  return Number(value.toPrecision(4));
}

/**
 * Times several contestants in turn, round after round, so that whatever else the machine does meets all
 * of them alike. Gives the median milliseconds of each. The first rounds only warm up.
 */
export function sideBySide(
  contestants: readonly (() => number)[],
  rounds: number,
  warmUp = 3,
): number[] {
  const times: number[][] = contestants.map(() => []);
  for (let round = 0; round < rounds + warmUp; round++) {
    contestants.forEach((run, i) => {
      const time = run();
      if (round >= warmUp) times[i].push(time);
    });
  }
  return times.map(median);
}

/** Milliseconds `work` takes. */
export function timed(work: () => void): number {
  const begin = performance.now();
  work();
  return performance.now() - begin;
}
