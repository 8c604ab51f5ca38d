import { describe, expect, it } from 'vitest';
import { loudness, soundDelay } from './hearing.ts';

describe('loudness and delay', () => {
  it('falls evenly from 1 at the source to 0 at its reach', () => {
    expect(loudness(0, 8)).toBe(1);
    expect(loudness(2, 8)).toBe(0.75);
    expect(loudness(8, 8)).toBe(0);
    expect(loudness(9, 8)).toBe(0);
  });

  it('comes at the speed of sound, in the next tick at the earliest', () => {
    expect(soundDelay(0.1, 60)).toBe(1);
    expect(soundDelay(34.3, 60)).toBe(6);
    expect(soundDelay(343, 60)).toBe(60);
  });
});
