import type { Name } from './documents.ts';

/** The game around those on a ground: its modes by the clock, its scores, and who comes when. */

/** Points of a run, shown above the ground. */
export interface ScoreDocument {
  title?: string;
  /** Points at the start; left out: 0. */
  start?: number;
}

export const SCHEDULE_ENDS = ['again', 'stay', 'end'] as const;
export type ScheduleEnd = (typeof SCHEDULE_ENDS)[number];

/** Modes by the clock, one after the other from the start of a run. */
export interface ScheduleDocument {
  modes: ModeDocument[];
  /** What comes after the last: the first again, nothing more, or the end of the run; left out: again. */
  afterwards?: ScheduleEnd;
}

export interface ModeDocument {
  mode: Name;
  /** Seconds. */
  for: number;
}

export const WAVE_STARTS = ['run', 'director', 'zone'] as const;
export type WaveStart = (typeof WAVE_STARTS)[number];
export const WAVE_ORDERS = ['turn', 'random', 'farthest'] as const;
export type WaveOrder = (typeof WAVE_ORDERS)[number];
export const WAVE_RETURNS = ['last', 'each'] as const;
export type WaveReturn = (typeof WAVE_RETURNS)[number];

/** Agents of one archetype that come to a ground while a run goes on. */
export interface WaveDocument {
  title?: string;
  note?: string;
  archetype: Name;
  /** How many come each time. */
  count: number;
  /** How many of them are alive at once at most; left out: as many as come each time. */
  maxAlive?: number;
  /** Spawn places; left out: all there are. */
  at?: Name[];
  /** Which of the places: one after the other (if left out), at random, or the farthest from the played agents. */
  order?: WaveOrder;
  /** Seconds from one arrival to the next; left out: 1. */
  gap?: number;
  /** How often they come; left out: once. 0: without end. */
  times?: number;
  /** Seconds until they come again. */
  delay?: number;
  /** What that counts from: the death of the last one (if left out), or for each one its own. */
  after?: WaveReturn;
  /** With the run (if left out), when the director brings it, or when a played agent enters `zone`. */
  starts?: WaveStart;
  zone?: Name;
  squad?: Name;
  route?: Name;
  /** The zone they belong to. */
  home?: Name;
}

/** As many agents can belong to one wave. */
export const MOST_OF_A_WAVE = 400;

/** How many of a wave can be alive at once. */
export function poolSize({ maxAlive, count }: Pick<WaveDocument, 'maxAlive' | 'count'>): number {
  return maxAlive ?? Math.min(MOST_OF_A_WAVE, count);
}

/** How a run can end. */
export const RESULTS = ['won', 'lost', 'over'] as const;
export type ResultName = (typeof RESULTS)[number];
