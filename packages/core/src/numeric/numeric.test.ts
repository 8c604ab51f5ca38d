import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { atan2, cos, createStream, hashState, nextRandom, PI, sin, wrapAngle } from './index.ts';

const angle = fc.double({ min: -10_000, max: 10_000, noNaN: true });

describe('trigonometry', () => {
  it('agrees with the engine’s own functions to 1e-14', () => {
    fc.assert(
      fc.property(angle, (x) => {
        expect(Math.abs(sin(x) - Math.sin(x))).toBeLessThan(1e-14);
        expect(Math.abs(cos(x) - Math.cos(x))).toBeLessThan(1e-14);
      }),
    );
  });

  it('turns a vector into its angle to 1e-14, in every quadrant', () => {
    fc.assert(
      fc.property(angle, angle, (x, y) => {
        expect(Math.abs(atan2(y, x) - Math.atan2(y === 0 ? 0 : y, x === 0 ? 0 : x))).toBeLessThan(
          1e-14,
        );
      }),
    );
    expect(atan2(0, 0)).toBe(0);
    expect(atan2(0, -1)).toBe(PI);
    expect(atan2(-1, 0)).toBe(-PI / 2);
  });

  it('has a defined result where there is no angle', () => {
    expect([sin(NaN), sin(Infinity), cos(-Infinity), atan2(NaN, 1), atan2(Infinity, 1)]).toEqual([
      0, 0, 0, 0, 0,
    ]);
  });

  it('wraps any angle into one turn without changing its direction', () => {
    fc.assert(
      fc.property(angle, (x) => {
        const wrapped = wrapAngle(x);
        expect(wrapped).toBeGreaterThanOrEqual(-PI);
        expect(wrapped).toBeLessThan(PI);
        expect(Math.abs(Math.sin(wrapped) - Math.sin(x))).toBeLessThan(1e-9);
      }),
    );
  });

  it('gives the very bits that all engines must give', () => {
    // Fixed once and for all: a change here changes every recorded run.
    expect([sin(1), cos(1), atan2(1, 2), sin(1000)]).toEqual([
      0.8414709848078965, 0.5403023058681398, 0.4636476090008061, 0.8268795405320025,
    ]);
  });
});

describe('random streams', () => {
  it('gives the same numbers for the same seed and name, others for others', () => {
    const draw = (seed: number, name: string) => {
      const stream = createStream(seed, name);
      return Array.from({ length: 4 }, () => nextRandom(stream));
    };
    expect(draw(7, 'agent warden1')).toEqual(draw(7, 'agent warden1'));
    expect(draw(7, 'agent warden1')).not.toEqual(draw(8, 'agent warden1'));
    expect(draw(7, 'agent warden1')).not.toEqual(draw(7, 'agent warden2'));
    expect(draw(2 ** 40, 'a')).not.toEqual(draw(2 ** 41, 'a'));
  });

  it('stays from 0 to 1 and spreads evenly', () => {
    const stream = createStream(1, 'spread');
    const bins = new Array<number>(10).fill(0);
    for (let i = 0; i < 10_000; i++) bins[Math.floor(nextRandom(stream) * 10)]++;
    expect(bins.reduce((sum, count) => sum + count, 0)).toBe(10_000);
    for (const count of bins) expect(Math.abs(count - 1000)).toBeLessThan(150);
  });
});

describe('state hash', () => {
  it('depends on every value and on nothing else', () => {
    const state = { a: 1, b: [1, 2.5, { c: 'x' }], d: null, e: true };
    expect(hashState(state)).toBe(hashState({ e: true, d: null, b: [1, 2.5, { c: 'x' }], a: 1 }));
    for (const other of [
      { ...state, a: 1 + 2 ** -52 },
      { ...state, b: [2.5, 1, { c: 'x' }] },
      { ...state, e: false },
      { ...state, f: 0 },
    ]) {
      expect(hashState(other)).not.toBe(hashState(state));
    }
    expect(hashState(-0)).not.toBe(hashState(0));
    expect(hashState(NaN)).toBe(hashState(-NaN));
    expect(hashState([1, 2])).toBe(hashState(Float64Array.of(1, 2)));
  });

  it('refuses what is not plain data', () => {
    expect(() => hashState({ run: () => 1 })).toThrow(/plain data/);
  });

  it('hardly ever gives two states one hash', () => {
    const hashes = new Set(Array.from({ length: 20_000 }, (_, i) => hashState({ x: i / 7, y: i })));
    expect(hashes.size).toBe(20_000);
  });
});
