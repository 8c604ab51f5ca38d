import type { Reason } from '../../terms/reasons.ts';
import type { DirectorProgram, WaveProgram } from '../program/director-program.ts';
import type { Renaming } from './renaming.ts';

/** What the game around those on a ground is at a tick: its modes, scores, waves, light and end. */

/** The modes by the clock, and what is laid over them. */
export interface ScheduleRun {
  /** The mode of the schedule, by its place; −1 before the first tick, or where there is none. */
  at: number;
  /** Ticks it goes on; −1 where it stays. */
  left: number;
  /** The mode laid over it, as the index of a text; −1 for none. */
  over: number;
  /** Ticks that goes on; −1 until it is set again. */
  overLeft: number;
}

export interface WaveRun {
  /** How often they have come, the time that goes on counted in; 0 before it has started. */
  times: number;
  /** How many have come this time, besides those that came again one by one. */
  brought: number;
  /** Where each comes again by itself: the ticks from which they may, and how many of them there have been. */
  owed: number[];
  again: number;
  /** The tick from which the next may come. */
  due: number;
  /** Which of the spawn places is next in turn. */
  turn: number;
  /** The tick by which all who came were gone; −1 while one is there or still to come. */
  goneAt: number;
  /** No more agents of it will come. */
  isOver: boolean;
  /** Why no due agent has come, and since when; null where nothing holds them up. */
  held: Reason | null;
  heldSince: number;
}

/** The light that is everywhere, on its way from one strength to another. */
export interface LightRun {
  from: number;
  to: number;
  since: number;
  ticks: number;
}

export function beginSchedule(): ScheduleRun {
  return { at: -1, left: -1, over: -1, overLeft: -1 };
}

export function beginWave(): WaveRun {
  return {
    times: 0,
    brought: 0,
    owed: [],
    again: 0,
    due: 0,
    turn: 0,
    goneAt: -1,
    isOver: false,
    held: null,
    heldSince: -1,
  };
}

/**
 * A schedule under an edit: the mode that holds goes on for as long as it had left, at most for as long as it
 * lasts now. One that the edit has taken out gives way to the first.
 */
export function carrySchedule(
  run: ScheduleRun,
  from: DirectorProgram,
  to: DirectorProgram,
  names: Renaming,
): ScheduleRun {
  const over = names.text(run.over);
  const overlay = { over, overLeft: over < 0 ? -1 : run.overLeft };
  const word = names.text(from.schedule?.modes[run.at]?.word ?? -1);
  const { modes = [], afterwards } = to.schedule ?? {};
  const isSame = modes[run.at]?.word === word;
  const at = isSame ? run.at : modes.findIndex((mode) => mode.word === word);
  if (at < 0) return { at: -1, left: -1, ...overlay };
  // One that stayed goes on for as long as it lasts, where something comes after it now.
  const stays = afterwards === 'stay' && at === modes.length - 1;
  const left = run.left < 0 && !stays ? modes[at].ticks : Math.min(run.left, modes[at].ticks);
  return { at, left, ...overlay };
}

export function carryScores(
  scores: number[],
  from: DirectorProgram,
  to: DirectorProgram,
): number[] {
  return to.scores.map(({ name, start }) => {
    const was = from.scores.findIndex((score) => score.name === name);
    return was < 0 ? start : scores[was];
  });
}

/** A wave goes on where it was. One made larger brings as many more this time; one that was over goes on where there is more to come now. */
export function carryWaves(
  waves: WaveRun[],
  from: DirectorProgram,
  to: DirectorProgram,
): WaveRun[] {
  return to.waves.map((wave) => {
    const was = from.waves.findIndex(({ name }) => name === wave.name);
    return was < 0 ? beginWave() : carryWave(waves[was], from.waves[was], wave);
  });
}

function carryWave(run: WaveRun, from: WaveProgram, to: WaveProgram): WaveRun {
  const isMore = to.count > from.count || (to.times !== from.times && to.times !== 1);
  return {
    ...run,
    owed: to.after === 'each' ? run.owed.slice() : [],
    isOver: run.isOver && !isMore,
    turn: run.turn % Math.max(1, to.spawns.length),
  };
}
