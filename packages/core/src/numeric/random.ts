import { log } from './exponential.ts';

/**
 * Seeded random streams: one for each agent, so that adding an agent never shifts
 * another's luck.
 *
 * Source: xoshiro128** 1.1 by D. Blackman and S. Vigna (2018); seeding by splitmix32 over an
 * FNV-1a hash of the stream's name, as those authors advise.
 */

/** The whole state of one stream: four 32-bit words. Plain, so it can stand in a snapshot. */
export type RandomStream = Uint32Array;

function splitmix32(state: number): number {
  let z = state | 0;
  z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
  z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
  return (z ^ (z >>> 15)) >>> 0;
}

/** 32-bit FNV-1a over the UTF-16 units of `text`. */
export function hashText(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) {
    hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  }
  return hash >>> 0;
}

/** The stream called `name` of the run with this `seed` (any finite number; its low 32 bits and its high part both count). */
export function createStream(seed: number, name: string): RandomStream {
  const high = Math.floor(seed / 4294967296);
  let state = (hashText(name) ^ splitmix32(seed) ^ splitmix32(high + 0x9e3779b9)) | 0;
  const stream = new Uint32Array(4);
  for (let i = 0; i < 4; i++) {
    state = (state + 0x9e3779b9) | 0;
    stream[i] = splitmix32(state);
  }
  if ((stream[0] | stream[1] | stream[2] | stream[3]) === 0) stream[0] = 1;
  return stream;
}

function rotateLeft(x: number, k: number): number {
  return (x << k) | (x >>> (32 - k));
}

/** The next number of the stream, 0 (included) to 1 (excluded), in steps of 2^-32. */
export function nextRandom(stream: RandomStream): number {
  const result = Math.imul(rotateLeft(Math.imul(stream[1], 5), 7), 9) >>> 0;
  const shifted = stream[1] << 9;
  stream[2] ^= stream[0];
  stream[3] ^= stream[1];
  stream[1] ^= stream[2];
  stream[0] ^= stream[3];
  stream[2] ^= shifted;
  stream[3] = rotateLeft(stream[3], 11);
  return result / 4294967296;
}

/** The next number of the standard normal distribution, by Marsaglia’s polar method: two of the stream’s numbers at least. */
export function nextNormal(stream: RandomStream): number {
  for (;;) {
    const a = 2 * nextRandom(stream) - 1;
    const b = 2 * nextRandom(stream) - 1;
    const square = a * a + b * b;
    if (square > 0 && square < 1) return a * Math.sqrt((-2 * log(square)) / square);
  }
}
