import { modeNow, secondsLeft } from '../mechanics/game/game.ts';
import { countAlive, toCome } from '../mechanics/game/waves.ts';
import { reasonText } from './reason-text.ts';
import type { ResultName } from '../../model/documents.ts';
import type { Surroundings } from '../state/surroundings.ts';
import type { World } from '../world.ts';

/** What is shown above the ground of the game around those on it. */
export interface GamePicture {
  /** Empty for none. */
  mode: string;
  /** Seconds the mode goes on; null where it does not end by itself. */
  left: number | null;
  /** The mode that is due next by the schedule; empty for none. */
  next: string;
  scores: { name: string; title: string; value: number }[];
  waves: WavePicture[];
  /** How the run ended, and the tick; null while it goes on. */
  result: { how: ResultName; words: string; tick: number } | null;
}

export interface WavePicture {
  name: string;
  title: string;
  alive: number;
  toCome: number;
  /** Why no agent comes now, in words. */
  why: string;
  /** An agent is due and can’t come. */
  isHeld: boolean;
}

/** Null on a ground without scores, modes, waves and director. */
export function pictureGame(world: World): GamePicture | null {
  const { schedule, scores, result, statics } = world;
  const { director, texts } = statics.program;
  const isPlain =
    director.agent < 0 &&
    director.scores.length === 0 &&
    director.waves.length === 0 &&
    director.schedule === null;
  if (isPlain) return null;
  const left = secondsLeft(world);
  const { modes = [], afterwards } = director.schedule ?? {};
  const after = schedule.at + 1;
  const following = after < modes.length ? after : afterwards === 'again' ? 0 : -1;
  // What the schedule stood in comes back when what is laid over it is over.
  const next = schedule.over >= 0 ? schedule.at : left === null ? -1 : following;
  return {
    mode: texts[modeNow(world)] ?? '',
    left,
    next: texts[modes[next]?.word] ?? '',
    scores: director.scores.map(({ name, title }, i) => ({ name, title, value: scores[i] })),
    waves: director.waves.map((wave, index) => ({
      name: wave.name,
      title: wave.title,
      alive: countAlive(world, wave),
      toCome: toCome(world, index),
      why: whyNoAgentComes(world, index),
      isHeld: world.waves[index].held !== null,
    })),
    result: result && { how: result.how, words: result.words, tick: result.tick },
  };
}

/** Why no agent of a wave comes now, in words; empty where one comes as soon as the gap is over. */
export function whyNoAgentComes(world: Surroundings, index: number): string {
  const { ticksPerSecond, director } = world.statics.program;
  const wave = director.waves[index];
  const run = world.waves[index];
  const seconds = (ticks: number) => `${(ticks / ticksPerSecond).toFixed(1)} s`;
  if (run.isOver) return 'it is over: all who were to come have come';
  if (run.times === 0)
    return wave.starts === 'director'
      ? 'the director has not started it yet'
      : 'no played agent has entered the zone that starts it';
  if (run.held) return `${reasonText(run.held)}, for ${seconds(world.tick - run.heldSince)}`;
  if (run.brought < wave.count) return `the next comes in ${seconds(run.due - world.tick)}`;
  if (run.owed.length > 0) return `the next comes again in ${seconds(run.owed[0] - world.tick)}`;
  const living = countAlive(world, wave);
  if (living > 0) return `all ${wave.count} have come, and ${living} of them are alive`;
  return `they come again in ${seconds(run.goneAt + wave.delayTicks - world.tick)}`;
}
