import { describe, expect, it } from 'vitest';
import { createMaze, lengthOf, ourWays, theirWays } from './paths.ts';

describe('the two that are measured against each other', () => {
  it('find ways of equal cost', () => {
    const maze = createMaze(5, 12);
    const { columns } = maze.walkable;
    const theirs = theirWays(maze);
    let found = 0;
    ourWays(maze).forEach((ours, i) => {
      if (ours === null) {
        expect(theirs[i]).toEqual([]);
        return;
      }
      found++;
      expect(lengthOf(ours, columns)).toBeCloseTo(lengthOf(theirs[i], columns), 6);
    });
    expect(found).toBeGreaterThan(3);
  });
});
