import { describe, expect, it } from 'vitest';
import type { EachDocument } from '../../model/documents/choice.ts';
import type { MemoryScope, MemoryType, ProjectDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, watch, type Watched } from '../../testing/orchard.fixture.ts';
import { readChoice } from '../../world/readout/choices.ts';
import type { Agent } from '../../world/agents/agent.ts';
import { addToKey, resetKey } from '../memory.ts';
import { MOST_CANDIDATES } from './candidates.ts';

interface Listed {
  type: Extract<MemoryType, `list of ${string}`>;
  scope?: MemoryScope;
}

/** A keeper at (2, 5) that weighs one option for each of something, looking at one input of it. */
function project(each: EachDocument, input: string, list?: Listed): ProjectDocument {
  const document = cornerProject({
    sight: { ...KEEN_SIGHT, cones: [{ range: 30, halfAngle: 180, gain: 9 }] },
    ...(list ? { memory: { list: { ...list, capacity: 100 } } } : {}),
  });
  document.squads = { rounds: { title: 'Rounds' } };
  document.archetypes.keeper.squad = 'rounds';
  document.archetypes.gleaner.health = 5;
  document.minds.keeper.choices = {
    whatNow: {
      options: [
        {
          id: 'visit',
          each,
          considerations: [{ input, from: -100, to: 100 }],
          does: { do: 'wait', seconds: 60 },
        },
      ],
    },
  };
  document.minds.keeper.activity = { choice: 'whatNow' };
  return document;
}

const keeperOf = ({ world }: Watched): Agent => world.agents.find(({ name }) => name === 'keeper')!;

/** Names of what is weighed now. */
function weighed({ world }: Watched): (string | null)[] {
  const readout = readChoice(world, { agent: 'keeper', choice: 'whatNow' })!;
  return readout.options[0].rows.flatMap(({ of, bar }) => (bar === 'noCandidate' ? [] : [of]));
}

const picked = ({ entries }: Watched) =>
  entries.flatMap((entry) => (entry.kind === 'picked' ? [entry.of ?? entry.option] : []));

/** Puts entries into the keeper’s list, whosever memory that lies in. */
function fill(watched: Watched, values: readonly (readonly [number, number?])[]): void {
  const { stack, memory, squadMemory } = keeperOf(watched);
  const key = stack!.program.keys.find(({ name }) => name === 'list')!;
  const cells = { self: memory, squad: squadMemory, world: watched.world.worldMemory }[key.scope];
  resetKey(cells, key);
  for (const [a, b = 0] of values) addToKey(cells, key, a, b, watched.world.tick);
}

describe('entries of a list', () => {
  it.each<MemoryScope>(['self', 'squad', 'world'])('are weighed in their order: %s', (scope) => {
    const watched = watch(
      project({ as: 'one', list: 'list' }, 'one', { type: 'list of number', scope }),
    );
    fill(watched, [[5], [-3], [8]]);
    watched.run(1);
    expect(weighed(watched)).toEqual(['5', '-3', '8']);
    expect(picked(watched)).toEqual(['8']);
  });

  it('are told apart however near they are', () => {
    const points = watch(
      project({ as: 'one', list: 'list' }, '-distance(one)', { type: 'list of point' }),
    );
    fill(points, [
      [6, 5],
      [6.001, 5],
    ]);
    points.run(1);
    expect(weighed(points)).toEqual(['(6, 5)', '(6.001, 5)']);
    const numbers = watch(project({ as: 'one', list: 'list' }, 'one', { type: 'list of number' }));
    fill(numbers, [[0.001], [0.002]]);
    numbers.run(1);
    expect(weighed(numbers)).toEqual(['0.001', '0.002']);
    expect(picked(numbers)).toEqual(['0.002']);
  });

  it('that are points are picked by both coordinates', () => {
    const watched = watch(
      project({ as: 'one', list: 'list' }, '-distance(one)', { type: 'list of point' }),
    );
    fill(watched, [
      [6, 5],
      [2, 7],
      [6, 8],
    ]);
    watched.run(1);
    expect(weighed(watched)).toEqual(['(6, 5)', '(2, 7)', '(6, 8)']);
    expect(picked(watched)).toEqual(['(2, 7)']);
  });

  it('are let go when they leave the list, and kept while they are in it, wherever', () => {
    const watched = watch(
      project({ as: 'one', list: 'list' }, '-distance(one)', { type: 'list of point' }),
    );
    fill(watched, [[2, 7]]);
    watched.run(1);
    // The same in another place of the list.
    fill(watched, [
      [9, 9],
      [2, 7],
    ]);
    watched.run(1);
    expect(picked(watched)).toEqual(['(2, 7)']);
    // One coordinate is the same, but not both.
    fill(watched, [
      [2, 8],
      [3, 7],
    ]);
    watched.run(1);
    expect(picked(watched)).toEqual(['(2, 7)', '(3, 7)']);
    fill(watched, []);
    watched.run(1);
    expect(picked(watched)).toEqual(['(2, 7)', '(3, 7)', null]);
  });

  it('that are agents are let go when those die', () => {
    const document = project({ as: 'one', list: 'list' }, '1', { type: 'list of agent' });
    document.minds.keeper.choices!.whatNow.every = 60;
    const watched = watch(document);
    const { agents } = watched.world;
    const at = agents.findIndex(({ name }) => name === 'gleaner');
    fill(watched, [[at]]);
    watched.run(2);
    expect(picked(watched)).toEqual(['gleaner']);
    agents[at].life = { ...agents[at].life, health: 0, diedAt: watched.world.tick };
    watched.run(1);
    expect(picked(watched)).toEqual(['gleaner', null]);
  });

  it('are the nearest of more than can be weighed, where they are places, in the order of the list', () => {
    const watched = watch(
      project({ as: 'one', list: 'list' }, '-distance(one)', { type: 'list of point' }),
    );
    // The farthest first, and the nearest in the middle.
    const metres = Array.from({ length: MOST_CANDIDATES + 3 }, (_, i) => 12 - i * 0.1);
    metres.splice(20, 0, 0.5);
    fill(
      watched,
      metres.map((away) => [2 + away, 5]),
    );
    watched.run(1);
    const kept = weighed(watched);
    expect(kept).toHaveLength(MOST_CANDIDATES);
    expect(kept[0]).toBe('(13.6, 5)');
    expect(kept[16]).toBe('(2.5, 5)');
    expect(kept.at(-1)).toBe(`(${(2 + metres.at(-1)!).toFixed(1)}, 5)`);
    expect(picked(watched)).toEqual(['(2.5, 5)']);
  });

  it('are the oldest of more than can be weighed, where they are no places', () => {
    const watched = watch(project({ as: 'one', list: 'list' }, 'one', { type: 'list of number' }));
    fill(
      watched,
      Array.from({ length: MOST_CANDIDATES + 5 }, (_, i) => [i]),
    );
    watched.run(1);
    expect(weighed(watched)).toEqual(Array.from({ length: MOST_CANDIDATES }, (_, i) => String(i)));
  });

  it('are all weighed where they are just as many as can be', () => {
    const watched = watch(
      project({ as: 'one', list: 'list' }, '-distance(one)', { type: 'list of point' }),
    );
    fill(
      watched,
      Array.from({ length: MOST_CANDIDATES }, (_, i) => [3 + i * 0.1, 5]),
    );
    watched.run(1);
    expect(weighed(watched)).toHaveLength(MOST_CANDIDATES);
  });

  it('of which as many are equally near as go beyond the limit are the first of those', () => {
    const watched = watch(
      project({ as: 'one', list: 'list' }, '-distance(one)', { type: 'list of point' }),
    );
    fill(
      watched,
      Array.from({ length: MOST_CANDIDATES + 10 }, (_, i) => [2, i % 2 === 0 ? 7 : 3]),
    );
    watched.run(1);
    const kept = weighed(watched);
    expect(kept).toHaveLength(MOST_CANDIDATES);
    expect(kept.slice(0, 3)).toEqual(['(2, 7)', '(2, 3)', '(2, 7)']);
  });
});

describe('things', () => {
  const withBaskets = (places: readonly [number, number][]) => {
    const document = project({ as: 'one', things: 'basket' }, '-distance(cheat.place(one))');
    document.grounds.corner.things = Object.fromEntries([
      ['comb', { kind: 'comb', at: [2.2, 5] as [number, number] }],
      ...places.map((at, i) => [`basket${10 + i}`, { at }] as const),
    ]);

    return watch(document);
  };

  it('are those of the kind that lie about, and no others', () => {
    const watched = withBaskets([
      [4, 5],
      [3, 5],
      [6, 5],
    ]);
    watched.run(1);
    expect(weighed(watched)).toEqual(['basket10', 'basket11', 'basket12']);
    expect(picked(watched)).toEqual(['basket11']);
  });

  it('are let go when another agent takes them', () => {
    const watched = withBaskets([
      [8.3, 5],
      [12, 5],
    ]);
    watched.run(1);
    expect(picked(watched)).toEqual(['basket10']);
    watched.run(2, [{ agent: 'gleaner', x: 0, y: 0, gait: null, act: 'pickUp' }]);
    expect(weighed(watched)).toEqual(['basket11']);
    expect(picked(watched)).toEqual(['basket10', 'basket11']);
  });

  it('are the nearest of more than can be weighed', () => {
    const many = MOST_CANDIDATES + 6;
    const watched = withBaskets(Array.from({ length: many }, (_, i) => [19 - i * 0.2, 5]));
    watched.run(1);
    expect(weighed(watched)).toEqual(
      Array.from({ length: MOST_CANDIDATES }, (_, i) => `basket${i + 16}`),
    );
    expect(picked(watched)).toEqual([`basket${many + 9}`]);
  });
});

describe('agents', () => {
  it('are those of the stance that it knows of, not those of another', () => {
    const document = project({ as: 'one', agents: 'friendly' }, '-distance(one)');
    document.grounds.corner.agents!.keeper2 = { archetype: 'keeper', at: [4, 5] };
    const friends = watch(document);
    friends.run(30);
    expect(weighed(friends)).toEqual([]);
    const hostile = structuredClone(document);
    hostile.minds.keeper.choices!.whatNow.options[0].each = { as: 'one', agents: 'hostile' };
    const foes = watch(hostile);
    expect(weighed(foes)).toEqual([]);
    foes.run(30);
    expect(weighed(foes)).toEqual(['gleaner']);
  });

  it('are no candidates any more once they are dead', () => {
    const watched = watch(project({ as: 'one', agents: 'hostile' }, '-distance(one)'));
    watched.run(30);
    const gleaner = watched.world.agents.find(({ name }) => name === 'gleaner')!;
    gleaner.life = { ...gleaner.life, health: 0, diedAt: watched.world.tick };
    watched.run(1);
    expect(weighed(watched)).toEqual([]);
    expect(picked(watched).at(-1)).toBeNull();
  });

  it('are let go once it no longer knows where they were', () => {
    const document = project({ as: 'one', agents: 'hostile' }, '-distance(one)');
    document.archetypes.keeper.sight = {
      ...document.archetypes.keeper.sight!,
      cones: [{ range: 30, halfAngle: 30, gain: 9 }],
      fade: 5,
      grace: 0.1,
      forgetAfter: 0.5,
    };
    document.minds.keeper.choices!.whatNow.every = 600;
    delete document.minds.keeper.activity;
    document.minds.keeper.machine = {
      initial: 'looks',
      states: [
        { id: 'looks', transitions: [{ to: 'weighs', after: 0.5 }] },
        { id: 'weighs', activity: { choice: 'whatNow' } },
      ],
    };
    const watched = watch(document);
    watched.run(60);
    expect(picked(watched)).toEqual(['gleaner']);
    // It turns up behind the keeper, where it is not seen.
    watched.run(1, [{ agent: 'gleaner', x: 0, y: 0, gait: null, place: [0.6, 5] }]);
    watched.run(20);
    expect(picked(watched)).toEqual(['gleaner']);
    watched.run(60);
    expect(picked(watched)).toEqual(['gleaner', null]);
  });
});

describe('places', () => {
  const around = (middle: string) => {
    const document = project(
      { as: 'one', places: 12, within: 2, around: middle },
      'at(one, distance(self.post))',
    );
    document.grounds.corner.walls = [{ at: [9, 5.5], size: [2, 1.5] }];
    document.grounds.corner.posts = { stump: { at: [10, 8] } };
    document.grounds.corner.agents!.keeper = { archetype: 'keeper', at: [2, 5], post: 'stump' };
    return watch(document);
  };
  const points = (watched: Watched) =>
    weighed(watched).map((text) => text!.slice(1, -1).split(', ').map(Number));

  it('lie within their radius around the middle, where an agent can stand', () => {
    const watched = around('self.post');
    watched.run(1);
    const found = points(watched);
    expect(found.length).toBeGreaterThan(6);
    expect(found.length).toBeLessThan(12);
    for (const [x, y] of found) {
      expect(Math.hypot(x - 10, y - 8)).toBeLessThanOrEqual(2.01);
      const [beside, below] = [Math.abs(x - 10) - 1, Math.abs(y - 6.25) - 0.75];
      const away = Math.hypot(Math.max(0, beside), Math.max(0, below));
      expect(away, `(${x}, ${y}) is too near the wall`).toBeGreaterThan(0.29);
    }
    const [sumX, sumY] = found.reduce(([a, b], [x, y]) => [a + x, b + y], [0, 0]);
    expect(Math.hypot(sumX / found.length - 10, sumY / found.length - 8)).toBeLessThan(1.2);
  });

  it('are none around what is nothing', () => {
    const watched = around('heard.place');
    watched.run(1);
    expect(points(watched)).toEqual([]);
    expect(picked(watched)).toEqual([null]);
  });
});
