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

/** What 95 of 100 values do not exceed, with the middle and the largest, rounded. */
export function slowest(values: readonly number[]): { p95: number; median: number; most: number } {
  const sorted = [...values].sort((a, b) => a - b);
  return {
    p95: rounded(sorted[Math.floor(sorted.length * 0.95)]),
    median: rounded(median(sorted)),
    most: rounded(sorted[sorted.length - 1]),
  };
}

/** Rounds a figure to four significant digits: the rest is noise. */
export function rounded(value: number): number {
  return Number(value.toPrecision(4));
}

/**
 * Times two contestants in turn, round after round. Returns the median milliseconds of each, and the median
 * of the rounds' ratios: a machine that is now fast, now slow is so for both within a round, not from
 * one median to the other. The first rounds only warm up.
 */
export function sideBySide(
  a: () => number,
  b: () => number,
  rounds: number,
  warmUp = 3,
): { a: number; b: number; ratio: number } {
  for (let round = 0; round < warmUp; round++) {
    a();
    b();
  }
  const times = Array.from({ length: rounds }, () => ({ a: a(), b: b() }));
  return {
    a: median(times.map((time) => time.a)),
    b: median(times.map((time) => time.b)),
    ratio: median(times.map((time) => time.a / time.b)),
  };
}

/** Milliseconds `work` takes. */
export function timed(work: () => void): number {
  const begin = performance.now();
  work();
  return performance.now() - begin;
}
