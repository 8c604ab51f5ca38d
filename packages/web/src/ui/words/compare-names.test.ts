import { expect, it } from 'vitest';
import { compareNames } from './compare-names.ts';

it('names are in the order one reads them in', () => {
  expect(['bee10', 'goose', 'bee9', 'bee1', 'wave.12', 'wave.2'].toSorted(compareNames)).toEqual([
    'bee1',
    'bee9',
    'bee10',
    'goose',
    'wave.2',
    'wave.12',
  ]);
});
