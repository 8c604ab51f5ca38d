import { writtenSpace, type ProjectDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { moved, type AnyPart, type PartRef } from './parts.ts';
import { whyNotHere, whyNotMoved } from './placing.ts';

/** A 20 × 10 m yard with a wall from (8, 2) to (9, 8), two wardens, and a gate. */
function yard() {
  const archetype = { body: { radius: 0.4 } };
  const ground = {
    width: 20,
    height: 10,
    walls: [{ at: [8, 2], size: [1, 6] }],
    gates: { gate: { at: [14, 0], size: [1, 0.3] } },
    routes: {},
    agents: {
      one: { title: 'One', archetype: 'warden', at: [3, 5] },
      two: { title: 'Two', archetype: 'warden', at: [5, 5], overrides: { body: { radius: 1 } } },
    },
  };
  const document = {
    archetypes: { warden: archetype },
    grounds: { yard: ground },
    start: { ground: 'yard' },
  } as unknown as ProjectDocument;
  // Without its gate: agents can be put where that stands.
  const space = writtenSpace({ ...document.grounds.yard, gates: {} });
  return { document, ground: document.grounds.yard, space };
}

const ref = (kind: PartRef['kind'], name = 'new'): PartRef => ({ kind, name });
const why = (kind: PartRef['kind'], part: AnyPart, name?: string) =>
  whyNotHere(yard(), ref(kind, name), part);

describe('why a part can’t be there', () => {
  it.each([
    ['things', { at: [21, 5] }, 'this is off the ground'],
    ['zones', { at: [15, 5], size: [6, 2] }, 'this is off the ground'],
    [
      'routes',
      {
        points: [
          [1, 1],
          [2, -1],
        ],
      },
      'this is off the ground',
    ],
    ['things', { at: [8.5, 5] }, 'there is a wall here'],
    ['spawns', { at: [8.1, 5] }, 'there is a wall here'],
    [
      'routes',
      {
        points: [
          [1, 1],
          [8.5, 4],
          [12, 4],
        ],
      },
      'waypoint 2 is in a wall',
    ],
    ['agents', { archetype: 'warden', at: [7.8, 5] }, 'there is a wall in the way'],
    ['agents', { archetype: 'warden', at: [3.5, 5] }, 'One stands there'],
    ['walls', { at: [2.5, 4.5], size: [1, 1] }, 'One stands there'],
    ['gates', { at: [2.5, 4.5], size: [1, 1] }, 'One stands there'],
    [
      'plates',
      { at: [1, 1], size: [1, 1], opens: 'door' },
      'there is no gate it could open; place a gate first',
    ],
  ] as const)('%s %j: %s', (kind, part, reason) => {
    expect(why(kind, part as unknown as AnyPart)).toBe(reason);
  });

  it.each([
    ['things', { at: [10, 5] }],
    ['zones', { at: [7, 1], size: [3, 3] }],
    ['lamps', { at: [8.5, 5] }],
    ['gates', { at: [2.5, 4.5], size: [1, 1], state: 'open' }],
    ['plates', { at: [1, 1], size: [1, 1], opens: 'gate' }],
    ['agents', { archetype: 'warden', at: [2, 8] }],
  ] as const)('nothing is wrong with %s %j', (kind, part) => {
    expect(why(kind, part as unknown as AnyPart)).toBeNull();
  });

  it('takes the body an agent has of its own', () => {
    // Two is 1 m around: 0.4 m of a warden beside it does not fit at 1.3 m, nor does Two near the wall.
    expect(why('agents', { archetype: 'warden', at: [5, 6.3] })).toBe('Two stands there');
    const two: AnyPart = {
      archetype: 'warden',
      at: [7.2, 8.2],
      overrides: { body: { radius: 1 } },
    };
    expect(why('agents', two, 'two')).toBe('there is a wall in the way');
    const slim: AnyPart = { archetype: 'warden', at: [7.2, 8.2] };
    expect(why('agents', slim, 'two')).toBeNull();
  });
});

describe('parts that move together', () => {
  it('do not stand in each other’s way, but each in that of others', () => {
    const here = yard();
    const both = [ref('agents', 'one'), ref('agents', 'two')];
    expect(whyNotMoved(here, both, (part) => moved(part, 1.5, 0))).toBeNull();
    expect(whyNotMoved(here, both.slice(0, 1), (part) => moved(part, 1.5, 0))).toBe(
      'Two stands there',
    );
    expect(whyNotMoved(here, both, (part) => moved(part, 2.5, 0))).toBe(
      'there is a wall in the way',
    );
  });
});
