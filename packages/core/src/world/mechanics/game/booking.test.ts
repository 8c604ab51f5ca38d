import { describe, expect, it } from 'vitest';
import { PLACE_DONE, PLACE_FREE } from '../../../group/search.ts';
import type { SearchPlan } from '../../../mind/host.ts';
import { LEGS_MOVING } from '../../../motion/legs.ts';
import type { ProjectDocument } from '../../../model/documents.ts';
import { cornerProject, programOf } from '../../../testing/orchard.fixture.ts';
import { createWorld } from '../../world.ts';
import {
  bookPlace,
  bookSlot,
  dropSearches,
  joinSearch,
  leavePlace,
  leaveSlot,
  putPlace,
  putSlot,
} from './booking.ts';

/** Three keepers of one squad at x = 2, and one without a squad. */
function squad(change: (document: ProjectDocument) => void = () => {}) {
  const document = cornerProject({ machine: { initial: 'stand', states: [{ id: 'stand' }] } });
  document.squads = { rounds: { title: 'Rounds' } };
  const at = (x: number, y: number) => ({
    archetype: 'keeper',
    at: [x, y] as [number, number],
    squad: 'rounds',
  });
  document.grounds.corner.agents = {
    gleaner: { archetype: 'gleaner', at: [10, 5] },
    one: at(2, 2),
    two: at(2, 5),
    three: at(2, 8),
    alone: { archetype: 'keeper', at: [18, 2] },
  };
  change(document);
  const world = createWorld(programOf(document), 1);
  const of = (name: string) => world.agents.find((agent) => agent.name === name)!;
  return {
    world,
    gleaner: of('gleaner'),
    one: of('one'),
    two: of('two'),
    three: of('three'),
    alone: of('alone'),
  };
}

const plan = (more: Partial<SearchPlan> = {}): SearchPlan => ({
  x: 10,
  y: 5,
  radius: 3,
  spacing: 2,
  grid: false,
  widenings: 0,
  begins: true,
  ...more,
});

const place = new Float64Array(2);

describe('a search', () => {
  it('is shared by a squad, and apart for an agent that has none', () => {
    const { world, one, two, alone, gleaner } = squad();
    for (const agent of [one, two, alone, gleaner]) joinSearch(world, agent, plan());
    expect(world.searches).toHaveLength(3);
    expect(new Set(world.searches.map(({ group }) => group)).size).toBe(3);
    bookPlace(world, one);
    bookPlace(world, two);
    const [shared] = world.searches;
    expect(shared.by.filter((who) => who !== PLACE_FREE).sort()).toEqual([one.index, two.index]);
  });

  it('goes on where it is joined near by, and is another where that is elsewhere', () => {
    const { world, one, two } = squad();
    joinSearch(world, one, plan());
    const [first] = world.searches;
    joinSearch(world, two, plan({ x: 12, y: 7 }));
    expect(world.searches).toEqual([first]);
    // 2.9 m off is within its radius of 3 m; 3.1 m is not.
    joinSearch(world, two, plan({ x: 12.9 }));
    expect(world.searches[0]).toBe(first);
    joinSearch(world, two, plan({ x: 13.1 }));
    expect(world.searches[0]).not.toBe(first);
    expect(world.searches[0]).toMatchObject({ x: 13.1, y: 5, radius: 3 });
    expect(world.searches).toHaveLength(1);
  });

  it('that is over starts again for an agent that begins one, and not for an agent that is at it', () => {
    const { world, one, two } = squad();
    joinSearch(world, one, plan());
    const [first] = world.searches;
    first.by.fill(PLACE_DONE);
    joinSearch(world, two, plan({ begins: false }));
    expect(world.searches[0]).toBe(first);
    first.by[1] = PLACE_FREE;
    joinSearch(world, two, plan());
    expect(world.searches[0]).toBe(first);
    first.by[1] = PLACE_DONE;
    joinSearch(world, two, plan());
    expect(world.searches[0]).not.toBe(first);
    expect(world.searches[0].by.every((who) => who === PLACE_FREE)).toBe(true);
  });

  it('has as many places as can be walked to, each looked at once', () => {
    const { world, one } = squad();
    joinSearch(world, one, plan());
    const [{ places, by }] = world.searches;
    expect(by).toHaveLength(places.length / 2);
    const visited = new Set<string>();
    for (let i = 0; i < by.length; i++) {
      bookPlace(world, one);
      expect(putPlace(world, one, place)).toBe(true);
      visited.add([...place].join());
      leavePlace(world, one, true);
    }
    expect(visited.size).toBe(by.length);
    bookPlace(world, one);
    expect(putPlace(world, one, place)).toBe(false);
    expect(by.every((who) => who === PLACE_DONE)).toBe(true);
  });

  it('gives a place back that an agent breaks off', () => {
    const { world, one, two } = squad();
    joinSearch(world, one, plan());
    bookPlace(world, one);
    const booked = world.searches[0].by.indexOf(one.index);
    leavePlace(world, two, true);
    expect(world.searches[0].by[booked]).toBe(one.index);
    leavePlace(world, one, false);
    expect(world.searches[0].by[booked]).toBe(PLACE_FREE);
    expect(putPlace(world, one, place)).toBe(false);
  });

  it('widens by 60 % as often as it may, once nothing is left, and then no more', () => {
    const { world, one } = squad();
    joinSearch(world, one, plan({ radius: 2, spacing: 1, widenings: 2 }));
    const [search] = world.searches;
    const few = search.by.length;
    search.by.fill(PLACE_DONE);
    bookPlace(world, one);
    expect(search.radius).toBeCloseTo(3.2, 9);
    expect(search.widenings).toBe(1);
    expect(search.by.length).toBeGreaterThan(few);
    expect(search.by).toHaveLength(search.places.length / 2);
    expect(search.by.slice(0, few).every((who) => who === PLACE_DONE)).toBe(true);
    expect(search.by.indexOf(one.index)).toBeGreaterThanOrEqual(few);
    // What is new lies outside of what was looked at.
    for (let i = few; i < search.by.length; i++)
      expect(Math.hypot(search.places[2 * i] - 10, search.places[2 * i + 1] - 5)).toBeGreaterThan(
        2,
      );
    search.by.fill(PLACE_DONE);
    bookPlace(world, one);
    expect([search.radius.toFixed(3), search.widenings]).toEqual(['5.120', 0]);
    search.by.fill(PLACE_DONE);
    bookPlace(world, one);
    expect([search.radius.toFixed(3), search.widenings]).toEqual(['5.120', 0]);
    expect(putPlace(world, one, place)).toBe(false);
  });

  it('widens again at once where the wider circle has no more places than the one before', () => {
    const { world, one } = squad();
    // Rings lie 2 m apart: the next after that of 2 m is at 4 m, which 3.2 m do not reach.
    joinSearch(world, one, plan({ radius: 2, spacing: 2, widenings: 3 }));
    const [search] = world.searches;
    search.by.fill(PLACE_DONE);
    bookPlace(world, one);
    expect([search.radius.toFixed(3), search.widenings]).toEqual(['5.120', 1]);
    expect(putPlace(world, one, place)).toBe(true);
  });

  it('is forgotten three seconds after the last was at it, not while an agent is on the way', () => {
    const { world, one } = squad();
    joinSearch(world, one, plan());
    bookPlace(world, one);
    const { usedAt } = world.searches[0];
    dropSearches(world, usedAt + 9999, 60);
    expect(world.searches).toHaveLength(1);
    leavePlace(world, one, true);
    dropSearches(world, usedAt + 180, 60);
    expect(world.searches).toHaveLength(1);
    dropSearches(world, usedAt + 181, 60);
    expect(world.searches).toHaveLength(0);
    bookPlace(world, one);
    expect(putPlace(world, one, place)).toBe(false);
  });
});

describe('places around a target', () => {
  /** Offsets of the agents with a place around the gleaner, rounded. */
  const offset = (
    world: ReturnType<typeof squad>['world'],
    who: { index: number },
    target: number,
  ) =>
    putSlot(world, world.agents[who.index], target, 2, place)
      ? [...place].map((metres) => Math.round(metres * 1000) / 1000 + 0)
      : null;

  it('are taken by the nearest first, each by one', () => {
    const { world, one, two, three, gleaner } = squad();
    const book = (who: typeof one, slots = 4) =>
      bookSlot(world, who, gleaner.index, slots, 2, gleaner.x, gleaner.y);
    book(two);
    expect(offset(world, two, gleaner.index)).toEqual([-2, 0]);
    // The nearest is taken: of the others the one above is nearer to the agent that stands there.
    book(one);
    expect(offset(world, one, gleaner.index)).toEqual([0, -2]);
    book(three);
    expect(offset(world, three, gleaner.index)).toEqual([0, 2]);
    // An agent that books again gives up its earlier place.
    book(two);
    expect(world.slots).toHaveLength(3);
    expect(offset(world, two, gleaner.index)).toEqual([-2, 0]);
    leaveSlot(world, one);
    expect(offset(world, one, gleaner.index)).toBeNull();
    expect(offset(world, two, one.index)).toBeNull();
  });

  it('around another target are others', () => {
    const { world, one, two, gleaner, alone } = squad();
    bookSlot(world, two, gleaner.index, 4, 2, gleaner.x, gleaner.y);
    bookSlot(world, one, alone.index, 4, 2, gleaner.x, gleaner.y);
    expect(offset(world, two, gleaner.index)).toEqual([-2, 0]);
    expect(offset(world, one, alone.index)).toEqual([-2, 0]);
  });

  it('are none where all are taken', () => {
    const { world, one, two, gleaner } = squad();
    bookSlot(world, one, gleaner.index, 1, 2, gleaner.x, gleaner.y);
    bookSlot(world, two, gleaner.index, 1, 2, gleaner.x, gleaner.y);
    expect(world.slots.map(({ agent }) => agent)).toEqual([one.index]);
  });

  it('leave out what lies in a wall', () => {
    const { world, two, gleaner } = squad(({ grounds: { corner } }) => {
      corner.walls = [{ at: [7.5, 4.5], size: [1, 1] }];
    });
    bookSlot(world, two, gleaner.index, 4, 2, gleaner.x, gleaner.y);
    expect(offset(world, two, gleaner.index)).not.toEqual([-2, 0]);
    expect(offset(world, two, gleaner.index)).not.toBeNull();
  });

  it('leave out where a mate stands, not where one is on its way, nor where the target is', () => {
    const standing = (legs: number, x = 8.3) => {
      const { world, one, two, gleaner } = squad();
      Object.assign(one.body, { x, y: 5, legs });
      bookSlot(world, two, gleaner.index, 4, 2, gleaner.x, gleaner.y);
      return offset(world, two, gleaner.index);
    };
    expect(standing(0)).not.toEqual([-2, 0]);
    expect(standing(LEGS_MOVING)).toEqual([-2, 0]);
    // Two bodies of 0.3 m: from 0.6 m on there is room beside it.
    expect(standing(0, 8.59)).not.toEqual([-2, 0]);
    expect(standing(0, 8.61)).toEqual([-2, 0]);
    expect(standing(0, 7.41)).not.toEqual([-2, 0]);
    expect(standing(0, 7.39)).toEqual([-2, 0]);
  });

  it('of one number count where others have booked by another', () => {
    const { world, one, two, gleaner } = squad();
    bookSlot(world, two, gleaner.index, 2, 2, gleaner.x, gleaner.y);
    expect(offset(world, two, gleaner.index)).toEqual([-2, 0]);
    bookSlot(world, one, gleaner.index, 4, 2, gleaner.x, gleaner.y);
    expect(offset(world, one, gleaner.index)).toEqual([0, -2]);
  });
});
