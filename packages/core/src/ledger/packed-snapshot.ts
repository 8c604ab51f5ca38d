import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import type { Snapshot } from '../world/handover/snapshot.ts';

/**
 * A snapshot as it is kept: bytes, a small part of what it takes as objects, exact to the last bit. Most of its
 * numbers are small and whole, or nothing, and take one byte each; those that are not stand as they are behind
 * the rest. What its objects have for keys, and its texts, stand there once.
 */
export interface PackedSnapshot {
  tick: number;
  bytes: Uint8Array;
}

const ARRAYS = [Float64Array, Uint32Array, Uint8Array] as const;

/** Tags below this are whole numbers from {@link LEAST} on. */
const SMALL = 230;
const LEAST = -1;
const NOT_A_NUMBER = 230;
const ENDLESS = 231;
const MINUS_ENDLESS = 232;
/** Its eight bytes stand among the numbers. */
const NUMBER = 233;
const NULL = 234;
const TRUE = 235;
const FALSE = 236;
const UNDEFINED = 237;
/** Followed by its place in the table of texts. */
const TEXT = 238;
/** Followed by its length. */
const LIST = 239;
/** Followed by its place in the table of keys. */
const OBJECT = 240;
/** And those after it, in the order of {@link ARRAYS}; followed by its length. */
const TYPED = 241;

/** In a typed array: the number that follows it stands so often; followed by how often. */
const REPEATED = 244;
/** So many of one number in a row are written once. */
const WORTH_COUNTING = 4;

/** Bytes and numbers that grow as they are written. */
class Writer {
  tags = new Uint8Array(1 << 16);
  at = 0;
  numbers = new Float64Array(1 << 12);
  count = 0;
  readonly texts = new Map<string, number>();
  readonly keys = new Map<string, number>();

  byte(value: number): void {
    if (this.at === this.tags.length) {
      const larger = new Uint8Array(2 * this.at);
      larger.set(this.tags);
      this.tags = larger;
    }
    this.tags[this.at++] = value;
  }

  /** A whole number from 0 on, seven bits a byte. */
  size(value: number): void {
    let rest = value;
    while (rest > 127) {
      this.byte(128 | (rest & 127));
      rest >>>= 7;
    }
    this.byte(rest);
  }

  number(value: number): void {
    if ((value | 0) === value && value >= LEAST && value < SMALL + LEAST && !Object.is(value, -0))
      this.byte(value - LEAST);
    else if (value !== value) this.byte(NOT_A_NUMBER);
    else if (value === Infinity) this.byte(ENDLESS);
    else if (value === -Infinity) this.byte(MINUS_ENDLESS);
    else {
      this.byte(NUMBER);
      if (this.count === this.numbers.length) {
        const larger = new Float64Array(2 * this.count);
        larger.set(this.numbers);
        this.numbers = larger;
      }
      this.numbers[this.count++] = value;
    }
  }

  private numbersOf(list: ArrayLike<number>): void {
    for (let i = 0; i < list.length;) {
      const value = list[i];
      let end = i + 1;
      while (end < list.length && Object.is(list[end], value)) end++;
      const times = end - i;
      if (times < WORTH_COUNTING) for (let n = 0; n < times; n++) this.number(value);
      else {
        this.byte(REPEATED);
        this.size(times);
        this.number(value);
      }
      i = end;
    }
  }

  value(value: unknown): void {
    if (typeof value === 'number') this.number(value);
    else if (typeof value === 'string') {
      this.byte(TEXT);
      this.size(placeIn(this.texts, value));
    } else if (value === null) this.byte(NULL);
    else if (typeof value === 'boolean') this.byte(value ? TRUE : FALSE);
    else if (value === undefined) this.byte(UNDEFINED);
    else if (Array.isArray(value)) {
      this.byte(LIST);
      this.size(value.length);
      for (const entry of value) this.value(entry);
    } else if (ArrayBuffer.isView(value)) {
      const list = value as unknown as ArrayLike<number>;
      this.byte(TYPED + ARRAYS.findIndex((type) => value instanceof type));
      this.size(list.length);
      this.numbersOf(list);
    } else {
      const names = Object.keys(value as object);
      this.byte(OBJECT);
      this.size(placeIn(this.keys, names.join(' ')));
      for (const name of names) this.value((value as Record<string, unknown>)[name]);
    }
  }
}

/** Where a text stands in a table; it is put there where it does not stand yet. */
function placeIn(table: Map<string, number>, text: string): number {
  let place = table.get(text);
  if (place === undefined) {
    place = table.size;
    table.set(text, place);
  }
  return place;
}

class Reader {
  private at = 0;
  private count = 0;
  private readonly tags: Uint8Array;
  private readonly numbers: Float64Array;
  private readonly texts: readonly string[];
  private readonly keys: readonly (readonly string[])[];

  constructor(
    tags: Uint8Array,
    numbers: Float64Array,
    texts: readonly string[],
    keys: readonly (readonly string[])[],
  ) {
    this.tags = tags;
    this.numbers = numbers;
    this.texts = texts;
    this.keys = keys;
  }

  private size(): number {
    let size = 0;
    for (let shift = 0; ; shift += 7) {
      const byte = this.tags[this.at++];
      size |= (byte & 127) << shift;
      if (byte < 128) return size;
    }
  }

  private number(tag: number): number {
    if (tag < SMALL) return tag + LEAST;
    if (tag === NUMBER) return this.numbers[this.count++];
    if (tag === NOT_A_NUMBER) return NaN;
    return tag === ENDLESS ? Infinity : -Infinity;
  }

  value(): unknown {
    const tag = this.tags[this.at++];
    if (tag <= NUMBER) return this.number(tag);
    switch (tag) {
      case NULL:
        return null;
      case TRUE:
        return true;
      case FALSE:
        return false;
      case UNDEFINED:
        return undefined;
      case TEXT:
        return this.texts[this.size()];
      case LIST: {
        const list = new Array<unknown>(this.size());
        for (let i = 0; i < list.length; i++) list[i] = this.value();
        return list;
      }
      case OBJECT: {
        const object: Record<string, unknown> = {};
        for (const name of this.keys[this.size()]) object[name] = this.value();
        return object;
      }
      default: {
        const list = new ARRAYS[tag - TYPED](this.size());
        for (let i = 0; i < list.length;) {
          const next = this.tags[this.at++];
          if (next === REPEATED) {
            const times = this.size();
            list.fill(this.number(this.tags[this.at++]), i, i + times);
            i += times;
          } else list[i++] = this.number(next);
        }
        return list;
      }
    }
  }
}

/** Bytes before the rest: how many numbers, and how many tags. */
const HEAD = 8;

export function packSnapshot(snapshot: Snapshot): PackedSnapshot {
  const writer = new Writer();
  writer.value(snapshot);
  const { tags, at, numbers, count } = writer;
  const tables = strToU8(JSON.stringify([[...writer.texts.keys()], [...writer.keys.keys()]]));
  const whole = new Uint8Array(HEAD + 8 * count + at + tables.length);
  const head = new DataView(whole.buffer);
  head.setUint32(0, count);
  head.setUint32(4, at);
  whole.set(new Uint8Array(numbers.buffer, 0, 8 * count), HEAD);
  whole.set(tags.subarray(0, at), HEAD + 8 * count);
  whole.set(tables, HEAD + 8 * count + at);
  // Most of it is nothing or as everywhere else, which the quickest level finds as well as any.
  return { tick: snapshot.tick, bytes: deflateSync(whole, { level: 1 }) };
}

export function unpackSnapshot({ bytes }: PackedSnapshot): Snapshot {
  const whole = inflateSync(bytes);
  const head = new DataView(whole.buffer, whole.byteOffset);
  const [count, length] = [head.getUint32(0), head.getUint32(4)];
  const tagsAt = HEAD + 8 * count;
  // Numbers of eight bytes want to begin at a place of their own.
  const numbers = new Float64Array(whole.slice(HEAD, tagsAt).buffer);
  const tags = whole.subarray(tagsAt, tagsAt + length);
  const [texts, keys] = JSON.parse(strFromU8(whole.subarray(tagsAt + length))) as string[][];
  const names = keys.map((each) => (each === '' ? [] : each.split(' ')));
  return new Reader(tags, numbers, texts, names).value() as Snapshot;
}
