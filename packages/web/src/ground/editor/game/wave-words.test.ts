import {
  createWorld,
  checkProject,
  setRecorder,
  tick,
  type WaveDocument,
} from '@crooked-lantern/core';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { firstArrivals, waveWords } from './wave-words.ts';

const document = JSON.parse(
  readFileSync(
    path.resolve(import.meta.dirname, '../../../../../../demo/windfall.lantern.json'),
    'utf8',
  ),
);
const BEETLES: WaveDocument = { archetype: 'magpie', count: 3 };

describe('a wave in words', () => {
  it.each<[Partial<WaveDocument>, string]>([
    [{}, '3 × Magpie, one every 1 s, from the start.'],
    [{ count: 1, starts: 'director' }, '1 × Magpie, when the director brings them.'],
    [
      { maxAlive: 2, gap: 0.5, times: 0, delay: 4 },
      '3 × Magpie, one every 0.5 s, at most 2 alive, from the start; again 4 s after the last has died, without end.',
    ],
    [
      { starts: 'zone', zone: 'nest', times: 3, delay: 2, after: 'each' },
      '3 × Magpie, one every 1 s, when a played agent enters nest; again 2 s after each its own death, 2 more times.',
    ],
  ])('%j', (more, words) => {
    expect(waveWords({ ...BEETLES, ...more }, document)).toBe(words);
  });
});

describe('the first minute of arrivals', () => {
  it('is that of the run, where no agent is in the way', () => {
    const { ground: name } = document.start;
    const wave: WaveDocument = { archetype: 'magpie', count: 6, maxAlive: 4, gap: 0.75 };
    const spawns = Object.fromEntries(
      [2, 5, 8, 11].map((x, i) => [`gap${i}`, { at: [x, 1.5], heading: 90 }]),
    );
    const ground = { ...document.grounds[name], agents: {}, things: {} };
    const { program, findings } = checkProject({
      ...document,
      start: { ground: name, seed: 1 },
      grounds: { [name]: { ...ground, walls: [], spawns, waves: { beetles: wave } } },
    });
    if (!program) throw new Error(JSON.stringify(findings));
    const world = createWorld(program);
    const came: number[] = [];
    setRecorder(world, (entry) => entry.kind === 'came' && came.push((entry.tick - 1) / 60));
    for (let i = 0; i < 600; i++) tick(world);
    expect(came).toEqual(firstArrivals(wave, 10));
    expect(firstArrivals(wave, 1)).toEqual([0, 0.75]);
  });
});
