import type { GroundDocument } from '@crooked-lantern/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FIELDS, withField } from './part-fields.ts';
import {
  allParts,
  changeOf,
  copyOf,
  freshPartName,
  keyOf,
  layerOf,
  LAYERS,
  moved,
  partAt,
  snapped,
  titleOf,
} from './parts.ts';

const ground: GroundDocument = {
  title: 'Yard',
  width: 10,
  height: 10,
  walls: [
    { at: [1, 1], size: [2, 1] },
    { kind: 'low', at: [4, 1], size: [2, 1] },
  ],
  lamps: { lamp: { at: [2, 2], reach: 4, strength: 1 } },
  routes: {
    round: {
      title: 'West round',
      points: [
        [1, 2],
        [3, 4],
      ],
    },
  },
  agents: {},
};

it('a copy has a free name, and a title where the original has one', () => {
  const route = copyOf(ground, { kind: 'routes', name: 'round' }, 1);
  expect([route.ref.name, route.part.title, route.part.points]).toEqual([
    'round2',
    'West round 2',
    [
      [2, 3],
      [4, 5],
    ],
  ]);
  const lamp = copyOf(ground, { kind: 'lamps', name: 'lamp' }, 1);
  expect([lamp.ref.name, lamp.part.title]).toEqual(['lamp2', undefined]);
});

describe('the parts of a ground', () => {
  it('are found by what lists call them, and each lies on one layer', () => {
    const refs = allParts(ground);
    expect(refs.map((ref) => titleOf(ground, ref))).toEqual([
      'wall 1',
      'low cover 2',
      'lamp',
      'West round',
    ]);
    expect(new Set(refs.map(keyOf)).size).toBe(refs.length);
    for (const ref of refs) expect(partAt(ground, ref)).toBeDefined();
    for (const { id, kinds } of LAYERS) for (const kind of kinds) expect(layerOf(kind)).toBe(id);
  });

  it('get names that no part has yet, walls the next number', () => {
    expect(freshPartName(ground, 'lamps', 'lamp')).toBe('lamp2');
    expect(freshPartName(ground, 'gates', 'round')).toBe('round2');
    expect(freshPartName(ground, 'gates', 'gate7')).toBe('gate7');
    expect(freshPartName(ground, 'walls', 'wall')).toBe('2');
  });

  it('change by name, walls by their place in the list', () => {
    expect(changeOf({ kind: 'walls', name: '1' }, null)).toEqual({
      part: 'walls',
      index: 1,
      value: null,
    });
    const value = { at: [1, 1] as [number, number] };
    expect(changeOf({ kind: 'things', name: 'basket' }, value)).toEqual({
      part: 'things',
      name: 'basket',
      value,
    });
  });

  it('move there and back to where they were, to the millimetre', () => {
    const metres = fc.integer({ min: -9000, max: 9000 }).map((value) => value / 1000);
    fc.assert(
      fc.property(metres, metres, metres, metres, (x, y, dx, dy) => {
        const part = { at: [x, y] as [number, number], points: [[y, x]] as [number, number][] };
        expect(moved(moved(part, dx, dy), -dx, -dy)).toEqual(part);
      }),
    );
  });

  it('snap to the grid, or to the millimetre without one', () => {
    expect(snapped(1.26, 0.25)).toBe(1.25);
    expect(snapped(0.3000000004, 0.1)).toBe(0.3);
    expect(snapped(1.23456, 0)).toBe(1.235);
  });
});

describe('a field of a part', () => {
  const field = (kind: keyof typeof FIELDS, id: string) =>
    FIELDS[kind].find((each) => each.id === id)!;

  it('is left out where it says what holds anyway', () => {
    const wall = { at: [1, 1] as [number, number], kind: 'hedge' };
    const height = field('walls', 'height');
    expect(withField(wall, height, 1.2)).toEqual({ ...wall, height: 1.2 });
    // A hedge is 1.9 m high unless it says otherwise.
    expect(withField({ ...wall, height: 1.2 }, height, 1.9)).toEqual(wall);
    expect(withField(wall, field('walls', 'kind'), 'wall')).toEqual({ at: [1, 1] });
  });

  it('of a choice or a flag goes when it is taken away', () => {
    const agent = { archetype: 'warden', route: 'west', asleep: true };
    expect(withField(agent, field('agents', 'route'), undefined)).toEqual({
      archetype: 'warden',
      asleep: true,
    });
    expect(withField(agent, field('agents', 'asleep'), undefined)).not.toHaveProperty('asleep');
  });
});
