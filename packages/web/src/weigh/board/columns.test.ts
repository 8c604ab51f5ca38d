import { expect, it } from 'vitest';
import { columnsOf } from './columns.ts';

it('puts considerations that are called alike under each other, in the order they first appear', () => {
  const columns = columnsOf({
    options: [
      { id: 'a', considerations: [{ input: 'x' }, { input: 'y', title: 'Reach' }, { input: 'x' }] },
      { id: 'b' },
      { id: 'c', considerations: [{ input: 'z', title: 'Reach' }, { input: 'x' }] },
    ],
  });
  expect(columns).toEqual([
    { name: 'x', cells: [0, null, 1] },
    { name: 'Reach', cells: [1, null, 0] },
    { name: 'x', cells: [2, null, null] },
  ]);
});
