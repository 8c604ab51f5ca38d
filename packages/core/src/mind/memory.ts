import type { KeyProgram } from './program.ts';

/**
 * Memory: the values of keys and the ticks they were written in, in cells. The keys of one agent stand
 * among its other cells; those that a squad or the world shares have arrays of their own.
 *
 * A list is its length and then room for its entries, oldest first; a point takes two cells.
 */

export function entryWidth(type: KeyProgram['type']): number {
  return type === 'point' || type === 'list of point' ? 2 : 1;
}

/** Cells a key's value takes. */
export function keyWidth(type: KeyProgram['type'], capacity: number): number {
  return capacity > 0 ? 1 + capacity * entryWidth(type) : entryWidth(type);
}

export function resetKey(cells: Float64Array, key: KeyProgram): void {
  const { slot, stamp, type, initial, capacity } = key;
  cells.fill(initial, slot, slot + keyWidth(type, capacity));
  if (capacity > 0) cells[slot] = 0;
  cells[stamp] = -1;
}

/** Whether a key holds what an option of a choice is weighed for: such keys have dots in their names, which declared ones have not. */
export function isCandidateKey({ name }: Pick<KeyProgram, 'name'>): boolean {
  return name.includes('.');
}

function isMissing(type: KeyProgram['type'], a: number, b: number): boolean {
  if (a - a !== 0 || (entryWidth(type) === 2 && b - b !== 0)) return true;
  return a < 0 && !type.endsWith('number') && entryWidth(type) === 1;
}

/** Writes a key; `b` is the y of a point. A missing value (NaN, or a negative agent) leaves the key as it is and gives false. */
export function writeKey(
  cells: Float64Array,
  key: KeyProgram,
  a: number,
  b: number,
  tick: number,
): boolean {
  if (isMissing(key.type, a, b)) return false;
  cells[key.slot] = key.type === 'number' ? within(key, a) : a;
  if (key.type === 'point') cells[key.slot + 1] = b;
  cells[key.stamp] = tick;
  return true;
}

/** Adds an entry to a list, the oldest giving way where it is full; false for a missing value. */
export function addToKey(
  cells: Float64Array,
  key: KeyProgram,
  a: number,
  b: number,
  tick: number,
): boolean {
  const { slot, type, capacity } = key;
  if (isMissing(type, a, b)) return false;
  const width = entryWidth(type);
  if (cells[slot] === capacity) {
    cells.copyWithin(slot + 1, slot + 1 + width, slot + 1 + capacity * width);
    cells[slot]--;
  }
  const at = slot + 1 + cells[slot] * width;
  cells[at] = a;
  if (width === 2) cells[at + 1] = b;
  cells[slot]++;
  cells[key.stamp] = tick;
  return true;
}

/** The nearest number that a key can hold. */
function within({ min, max }: KeyProgram, value: number): number {
  return value < min ? min : value > max ? max : value;
}

/** Which end a number has come to by itself. */
export type End = 'min' | 'max';

/**
 * Adds to each key what it changes by in one tick, within its bounds, and tells of those that have come to an
 * end of them. This is no write: the age of a key counts from when a mind wrote it.
 */
export function changeKeys(
  cells: Float64Array,
  keys: readonly KeyProgram[],
  told: ((key: KeyProgram, end: End) => void) | null,
): void {
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i];
    const before = cells[key.slot];
    const after = within(key, before + key.rate);
    if (after === before) continue;
    cells[key.slot] = after;
    if (after === key.min) told?.(key, 'min');
    else if (after === key.max) told?.(key, 'max');
  }
}

/** Resets the keys, all of which are forgotten after a time, whose time is over, and tells of each. */
export function forgetDueKeys(
  cells: Float64Array,
  keys: readonly KeyProgram[],
  tick: number,
  told: ((key: KeyProgram) => void) | null,
): void {
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i];
    const written = cells[key.stamp];
    if (written < 0 || tick - written <= key.forgetAfter) continue;
    resetKey(cells, key);
    told?.(key);
  }
}
