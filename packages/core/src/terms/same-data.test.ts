import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sameData } from './same-data.ts';

const data = () => fc.jsonValue({ depthSize: 'small' });

/** The same with its fields the other way round, everywhere. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, part]) => [key, turned(part)]),
  );
}

describe('plain data', () => {
  it('is the same as its copy, in whatever order its fields stand', () => {
    fc.assert(
      fc.property(data(), (value) => {
        expect(sameData(value, structuredClone(value))).toBe(true);
        expect(sameData(value, turned(value))).toBe(true);
      }),
    );
  });

  it('is the same as other data just where their texts are', () => {
    // Sorted, so that the texts stand in one order too.
    const text = (value: unknown) =>
      JSON.stringify(value, (_, part: unknown) =>
        typeof part === 'object' && part !== null && !Array.isArray(part)
          ? Object.fromEntries(Object.entries(part).sort(([x], [y]) => (x < y ? -1 : 1)))
          : part,
      );
    const few = () => fc.jsonValue({ maxDepth: 2, noUnicodeString: true });
    fc.assert(
      fc.property(few(), few(), (a, b) => {
        expect(sameData(a, b)).toBe(text(a) === text(b));
      }),
    );
  });

  it('differs by one field, one entry or one kind', () => {
    expect(sameData({ a: 1 }, { a: 1, b: 2 })).toBe(false);
    expect(sameData({ a: 1, b: 2 }, { a: 1 })).toBe(false);
    expect(sameData([1, 2], [1])).toBe(false);
    expect(sameData([], {})).toBe(false);
    expect(sameData({}, null)).toBe(false);
    expect(sameData(null, undefined)).toBe(false);
    expect(sameData({ a: [{ b: NaN }] }, { a: [{ b: 0 }] })).toBe(false);
  });

  it('takes not a number for itself, and a field that is undefined for one that is absent', () => {
    expect(sameData({ a: [NaN] }, { a: [NaN] })).toBe(true);
    expect(sameData({ a: undefined }, {})).toBe(true);
    expect(sameData({}, { a: undefined })).toBe(true);
  });
});
