import { describe, expect, it } from 'vitest';
import { checkNumber, readNumber } from './number-text.tsx';

describe('a number as people write it', () => {
  it.each([
    ['2.5', 2.5],
    ['2,5', 2.5],
    ['-0,25', -0.25],
    [' 3 ', 3],
    [',5', 0.5],
    ['', NaN],
    ['1,2,3', NaN],
    ['2s', NaN],
  ])('%j is %s', (text, value) => {
    expect(readNumber(text)).toBe(value);
  });

  it('is held to its bounds, and says which they are', () => {
    const check = checkNumber({ minimum: 1, maximum: 3, whole: true });
    expect([check('2'), check('3')]).toEqual([null, null]);
    for (const text of ['0', '4', '2,5', 'two', ''])
      expect(check(text)).toBe('It takes a whole number from 1 to 3.');
  });
});
