import { createWalkable, createWalls, findCells, type Walkable } from '@crooked-lantern/core';
import createGraph, { type Graph } from 'ngraph.graph';
import { aStar, type PathFinder } from 'ngraph.path';

/** The same grids for our search and for a general graph package, and ways to ask both for. */

export interface Maze {
  walkable: Walkable;
  finder: PathFinder<Cell>;
  /** Cells from and to, in turn. */
  requests: [from: number, to: number][];
}

interface Cell {
  c: number;
  r: number;
}

/** Pseudo-random numbers that are the same in every run. */
function* numbers(seed: number): Generator<number> {
  let state = seed;
  for (;;) {
    state = (state * 1103515245 + 12345) % 2147483648;
    yield state / 2147483648;
  }
}

/** Cells in a row and in a column; walls are strewn over them. */
const SIZE = 40;

function graphOf({ columns, rows, open }: Walkable): Graph<Cell, number> {
  const graph = createGraph<Cell, number>();
  const isOpen = (c: number, r: number) =>
    c >= 0 && r >= 0 && c < columns && r < rows && open[r * columns + c] === 1;
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) if (isOpen(c, r)) graph.addNode(r * columns + c, { c, r });
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      if (!isOpen(c, r)) continue;
      const here = r * columns + c;
      if (isOpen(c + 1, r)) graph.addLink(here, here + 1, 1);
      if (isOpen(c, r + 1)) graph.addLink(here, here + columns, 1);
      for (const side of [-1, 1]) {
        if (isOpen(c + side, r + 1) && isOpen(c + side, r) && isOpen(c, r + 1))
          graph.addLink(here, here + columns + side, Math.SQRT2);
      }
    }
  }
  return graph;
}

function octile(a: Cell, b: Cell): number {
  const dc = Math.abs(a.c - b.c);
  const dr = Math.abs(a.r - b.r);
  return Math.max(dc, dr) + (Math.SQRT2 - 1) * Math.min(dc, dr);
}

export function createMaze(seed: number, requests = 60): Maze {
  const random = numbers(seed);
  const next = () => random.next().value as number;
  const boxes = Array.from({ length: 90 }, () => ({
    x: next() * SIZE,
    y: next() * SIZE,
    width: 0.3 + next() * 4,
    height: 0.3 + next() * 4,
  }));
  const walkable = createWalkable(createWalls(SIZE, SIZE, boxes), 0.3);
  const finder = aStar(graphOf(walkable), {
    distance: (_, __, link) => link.data,
    heuristic: (from, to) => octile(from.data, to.data),
  });
  const openCells = [...walkable.open.keys()].filter((cell) => walkable.open[cell] === 1);
  const pick = () => openCells[Math.floor(next() * openCells.length)];
  return {
    walkable,
    finder,
    requests: Array.from({ length: requests }, (): [number, number] => [pick(), pick()]),
  };
}

/** Length of a way over cells. */
export function lengthOf(cells: readonly number[], columns: number): number {
  let length = 0;
  for (let i = 1; i < cells.length; i++) {
    const step = Math.abs(cells[i] - cells[i - 1]);
    length += step === 1 || step === columns ? 1 : Math.SQRT2;
  }
  return length;
}

export function ourWays({ walkable, requests }: Maze): (number[] | null)[] {
  return requests.map(([from, to]) => findCells(walkable, from, to));
}

export function theirWays({ finder, requests }: Maze): number[][] {
  return requests.map(([from, to]) => finder.find(from, to).map(({ id }) => Number(id)));
}
