import { expect, it } from 'vitest';
import { hiddenColumns } from './hidden-columns.tsx';

it('counts the columns that lie out of sight on each side, those in part too', () => {
  const at = (scrollLeft: number, scrollWidth: number) =>
    hiddenColumns({ scrollLeft, scrollWidth, clientWidth: 600 }, 72);
  expect(at(0, 600)).toEqual({ before: 0, after: 0 });
  expect(at(0, 630)).toEqual({ before: 0, after: 1 });
  expect(at(72, 800)).toEqual({ before: 1, after: 2 });
  expect(at(200, 800)).toEqual({ before: 3, after: 0 });
});
