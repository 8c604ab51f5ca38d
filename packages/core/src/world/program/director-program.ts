import type { ResultName, ScheduleDocument, WaveDocument } from '../../model/documents.ts';

/** The game around those on a ground, as the compiler gives it: names resolved, times in ticks. */
export interface DirectorProgram {
  /** The agent that has its mind; −1 where the ground has none. */
  agent: number;
  /** By name, ascending. */
  scores: ScoreProgram[];
  /** Null where the ground has no modes. */
  schedule: ScheduleProgram | null;
  /** By name, ascending. */
  waves: WaveProgram[];
}

export interface ScoreProgram {
  name: string;
  title: string;
  /** Index of its name among the texts. */
  word: number;
  start: number;
}

export interface ScheduleProgram {
  /** `word` is the index of the mode’s name among the texts. */
  modes: { word: number; ticks: number }[];
  afterwards: NonNullable<ScheduleDocument['afterwards']>;
}

export interface WaveProgram {
  name: string;
  title: string;
  /** Index of its name among the texts. */
  word: number;
  /** The agents it brings, in the order in which they first come: as many as can be alive at once. */
  pool: number[];
  count: number;
  /** Where they can come in. */
  spawns: { title: string; x: number; y: number; heading: number }[];
  order: NonNullable<WaveDocument['order']>;
  gapTicks: number;
  /** 0 for without end. */
  times: number;
  delayTicks: number;
  after: NonNullable<WaveDocument['after']>;
  starts: NonNullable<WaveDocument['starts']>;
  /** The zone whose entering starts it; −1 for none. */
  zone: number;
}

/** How a run has ended. */
export interface RunResult {
  how: ResultName;
  words: string;
  tick: number;
}
