/**
 * A 64-bit hash of a plain structure, the same in every engine.
 *
 * Numbers count by their IEEE 754 bits (−0 and 0 differ; every NaN is the same), object keys in
 * alphabetical order, so two equal states give one hash however they were built.
 * Source of the mixing step: MurmurHash3's 32-bit body by A. Appleby, run twice with two seeds.
 */

const float = new Float64Array(1);
const words = new Uint32Array(float.buffer);

interface Hasher {
  low: number;
  high: number;
}

function mix(hasher: Hasher, word: number): void {
  let k = Math.imul(word, 0xcc9e2d51);
  k = Math.imul((k << 15) | (k >>> 17), 0x1b873593);
  const low = hasher.low ^ k;
  hasher.low = (Math.imul((low << 13) | (low >>> 19), 5) + 0xe6546b64) | 0;
  let j = Math.imul(word, 0x239b961b);
  j = Math.imul((j << 16) | (j >>> 16), 0xab0e9789);
  const high = hasher.high ^ j;
  hasher.high = (Math.imul((high << 17) | (high >>> 15), 5) + 0x561ccd1b) | 0;
}

function mixNumber(hasher: Hasher, value: number): void {
  // Engines may give NaN different bits, so it counts by name.
  if (value !== value) return mix(hasher, 0x6e616e21);
  float[0] = value;
  mix(hasher, words[0]);
  mix(hasher, words[1]);
}

function mixText(hasher: Hasher, text: string): void {
  mix(hasher, text.length);
  for (let i = 0; i < text.length; i++) mix(hasher, text.charCodeAt(i));
}

function mixValue(hasher: Hasher, value: unknown): void {
  if (typeof value === 'number') return mixNumber(hasher, value);
  if (typeof value === 'string') return mixText(hasher, value);
  if (value === null || value === undefined) return mix(hasher, 0x6e756c6c);
  if (typeof value === 'boolean') return mix(hasher, value ? 0x74727565 : 0x66616c73);
  if (Array.isArray(value) || ArrayBuffer.isView(value)) {
    const list = value as ArrayLike<unknown>;
    mix(hasher, list.length);
    for (let i = 0; i < list.length; i++) mixValue(hasher, list[i]);
    return;
  }
  if (typeof value === 'object') {
    const record = value as Record<string, unknown>;
    for (const key of Object.keys(record).sort()) {
      mixText(hasher, key);
      mixValue(hasher, record[key]);
    }
    return;
  }
  throw new TypeError(`A state holds plain data only; it cannot hold a ${typeof value}.`);
}

function finish(h: number): string {
  let x = h ^ (h >>> 16);
  x = Math.imul(x, 0x85ebca6b);
  x ^= x >>> 13;
  x = Math.imul(x, 0xc2b2ae35);
  return ((x ^ (x >>> 16)) >>> 0).toString(16).padStart(8, '0');
}

/** The hash of `state` as 16 hexadecimal digits. Throws a TypeError on anything that is not plain data. */
export function hashState(state: unknown): string {
  const hasher: Hasher = { low: 0x2f0b4a27, high: 0x5bd1e995 };
  mixValue(hasher, state);
  return finish(hasher.low) + finish(hasher.high ^ hasher.low);
}
