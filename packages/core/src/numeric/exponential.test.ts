import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exp, log, power } from './exponential.ts';

/** Units in the last place between two numbers, roughly. */
function apart(a: number, b: number): number {
  if (a === b) return 0;
  return Math.abs(a - b) / (Math.max(Math.abs(a), Math.abs(b), 2.3e-308) * 2 ** -53);
}

describe('exp, log and power', () => {
  it('agree with the platform’s to the last places', () => {
    fc.assert(
      fc.property(fc.double({ min: -740, max: 709, noNaN: true }), (x) => {
        if (Math.exp(x) > 1e-300) expect(apart(exp(x), Math.exp(x))).toBeLessThan(3);
      }),
    );
    fc.assert(
      fc.property(fc.double({ min: 1e-300, max: 1e300, noNaN: true }), (x) => {
        expect(Math.abs(log(x) - Math.log(x))).toBeLessThan(
          1e-15 * Math.max(1, Math.abs(Math.log(x))),
        );
      }),
    );
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.01, max: 20, noNaN: true }),
        (base, exponent) => {
          expect(power(base, exponent)).toBeCloseTo(base ** exponent, 13);
        },
      ),
    );
  });

  it('are exact where the answer is plain', () => {
    expect([exp(0), exp(-Infinity), exp(Infinity), exp(-800), exp(800)]).toEqual([
      1,
      0,
      Infinity,
      0,
      Infinity,
    ]);
    expect([log(1), log(0), log(-1), log(Infinity)]).toEqual([0, -Infinity, NaN, Infinity]);
    expect([power(0, 0), power(0, 3), power(1, 7.3), power(0.3, 1), power(0.25, 0.5)]).toEqual([
      1, 0, 1, 0.3, 0.5,
    ]);
    expect([exp(NaN), log(NaN)]).toEqual([NaN, NaN]);
    expect(log(2 ** -1060)).toBeCloseTo(-1060 * Math.LN2, 9);
    expect(exp(-744)).toBeCloseTo(Math.exp(-744), 320);
  });
});
