import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ActionDocument, ProjectDocument, SquadDocument } from '../model/documents.ts';
import { groundOf } from '../testing/ground.fixture.ts';
import { cornerProject, programOf, watch } from '../testing/orchard.fixture.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../world/handover/snapshot.ts';
import { tick } from '../world/phases/tick.ts';
import { createWorld } from '../world/world.ts';
import { assignRoles } from './roles.ts';
import { choosePlace, PLACE_DONE, PLACE_FREE, searchPlaces } from './search.ts';

/** Three keepers of one squad who all do one thing. */
function squad(activity: ActionDocument, change: (document: ProjectDocument) => void = () => {}) {
  const document = cornerProject({
    machine: {
      initial: 'act',
      states: [
        {
          id: 'act',
          activity,
          transitions: [
            { to: 'good', on: 'done.success' },
            { to: 'bad', on: 'done.failure' },
          ],
        },
        { id: 'good' },
        { id: 'bad' },
      ],
    },
  });
  document.squads = { rounds: { title: 'Rounds' } };
  document.archetypes.keeper.squad = 'rounds';
  document.grounds.corner.posts = { spot: { at: [10, 5] } };
  document.grounds.corner.agents = {
    gleaner: { archetype: 'gleaner', at: [18, 9] },
    keeper: { archetype: 'keeper', at: [2, 3], post: 'spot' },
    keeper2: { archetype: 'keeper', at: [2, 5], post: 'spot' },
    keeper3: { archetype: 'keeper', at: [2, 7], post: 'spot' },
  };
  change(document);
  const watched = watch(document);
  const keepers = watched.world.agents.filter(({ name }) => name.startsWith('keeper'));
  return { ...watched, keepers };
}

const SEARCH: ActionDocument = {
  do: 'search',
  around: 'self.post',
  radius: 3,
  spacing: 2,
  look: 0.2,
  widen: 0,
};

describe('a search', () => {
  it('is done with a place where an agent lies, beside which it comes to stand', () => {
    const { run, keepers, entries } = squad(SEARCH, ({ grounds: { corner } }) => {
      corner.agents.sleeper = { archetype: 'gleaner', at: [10, 5], asleep: true };
    });
    run(60 * 60);
    const ended = entries.filter((entry) => entry.kind === 'end' && entry.action === 'search');
    expect(ended.map(({ agent }) => agent).sort()).toEqual(keepers.map(({ name }) => name));
    expect(entries.filter(({ kind }) => kind === 'stuck').length).toBeLessThan(4);
  });

  it('is shared: each place is gone to once, by one member, and all of them take part', () => {
    const { world, run, keepers } = squad(SEARCH);
    const looked = new Map<number, Set<number>>();
    for (let i = 0; i < 60 * 25; i++) {
      run(1);
      const [search] = world.searches;
      search?.by.forEach((who, place) => {
        if (who < 0) return;
        looked.set(place, (looked.get(place) ?? new Set()).add(who));
      });
      const booked = (search?.by ?? []).filter((who) => who >= 0);
      expect(new Set(booked).size).toBe(booked.length);
    }
    expect(looked.size).toBeGreaterThan(4);
    for (const who of looked.values()) expect(who.size).toBe(1);
    expect(new Set([...looked.values()].flatMap((who) => [...who])).size).toBe(3);
    for (const { minds, memory } of keepers) {
      const { active } = minds[0].machine.cells;
      expect(minds[0].program.machine.states[memory[active + 1]].id).toBe('good');
    }
  });

  it('is forgotten three seconds after the last searcher has left', () => {
    const { world, run } = squad(SEARCH);
    run(30);
    expect(world.searches).toHaveLength(1);
    run(60 * 30);
    expect(world.searches).toEqual([]);
  });

  it('is widened when it has found nothing, with places farther out', () => {
    const { world, run } = squad({ ...SEARCH, widen: 1 });
    run(2);
    const before = world.searches[0].places.length;
    let most = before;
    for (let i = 0; i < 60 * 40; i++) {
      run(1);
      most = Math.max(most, world.searches[0]?.places.length ?? 0);
    }
    expect(most).toBeGreaterThan(before);
  });

  it('goes only where there is a way', () => {
    const { world, run, state } = squad(SEARCH, (document) => {
      document.grounds.corner.walls = [{ at: [9.2, 0], size: [0.3, 10] }];
    });
    run(3);
    // The post itself lies behind the wall: what can be walked to from there can't be from here.
    expect(world.searches[0].places.length).toBeGreaterThan(0);
    run(60 * 30);
    expect(['good', 'bad']).toContain(state());
    for (const { x } of world.bodies.slice(1)) expect(x).toBeLessThan(9.2);
  });

  const ground = groundOf(20, 20, [{ x: 8, y: 8, width: 3, height: 1 }]);

  it('has places within its radius, apart from each other, in ring and grid alike', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 17, noNaN: true }),
        fc.double({ min: 3, max: 17, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        fc.boolean(),
        (x, y, spacing, grid) => {
          const places = searchPlaces(ground, 0, x, y, 0, 6, spacing, grid);
          expect(places.length).toBeGreaterThan(0);
          for (let i = 0; i < places.length; i += 2) {
            expect(Math.hypot(places[i] - x, places[i + 1] - y)).toBeLessThanOrEqual(6.6);
            for (let j = 0; j < i; j += 2)
              expect(places[i] === places[j] && places[i + 1] === places[j + 1]).toBe(false);
          }
        },
      ),
    );
  });

  it('gives the nearest free place, but rather one away from where another goes', () => {
    const places = [1, 0, 2, 0, 9, 0];
    expect(choosePlace(places, [PLACE_FREE, PLACE_FREE, PLACE_FREE], 0, 0)).toBe(0);
    expect(choosePlace(places, [PLACE_DONE, PLACE_FREE, PLACE_FREE], 0, 0)).toBe(1);
    expect(choosePlace([0, 1, 0, 0, 3, 0], [7, PLACE_FREE, PLACE_FREE], 1.4, 0)).toBe(2);
    expect(choosePlace(places, [PLACE_DONE, PLACE_DONE, 3], 0, 0)).toBe(-1);
  });
});

describe('places around a target', () => {
  it('are shared out: no two have the same, and each stands at its distance', () => {
    const { world, run } = squad(
      { do: 'surround', target: 'attention.of', distance: 1.4, places: 4 },
      (document) => {
        document.grounds.corner.agents.gleaner.at = [8, 5];
        document.archetypes.keeper.sight = {
          cones: [{ range: 20, halfAngle: 180, gain: 5 }],
          fade: 1,
          grace: 1,
          curious: 0.3,
          certain: 1,
          forgetAfter: 5,
        };
        document.minds.keeper.machine!.states[0].transitions = [];
        document.minds.keeper.machine!.states[0].activity = {
          tree: 'around',
        };
        document.minds.keeper.trees = {
          around: {
            root: {
              repeat: { do: 'surround', target: 'attention.of', distance: 1.4, places: 4 },
            },
          },
        };
        document.minds.keeper.machine!.states.splice(1);
      },
    );
    run(60 * 8);
    expect(world.slots).toHaveLength(3);
    expect(new Set(world.slots.map(({ slot }) => slot)).size).toBe(3);
    const gleaner = world.bodies[0];
    for (const { x, y } of world.bodies.slice(1))
      expect(Math.abs(Math.hypot(x - gleaner.x, y - gleaner.y) - 1.4)).toBeLessThan(0.3);
  });
});

describe('booking', () => {
  it('tells a place free until a mate stands there or is on the way', () => {
    const { run, keepers } = squad({ do: 'moveTo', to: 'self.post', within: 0.2 }, (document) => {
      document.grounds.corner.agents.keeper2.post = undefined;
      document.grounds.corner.agents.keeper3.post = undefined;
    });
    expect(keepers[1].self.isFree(10, 5)).toBe(true);
    run(2);
    expect(keepers[1].self.isFree(10, 5)).toBe(false);
    expect(keepers[0].self.isFree(10, 5)).toBe(true);
    expect(keepers[1].self.isFree(12, 5)).toBe(true);
  });
});

describe('roles', () => {
  it('go to the best in order, as far as slots reach', () => {
    const roles = [
      { slots: 1, commitment: 0 },
      { slots: 0, commitment: 0 },
    ];
    const scores = [
      [0.2, 1],
      [0.9, 1],
      [0.5, NaN],
    ];
    expect(assignRoles(scores, roles, [-1, -1, -1])).toEqual([1, 0, -1]);
  });

  it('are kept while no agent is better by more than the steadiness', () => {
    const roles = [{ slots: 1, commitment: 0.3 }];
    expect(assignRoles([[0.5], [0.7]], roles, [0, -1])).toEqual([0, -1]);
    expect(assignRoles([[0.5], [0.9]], roles, [0, -1])).toEqual([-1, 0]);
  });

  it('never give more than there are slots, and each member one at most', () => {
    const score = fc.oneof(fc.constant(NaN), fc.double({ min: -5, max: 5, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(score, score), { maxLength: 8 }),
        fc.integer({ min: 1, max: 3 }),
        (scores, slots) => {
          const roles = [
            { slots, commitment: 0.1 },
            { slots, commitment: 0.1 },
          ];
          const held = scores.map(() => -1);
          const given = assignRoles(scores, roles, held);
          for (const role of [0, 1])
            expect(given.filter((each) => each === role).length).toBeLessThanOrEqual(slots);
          given.forEach((role, member) => {
            if (role >= 0) expect(scores[member][role]).not.toBeNaN();
          });
          expect(assignRoles(scores, roles, given)).toEqual(given);
        },
      ),
    );
  });

  const withRoles = (roles: SquadDocument['roles']) =>
    squad({ do: 'wait', seconds: 100 }, (document) => {
      document.squads!.rounds.roles = roles;
    });

  it('are given by what each member finds, and minds can ask for them', () => {
    const { run, keepers, entries, world } = withRoles([
      { role: 'press', slots: 1, score: '10 - distance(self.post)' },
      { role: 'hold', score: '1' },
    ]);
    run(20);
    const role = ({ role: index }: (typeof keepers)[number]) => world.statics.program.texts[index];
    expect(keepers.map(role)).toEqual(['hold', 'press', 'hold']);
    expect(entries.filter(({ kind }) => kind === 'role')).toHaveLength(3);
  });

  it('with a wrong score are an error that says where', () => {
    const document = squad({ do: 'wait', seconds: 1 }).world.statics.program;
    expect(document.squads[0].roles).toEqual([]);
    expect(() => withRoles([{ role: 'press', score: 'distance(self.pots)' }])).toThrow(
      /squads\.rounds\.roles\[0\]\.score.*self\.post/s,
    );
  });
});

describe('squad memory', () => {
  const sharing = (reach?: number) => {
    const watched = squad({ do: 'remember', key: 'spot', value: 'self.place' }, (document) => {
      document.minds.keeper.memory = { spot: { type: 'point', scope: 'squad' } };
      document.minds.keeper.machine!.states[0] = {
        id: 'act',
        transitions: [
          {
            to: 'good',
            when: 'self.speed >= 0 && distance(self.post) > 5 && time > 0.5 && !known(spot)',
            do: [{ do: 'remember', key: 'spot', value: 'self.post' }],
          },
        ],
      };
      document.squads!.rounds.reach = reach;
      if (reach === undefined) delete document.squads!.rounds.reach;
      const { agents } = document.grounds.corner;
      agents.keeper2.post = undefined;
      agents.keeper3 = { archetype: 'keeper', at: [16, 7] };
    });
    watched.run(40);
    return watched.keepers.map(({ squadMemory }) => squadMemory[0]);
  };

  it('is one for all, or reaches only those near enough to hear of it', () => {
    expect(sharing()).toEqual([10, 10, 10]);
    expect(sharing(5)).toEqual([10, 10, NaN]);
  });
});

describe('a snapshot in the middle of a search', () => {
  it('goes on as if nothing had been', () => {
    const { world, run } = squad({ ...SEARCH, widen: 1 });
    run(200);
    const other = createWorld(programOf(programDocument()), 9);
    restoreSnapshot(other, structuredClone(takeSnapshot(world)));
    for (let i = 0; i < 300; i++) {
      tick(world);
      tick(other);
    }
    expect(worldHash(other)).toBe(worldHash(world));
  });

  function programDocument(): ProjectDocument {
    let kept: ProjectDocument | null = null;
    squad({ ...SEARCH, widen: 1 }, (document) => {
      kept = document;
    });
    return kept!;
  }
});
