import { describe, expect, it } from 'vitest';
import type { ChoiceDocument, OptionDocument, ProjectDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, programOf, watch } from '../../testing/orchard.fixture.ts';
import { tick } from '../../world/phases/tick.ts';
import { worldHash } from '../../world/handover/snapshot.ts';
import { createWorld } from '../../world/world.ts';

/** Scores that tests set: keys of memory that the options look at. */
const KEYS = ['first', 'second', 'third'] as const;

function option(id: string, more: Partial<OptionDocument> = {}): OptionDocument {
  return { id, does: { do: 'wait', seconds: 600 }, ...more };
}

/** An option whose score is what the key of its name holds. */
function worth(id: (typeof KEYS)[number], more: Partial<OptionDocument> = {}): OptionDocument {
  return option(id, { considerations: [{ input: id }], ...more });
}

function project(
  choice: ChoiceDocument,
  scores: Partial<Record<(typeof KEYS)[number], number>> = {},
): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    memory: {
      ...Object.fromEntries(
        KEYS.map((key) => [key, { type: 'number' as const, default: scores[key] ?? 0 }]),
      ),
      spots: { type: 'list of point' },
    },
  });
  document.minds.keeper.choices = { whatNow: choice };
  document.minds.keeper.activity = { choice: 'whatNow' };
  return document;
}

/** A keeper that chooses, and hands on what it goes by. */
function keeper(
  choice: ChoiceDocument,
  scores: Partial<Record<(typeof KEYS)[number], number>> = {},
  seed?: number,
) {
  return keeperOf(project(choice, scores), seed);
}

function keeperOf(document: ProjectDocument, seed?: number) {
  const watched = watch(document, seed);
  const agent = watched.world.agents.find(({ name }) => name === 'keeper')!;
  const slot = (key: string) => agent.stack!.program.keys.find(({ name }) => name === key)!.slot;
  return {
    ...watched,
    agent,
    set: (key: (typeof KEYS)[number], value: number) => {
      agent.memory[slot(key)] = value;
    },
    fill: (key: string, ...points: [number, number][]) => {
      const at = slot(key);
      agent.memory[at] = points.length;
      points.flat().forEach((value, i) => (agent.memory[at + 1 + i] = value));
    },
    picks: () =>
      watched.entries.flatMap((entry) =>
        entry.kind === 'picked' ? [`${entry.tick} ${entry.option ?? 'nothing'}`] : [],
      ),
    last: () => watched.entries.findLast((entry) => entry.kind === 'picked')!,
  };
}

describe('a choice', () => {
  it('runs the option with the highest score, and turns to another as soon as that is better', () => {
    const { run, set, picks } = keeper(
      { options: [worth('first'), worth('second')] },
      { first: 0.4, second: 0.6 },
    );
    run(10);
    set('first', 0.7);
    run(10);
    expect(picks()).toEqual(['1 second', '11 first']);
  });

  it('weighs only so often, and when what runs has ended', () => {
    const { run, set, picks } = keeper(
      {
        every: 0.5,
        options: [worth('first'), worth('second', { does: { do: 'wait', seconds: 0.2 } })],
      },
      { first: 0.4, second: 0.6 },
    );
    run(5);
    set('first', 0.7);
    // Ends after 12 ticks, which is before the 30 of the interval.
    run(30);
    expect(picks()).toEqual(['1 second', '13 first']);
  });

  it('says who came next and by how much', () => {
    const { run, last } = keeper(
      { options: [worth('first'), worth('second'), worth('third')] },
      { first: 0.25, second: 0.75, third: 0.5 },
    );
    run(1);
    expect(last()).toMatchObject({
      choice: 'whatNow',
      option: 'second',
      score: 0.75,
      next: 'third',
      margin: 0.25,
    });
  });

  it('rests where nothing is worth doing, and tells it once', () => {
    const { run, set, picks } = keeper(
      { minScore: 0.2, options: [worth('first')] },
      { first: 0.2 },
    );
    run(20);
    set('first', 0.21);
    run(1);
    set('first', 0);
    run(5);
    expect(picks()).toEqual(['1 nothing', '21 first', '22 nothing']);
  });

  it('tells that nothing is worth doing also after an option that took no time', () => {
    const { run, set, picks } = keeper(
      { options: [worth('first', { does: { do: 'say', text: 'Hm.' } })] },
      { first: 1 },
    );
    run(1);
    set('first', 0);
    run(10);
    set('first', 1);
    run(1);
    expect(picks()).toEqual(['1 first', '2 nothing', '12 first']);
  });

  it('ends with its option where it is made once, and fails where nothing is worth doing', () => {
    const document = project({ once: true, options: [worth('first')] }, { first: 0 });
    document.minds.keeper.activity = { tree: 'main' };
    document.minds.keeper.trees = {
      main: {
        root: {
          sequence: [
            { succeed: { choice: 'whatNow' } },
            { do: 'remember', key: 'first', value: '1' },
            { do: 'wait', seconds: 1 },
          ],
        },
      },
    };
    document.minds.keeper.choices!.whatNow.options[0].does = { do: 'wait', seconds: 0.5 };
    const { run, entries } = watch(document);
    run(120);
    const picked = entries.flatMap((entry) => (entry.kind === 'picked' ? [entry] : []));
    expect(picked.map((entry) => entry.option)).toEqual([null, 'first']);
    // One second of waiting lies between, and the tree begins again in the decision after that.
    expect(picked[1].tick - picked[0].tick).toBe(61);
  });

  it('does what takes no time once a decision, and picks again in the next', () => {
    const { run, picks } = keeper(
      { every: 1, options: [worth('first', { does: { do: 'say', text: 'Hm.' } })] },
      { first: 1 },
    );
    run(3);
    expect(picks()).toEqual(['1 first', '2 first', '3 first']);
  });
});

describe('who competes', () => {
  it('only the highest rank that has an option', () => {
    const { run, set, picks } = keeper(
      { options: [worth('first'), worth('second', { rank: 2 }), worth('third', { rank: 1 })] },
      { first: 0.9, second: 0, third: 0.1 },
    );
    run(1);
    set('second', 0.01);
    run(1);
    expect(picks()).toEqual(['1 third', '2 second']);
  });

  it('no option whose guard does not hold; one that loses its guard is left at once', () => {
    const { run, set, picks } = keeper(
      {
        every: 10,
        minDuration: 10,
        options: [worth('first', { when: 'third > 0' }), worth('second')],
      },
      { first: 0.9, second: 0.1, third: 1 },
    );
    run(5);
    set('third', 0);
    run(1);
    expect(picks()).toEqual(['1 first', '6 second']);
  });

  it('none that rests', () => {
    const { run, picks } = keeper(
      {
        options: [
          worth('first', { cooldown: 0.5, does: { do: 'wait', seconds: 0.1 } }),
          worth('second'),
        ],
      },
      { first: 0.9, second: 0.1 },
    );
    run(60);
    // It ends at 7, rests for 30 ticks, and is picked again as soon as it may be.
    expect(picks().slice(0, 4)).toEqual(['1 first', '7 second', '37 first', '43 second']);
  });

  it('what runs also after it has turned to a better candidate: cooldown bars a new start only', () => {
    const document = project({
      options: [
        option('visit', {
          cooldown: 5,
          each: { as: 'spot', list: 'spots' },
          // With a positive factor the farther spot is better, else the nearer one.
          considerations: [{ input: 'first * distance(spot) + second', from: 0, to: 100 }],
        }),
        option('idle', { weight: 0.01 }),
      ],
    });
    const kept = keeperOf(document);
    kept.fill('spots', [2, 2], [9, 6]);
    kept.set('first', 1);
    kept.set('second', 50);
    kept.run(2);
    kept.set('first', -1);
    kept.run(20);
    expect(kept.picks()).toEqual(['1 visit', '3 visit']);
    kept.set('second', 0);
    kept.run(1);
    kept.set('second', 50);
    kept.run(400);
    expect(kept.picks().slice(2)).toEqual(['23 idle', '323 visit']);
  });
});

describe('flicker', () => {
  /** Picks in 300 ticks in which now the one, now the other is a little better. */
  const flickering = (more: Partial<ChoiceDocument>) => {
    const kept = keeper(
      { ...more, options: [worth('first'), worth('second')] },
      { first: 0.5, second: 0.5 },
    );
    for (let i = 0; i < 300; i++) {
      kept.set('first', i % 2 === 0 ? 0.501 : 0.499);
      kept.run(1);
    }
    return kept.picks().length;
  };
  it('between scores that cross is stopped by commitment', () => {
    expect(flickering({ commitment: 0.01 })).toBe(1);
    expect(flickering({})).toBe(300);
  });

  it('is stopped by a least time', () => {
    expect(flickering({ minDuration: 1 })).toBeLessThanOrEqual(5);
  });

  it('does not come of equal scores: what runs goes on, and no luck is drawn', () => {
    const { run, picks, agent } = keeper(
      { options: [worth('first'), worth('second')] },
      { first: 0.5, second: 0.5 },
    );
    run(1);
    const stream = JSON.stringify(agent.stream);
    run(300);
    expect(picks()).toHaveLength(1);
    expect(JSON.stringify(agent.stream)).toBe(stream);
  });

  it('commitment gives way to what is clearly better', () => {
    const { run, set, picks } = keeper(
      { commitment: 0.1, options: [worth('first'), worth('second')] },
      { first: 0.5 },
    );
    run(1);
    set('second', 0.59);
    run(1);
    set('second', 0.61);
    run(1);
    expect(picks()).toEqual(['1 first', '3 second']);
  });

  it('ties are told with how many they are, and broken by the agent’s own luck', () => {
    const firsts = [1, 2, 3, 4, 5, 6, 7, 8].map((seed) => {
      const kept = keeper(
        { options: [worth('first'), worth('second'), worth('third')] },
        { first: 0.5, second: 0.5 },
        seed,
      );
      kept.run(1);
      expect(kept.last()).toMatchObject({ ties: 2, margin: 0 });
      return kept.picks()[0];
    });
    expect(new Set(firsts)).toEqual(new Set(['1 first', '1 second']));
  });
});

describe('weighted picks', () => {
  /** Picks of 10,000 decisions. */
  function shares(choice: Partial<ChoiceDocument>): Record<string, number> {
    const kept = keeper(
      {
        pick: 'weighted',
        ...choice,
        options: KEYS.map((key) => worth(key, { does: { do: 'say', text: key } })),
      },
      { first: 0.6, second: 0.3, third: 0.1 },
    );
    kept.run(10_000);
    const counts: Record<string, number> = {};
    for (const entry of kept.entries)
      if (entry.kind === 'picked') counts[entry.option!] = (counts[entry.option!] ?? 0) + 1;
    return counts;
  }

  it('fall by score among those near the best, within three standard errors', () => {
    const counts = shares({ margin: 1 });
    const expected = { first: 0.6, second: 0.3, third: 0.1 };
    for (const [key, p] of Object.entries(expected)) {
      const error = Math.sqrt(10_000 * p * (1 - p));
      expect(Math.abs(counts[key] - 10_000 * p)).toBeLessThan(3 * error);
    }
  });

  it('leave out what is farther from the best than the margin', () => {
    const counts = shares({ margin: 0.35 });
    expect(counts.third).toBeUndefined();
    expect(Math.abs(counts.first / (counts.first + counts.second) - 2 / 3)).toBeLessThan(0.015);
  });
});

describe('what an option is weighed for', () => {
  const chase: OptionDocument = {
    id: 'chase',
    each: { as: 'foe', agents: 'hostile' },
    considerations: [{ input: 'distance(foe)', from: 12, to: 0 }],
    does: { do: 'moveTo', to: 'foe', within: 1 },
  };

  function crowd(choice: ChoiceDocument) {
    const document = project(choice);
    const { agents } = document.grounds.corner;
    agents.second = { archetype: 'gleaner', at: [5, 6] };
    agents.third = { archetype: 'gleaner', at: [9, 3] };
    document.archetypes.gleaner.health = 10;
    document.archetypes.keeper.health = 10;
    return document;
  }

  it('is each agent of that stance that it knows of; the nearest wins, under its own name', () => {
    const { run, entries, world } = watch(crowd({ options: [chase] }));
    run(60);
    const picked = entries.flatMap((entry) =>
      entry.kind === 'picked' && entry.option ? [entry] : [],
    );
    expect(picked.at(-1)).toMatchObject({ option: 'chase', of: 'second', next: 'chase' });
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    expect(keeper.body.vx).toBeGreaterThan(0.5);
  });

  it('is let go at once when it dies', () => {
    const watched = watch(crowd({ every: 5, minDuration: 5, options: [chase] }));
    watched.run(60);
    const second = watched.world.agents.find(({ name }) => name === 'second')!;
    second.life = { ...second.life, health: 0, diedAt: watched.world.tick };
    second.asleep = true;
    const before = watched.entries.length;
    watched.run(1);
    const after = watched.entries.slice(before).find((entry) => entry.kind === 'picked')!;
    expect(after).toMatchObject({ option: 'chase', tick: 61 });
    expect((after as { of: string }).of).not.toBe('second');
  });

  it('can be a place that can be stood at, or an entry of a list', () => {
    const places = watch(
      project({
        options: [
          {
            id: 'goEast',
            each: { as: 'there', places: 16, within: 4 },
            // Higher the farther east: what it could be from there is asked there.
            considerations: [{ input: 'at(there, distance(self.post))', from: 0, to: 6 }],
            does: { do: 'moveTo', to: 'there' },
          },
        ],
      }),
    );
    places.run(1);
    const [picked] = places.entries.filter((entry) => entry.kind === 'picked');
    expect((picked as { of: string }).of).toMatch(/^\(-?[\d.]+, -?[\d.]+\)$/);
    const listed = project({
      options: [
        {
          id: 'visit',
          each: { as: 'spot', list: 'spots' },
          considerations: [{ input: 'distance(spot)', from: 20, to: 0 }],
          does: { do: 'moveTo', to: 'spot' },
        },
        option('fill', {
          rank: -1,
          does: {
            sequence: [
              { do: 'add', key: 'spots', value: 'self.post' },
              { do: 'wait', seconds: 9 },
            ],
          },
        }),
      ],
    });
    const visits = watch(listed);
    visits.run(3);
    expect(
      visits.entries.flatMap((entry) => (entry.kind === 'picked' ? [entry.option] : [])),
    ).toEqual(['fill', 'visit', 'visit']);
  });
});

describe('looking', () => {
  const mixed: ChoiceDocument = {
    every: 0.1,
    commitment: 0.05,
    options: [
      worth('first', { considerations: [{ input: 'first' }, { input: 'second', veto: true }] }),
      {
        id: 'chase',
        each: { as: 'foe', agents: 'hostile' },
        considerations: [
          { input: 'distance(foe)', from: 9, to: 0, curve: { shape: 'power', exponent: 2 } },
          { input: 'at(self.post, light)', curve: { shape: 'step', at: 0 } },
        ],
        does: { do: 'moveTo', to: 'foe', within: 1 },
      },
    ].map((each) => ({
      ...each,
      considerations: each.considerations!.map((one) => ({
        ...one,
        input: one.input.replace('light', 'self.light'),
      })),
    })) as OptionDocument[],
  };

  it('changes nothing: with and without a recorder the run is the same', () => {
    const watched = watch(project(mixed, { first: 0.4, second: 0.5 }));
    const bare = createWorld(programOf(project(mixed, { first: 0.4, second: 0.5 })));
    for (let i = 0; i < 200; i++) {
      watched.run(1);
      tick(bare);
      expect(worldHash(bare)).toBe(worldHash(watched.world));
    }
  });
});
