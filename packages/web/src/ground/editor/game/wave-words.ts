import {
  numberOf,
  WAVE_FIELDS,
  type GroundDocument,
  type ProjectDocument,
  type WaveDocument,
} from '@crooked-lantern/core';
import { counted } from '../../../ui/words/counted.ts';

/** What a wave does, in words; and when the first of it come. */

/** The spawn places a wave comes in at. */
export function spawnsOf({ at }: WaveDocument, { spawns = {} }: GroundDocument): string[] {
  return at ?? Object.keys(spawns);
}

const STARTS: Record<NonNullable<WaveDocument['starts']>, string> = {
  run: 'from the start',
  director: 'when the director brings them',
  zone: 'when a played agent enters the zone',
};

/** “3 Beetles, one every 1 s, from the start; again 5 s after the last has died, without end”. */
export function waveWords(wave: WaveDocument, document: ProjectDocument): string {
  const { count, delay = 0, starts = 'run', after = 'last', zone } = wave;
  const title = document.archetypes[wave.archetype]?.title ?? wave.archetype;
  const gap = numberOf(wave, 'gap', WAVE_FIELDS.gap);
  const most = numberOf(wave, 'maxAlive', WAVE_FIELDS.maxAlive);
  const times = numberOf(wave, 'times', WAVE_FIELDS.times);
  const first = [
    `${count} × ${title}`,
    ...(count > 1 ? [`one every ${gap} s`] : []),
    ...(most < count ? [`at most ${most} alive`] : []),
    starts === 'zone' && zone !== undefined ? `when a played agent enters ${zone}` : STARTS[starts],
  ].join(', ');
  if (times === 1) return `${first}.`;
  const whose = after === 'each' ? 'each its own death' : 'the last has died';
  const often = times === 0 ? 'without end' : counted(times - 1, 'more time');
  return `${first}; again ${delay} s after ${whose}, ${often}.`;
}

/** The same beside a spawn place, in a few words: “Beetles 3”. */
export function shortWords(name: string, { title, count }: WaveDocument): string {
  return `${title ?? name} ${count}`;
}

/**
 * Seconds at which those of a wave come that need no death first, counted from its start, up to `until`:
 * the run without its minds, and with room at every place.
 */
export function firstArrivals(wave: WaveDocument, until: number): number[] {
  const gap = Math.max(1 / 60, numberOf(wave, 'gap', WAVE_FIELDS.gap));
  const most = Math.min(wave.count, numberOf(wave, 'maxAlive', WAVE_FIELDS.maxAlive));
  return Array.from({ length: most }, (_, i) => i * gap).filter((at) => at <= until);
}
