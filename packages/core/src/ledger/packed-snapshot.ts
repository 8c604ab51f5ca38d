import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import type { Snapshot } from '../world/handover/snapshot.ts';

/**
 * A snapshot as it is kept: bytes, a twentieth of what it takes as objects. Its numbers stand one behind
 * the other, exact to the last bit, and beside them its shape: the same structure with gaps for the numbers.
 */
export interface PackedSnapshot {
  tick: number;
  bytes: Uint8Array;
}

const ARRAYS = { Float64Array, Uint32Array, Uint8Array } as const;
type ArrayName = keyof typeof ARRAYS;

/** Stands for a number in the shape. */
const GAP = 0;
/** In the shape, an object with this key alone stands for a typed array: which, and how long. */
const TYPED = '~';

function shapeOf(value: unknown, numbers: number[]): unknown {
  if (typeof value === 'number') {
    numbers.push(value);
    return GAP;
  }
  if (typeof value !== 'object' || value === null) return value;
  if (ArrayBuffer.isView(value)) {
    const list = value as unknown as ArrayLike<number>;
    for (let i = 0; i < list.length; i++) numbers.push(list[i]);
    return { [TYPED]: [value.constructor.name, list.length] };
  }
  if (Array.isArray(value)) return value.map((entry) => shapeOf(entry, numbers));
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [key, shapeOf(inner, numbers)]),
  );
}

/** Fills the gaps of a shape, in the order they were made in. */
function filled(shape: unknown, next: () => number): unknown {
  if (shape === GAP) return next();
  if (typeof shape !== 'object' || shape === null) return shape;
  if (Array.isArray(shape)) return shape.map((entry) => filled(entry, next));
  const entries = Object.entries(shape);
  if (entries.length === 1 && entries[0][0] === TYPED) {
    const [name, length] = entries[0][1] as [ArrayName, number];
    const list = new ARRAYS[name](length);
    for (let i = 0; i < length; i++) list[i] = next();
    return list;
  }
  return Object.fromEntries(entries.map(([key, inner]) => [key, filled(inner, next)]));
}

export function packSnapshot(snapshot: Snapshot): PackedSnapshot {
  const numbers: number[] = [];
  const shape = strToU8(JSON.stringify(shapeOf(snapshot, numbers)));
  const figures = new Uint8Array(Float64Array.from(numbers).buffer);
  const whole = new Uint8Array(4 + figures.length + shape.length);
  new DataView(whole.buffer).setUint32(0, figures.length);
  whole.set(figures, 4);
  whole.set(shape, 4 + figures.length);
  // Most of it is nothing or as everywhere else, which the quickest level finds as well as any.
  return { tick: snapshot.tick, bytes: deflateSync(whole, { level: 1 }) };
}

export function unpackSnapshot({ bytes }: PackedSnapshot): Snapshot {
  const whole = inflateSync(bytes);
  const length = new DataView(whole.buffer, whole.byteOffset).getUint32(0);
  // Numbers of eight bytes want to begin at a place of their own.
  const figures = new Float64Array(whole.slice(4, 4 + length).buffer);
  const shape: unknown = JSON.parse(strFromU8(whole.subarray(4 + length)));
  let at = 0;
  return filled(shape, () => figures[at++]) as Snapshot;
}
