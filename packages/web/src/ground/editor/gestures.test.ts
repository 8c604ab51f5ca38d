import type { GroundDocument, PointDocument, ProjectDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import {
  AT_REST,
  draggedBy,
  ghostOf,
  pointing,
  resizedPart,
  type Hand,
  type PointerNews,
} from './gestures.ts';
import { TOOLS } from './tools.ts';

const ground = {
  walls: [
    { at: [1, 1], size: [6, 0.3] },
    { at: [1, 1], size: [0.6, 4] },
  ],
} as unknown as GroundDocument;

const hand = (id: string): Hand => ({
  document: {} as ProjectDocument,
  ground,
  tool: TOOLS.find((tool) => tool.id === id)!,
  snap: 0.1,
  agentKind: 'warden',
});

const after = (...news: PointerNews[]) => news.reduce(pointing, AT_REST);
const drawn = (from: PointDocument, to: PointDocument) =>
  after({ kind: 'begun', gesture: 'draw', at: from }, { kind: 'moved', at: to, shows: false });

describe('a wall that is drawn', () => {
  it('across is as long as it was drawn, and as thick as the last wall, around the line', () => {
    expect(ghostOf(drawn([2, 5], [8, 5]), hand('wall'))).toEqual({ at: [2, 4.7], size: [6, 0.6] });
    expect(ghostOf(drawn([8, 5], [2, 5]), hand('hedge'))).toMatchObject({ size: [6, 0.6] });
  });

  it('down is so too', () => {
    expect(ghostOf(drawn([5, 2], [5, 8]), hand('wall'))).toEqual({ at: [4.7, 2], size: [0.6, 6] });
  });

  it('as a box is that box, whichever corner it begins at', () => {
    const box = { at: [2, 3], size: [4, 2] };
    expect(ghostOf(drawn([2, 3], [6, 5]), hand('wall'))).toEqual(box);
    expect(ghostOf(drawn([6, 5], [2, 3]), hand('wall'))).toEqual(box);
  });

  it('from nothing but a click is one step of the snap', () => {
    expect(ghostOf(drawn([2, 3], [2, 3]), hand('wall'))).toMatchObject({ size: [0.1, 0.1] });
  });
});

it('other boxes that are drawn as a line are one step thick', () => {
  expect(ghostOf(drawn([2, 5], [8, 5]), hand('gate'))).toMatchObject({ size: [6, 0.1] });
});

describe('a pointer that moves', () => {
  it('within one step of the snap, or with nothing to show, changes nothing at all', () => {
    const begun = drawn([2, 3], [6, 5]);
    expect(pointing(begun, { kind: 'moved', at: [6, 5], shows: true })).toBe(begun);
    expect(pointing(AT_REST, { kind: 'moved', at: [6, 5], shows: false })).toBe(AT_REST);
    const shown = after({ kind: 'moved', at: [6, 5], shows: true });
    expect(shown.pointer).toEqual([6, 5]);
    expect(pointing(shown, { kind: 'moved', at: [6, 5], shows: true })).toBe(shown);
    for (const kind of ['left', 'ended', 'dropped'] as const)
      expect(pointing(AT_REST, { kind })).toBe(AT_REST);
  });

  it('takes what is chosen with it, or the corner of a part', () => {
    const moved = (gesture: 'move' | 'resize') =>
      after({ kind: 'begun', gesture, at: [2, 3] }, { kind: 'moved', at: [2.3, 4], shows: false });
    expect(draggedBy(moved('move'))).toEqual({ dx: 0.3, dy: 1 });
    expect(draggedBy(moved('resize'))).toBeNull();
    const part = { at: [1, 3.5] as PointDocument, size: [5, 5] as PointDocument };
    expect(resizedPart(moved('resize'), part, 0.1)).toEqual({ at: [1, 3.5], size: [1.3, 0.5] });
    expect(resizedPart(moved('move'), part, 0.1)).toBeNull();
  });
});

it('a route is its points, and the one the pointer is at', () => {
  const points = after({ kind: 'pointed', at: [1, 1] }, { kind: 'pointed', at: [2, 2] });
  const shown = pointing(points, { kind: 'moved', at: [3, 3], shows: true });
  expect(ghostOf(shown, hand('route'))).toEqual({
    points: [
      [1, 1],
      [2, 2],
      [3, 3],
    ],
  });
  expect(ghostOf(pointing(shown, { kind: 'left' }), hand('route'))).toEqual({
    points: [
      [1, 1],
      [2, 2],
    ],
  });
  expect(ghostOf(pointing(points, { kind: 'dropped' }), hand('route'))).toBeNull();
});
