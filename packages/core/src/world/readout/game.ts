import { modeNow } from '../mechanics/game.ts';
import { lives, toCome, whyNobodyComes } from '../mechanics/waves.ts';
import type { ResultName } from '../../model/documents.ts';
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
  result: { how: ResultName; words: string } | null;
}

export interface WavePicture {
  name: string;
  title: string;
  alive: number;
  toCome: number;
  /** Why nobody comes now, in words. */
  why: string;
  /** Somebody is due and can’t come. */
  isHeld: boolean;
}

/** Null on a ground without scores, modes, waves and director. */
export function pictureGame(world: World): GamePicture | null {
  const { schedule, scores, result, agents, statics } = world;
  const { director, texts, ticksPerSecond } = statics.program;
  const isPlain =
    director.agent < 0 &&
    director.scores.length === 0 &&
    director.waves.length === 0 &&
    director.schedule === null;
  if (isPlain) return null;
  const left = schedule.over >= 0 ? schedule.overLeft : schedule.left;
  const { modes = [], afterwards } = director.schedule ?? {};
  const after = schedule.at + 1;
  const following = after < modes.length ? after : afterwards === 'again' ? 0 : -1;
  // What the schedule stood in comes back when what is laid over it is over.
  const next = schedule.over >= 0 ? schedule.at : left < 0 ? -1 : following;
  return {
    mode: texts[modeNow(world)] ?? '',
    left: left < 0 ? null : left / ticksPerSecond,
    next: texts[modes[next]?.word] ?? '',
    scores: director.scores.map(({ name, title }, i) => ({ name, title, value: scores[i] })),
    waves: director.waves.map(({ name, title, pool }, index) => ({
      name,
      title,
      alive: pool.filter((agent) => lives(agents[agent])).length,
      toCome: toCome(world, index),
      why: whyNobodyComes(world, index),
      isHeld: world.waves[index].held !== '',
    })),
    result: result && { how: result.how, words: result.words },
  };
}
