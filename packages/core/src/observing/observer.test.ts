import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { limitsOf } from '../model/documents/observation-limits.ts';
import type { ObservationLimitsDocument } from '../model/documents/observation-limits.ts';
import type {
  ActionDocument,
  ChoiceDocument,
  ProjectDocument,
  StateDocument,
} from '../model/documents.ts';
import { duel } from '../world/mechanics/fighting/fighting.fixture.ts';
import { advance, applyEdit, createRun, seek, type Run } from '../ledger/run.ts';
import { cornerProject, KEEN_SIGHT, programOf } from '../testing/orchard.fixture.ts';
import { nightWatch } from '../testing/demo.fixture.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import type { Input } from '../world/program/program.ts';
import type { ObservationKind } from './kinds.ts';
import {
  createObserver,
  observerFrom,
  observe,
  observationsOf,
  type Observer,
} from './observer.ts';

const always = () => true;

interface Scene {
  document: ProjectDocument;
  seconds: number;
  inputs?: Record<number, Input>;
  limits?: ObservationLimitsDocument;
}

function observed({ document, seconds, inputs = {}, limits }: Scene): [Observer, Run] {
  const run = createRun(programOf(document), 1, 3);
  const observation = createObserver(limitsOf(limits));
  for (let i = 1; i <= seconds * 60; i++) {
    advance(run, inputs[i] ? [inputs[i]] : []);
    observe(observation, run, always);
  }
  return [observation, run];
}

const noticed = (scene: Scene) => observationsOf(observed(scene)[0]);
const kindsOf = (scene: Scene): ObservationKind[] => noticed(scene).map(({ kind }) => kind);

const steer = (x: number, y: number): Input => ({ agent: 'gleaner', x, y, gait: null });

/** A keeper whose mind is these states, the first of them first. */
function keeper(
  states: StateDocument[],
  {
    memory,
    change = () => {},
  }: Pick<Parameters<typeof cornerProject>[0], 'memory'> & {
    change?: (document: ProjectDocument) => void;
  } = {},
): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    machine: { initial: states[0].id, states },
    ...(memory && { memory }),
  });
  change(document);
  return document;
}

/** Watches, and turns away where `back` comes true. */
const switching = (there: string, back: string) =>
  keeper([
    { id: 'calm', title: 'Calm', transitions: [{ to: 'roused', when: there, after: 0.3 }] },
    { id: 'roused', title: 'Roused', transitions: [{ to: 'calm', when: back, after: 0.3 }] },
  ]);

describe('flicker', () => {
  const swing = (there: string, back: string): Scene => ({
    document: switching(there, back),
    seconds: 4,
  });

  it('is noticed with both guards, what they measured and the gap that would do', () => {
    const [seen] = noticed(swing('distance(attention.of) > 5', 'distance(attention.of) > 5.5'));
    expect(seen).toMatchObject({
      kind: 'flicker',
      agent: 'keeper',
      place: { mind: 'keeper' },
    });
    expect(seen.message).toContain('between Calm and Roused');
    expect(seen.message).toContain('“distance(attention.of) > 5”');
    expect(seen.message).toContain('distance(attention.of) was 6');
  });

  it('is none where a time lies between, or where it goes there once', () => {
    expect(kindsOf(swing('distance(attention.of) > 5', 'distance(attention.of) < 5'))).toEqual([]);
    const slow = keeper([
      { id: 'calm', transitions: [{ to: 'roused', after: 1.1 }] },
      { id: 'roused', transitions: [{ to: 'calm', after: 1.1 }] },
    ]);
    expect(kindsOf({ document: slow, seconds: 8 })).toEqual([]);
  });

  it('is counted by the limits of the project', () => {
    const slow = keeper([
      { id: 'calm', transitions: [{ to: 'roused', after: 1.1 }] },
      { id: 'roused', transitions: [{ to: 'calm', after: 1.1 }] },
    ]);
    expect(
      kindsOf({ document: slow, seconds: 8, limits: { flickers: 3, flickerWithin: 6 } }),
    ).toEqual(['flicker']);
  });
});

describe('a choice that flickers', () => {
  /** Two options of which now the one, now the other is a little better, every fifth of a second. */
  const swinging = (more: Partial<ChoiceDocument> = {}): Scene => {
    const document = keeper([{ id: 'act', activity: { choice: 'what' } }]);
    document.minds.keeper.choices = {
      what: {
        title: 'What now?',
        ...more,
        options: [
          {
            id: 'chase',
            title: 'Chase',
            considerations: [{ input: 'clamp(abs(time * 5 - floor(time * 5) - 0.5), 0, 1)' }],
            does: { do: 'wait', seconds: 9 },
          },
          {
            id: 'comb',
            title: 'Comb',
            considerations: [{ input: '0.25' }],
            does: { do: 'wait', seconds: 9 },
          },
        ],
      },
    };
    return { document, seconds: 4 };
  };

  it('is noticed as states are, with the commitment that would do', () => {
    const [seen] = noticed(swinging());
    expect(seen).toMatchObject({
      kind: 'flicker',
      agent: 'keeper',
      place: { mind: 'keeper', state: 'act' },
    });
    const said =
      /^What now\? goes back and forth between (?:Chase and Comb|Comb and Chase), every ([\d.]+) s or sooner\. Give it a commitment of at least 0\.\d+, or a least time of more than \1 s\.$/;
    expect(seen.message).toMatch(said);
    // It turns twice in a fifth of a second.
    expect(Number(said.exec(seen.message)![1])).toBeLessThan(0.2);
    expect(kindsOf(swinging({ commitment: 0.3 }))).toEqual([]);
    expect(kindsOf(swinging({ minDuration: 2 }))).toEqual([]);
  });
});

describe('a move that nearly hits', () => {
  const fighting = (reach: number): Scene => {
    const bat: ActionDocument = { do: 'strike', move: 'bat', at: 'attention.of' };
    const document = duel({
      moves: { bat: { title: 'Bat', windUp: 0.1, active: 0.1, recovery: 0.3, reach, damage: 1 } },
      keeper: { repeat: bat },
      away: 1.7,
    });
    return { document, seconds: 6 };
  };

  it('by the same few centimetres, again and again, is noticed with how many', () => {
    const seen = noticed(fighting(1)).find(({ kind }) => kind === 'nearMiss');
    // Two bodies of 0.3 m stand 1.7 m apart.
    expect(seen?.message).toBe(
      'Bat misses warden by 0.10 m again and again. Give it that much more reach, or begin it nearer.',
    );
    for (const reach of [1.15, 0.5])
      expect(kindsOf(fighting(reach)).includes('nearMiss')).toBe(false);
  });
});

it('stuck: there is no way; none where there is one', () => {
  const to = (x: number) =>
    keeper([{ id: 'go', activity: { do: 'moveTo', to: 'self.post', within: 0.2 } }], {
      change: ({ grounds }) => {
        grounds.corner.walls = [{ at: [15, 0], size: [0.5, 10] }];
        grounds.corner.agents.keeper.post = 'there';
        grounds.corner.posts = { there: { at: [x, 5] } };
      },
    });
  expect(kindsOf({ document: to(18), seconds: 3 })).toContain('stuck');
  expect(kindsOf({ document: to(12), seconds: 3 })).toEqual([]);
});

describe('crowding', () => {
  const three = (goals: number): Scene => ({
    document: keeper([{ id: 'go', activity: { do: 'moveTo', to: 'self.post', within: 0.05 } }], {
      change: ({ grounds }) => {
        const { agents } = grounds.corner;
        const post = 'there';
        grounds.corner.posts = { there: { at: [12, 5] } };
        agents.keeper.post = post;
        for (let i = 0; i < goals; i++)
          agents[`keeper${i + 2}`] = { archetype: 'keeper', at: [9, 3 + i * 2], post };
      },
    }),
    seconds: 12,
    limits: { crowdsFor: 1 },
  });
  it('is noticed of three that press on each other, and not of two', () => {
    expect(kindsOf(three(3))).toContain('crowding');
    expect(kindsOf(three(1))).not.toContain('crowding');
  });
});

it('jitter: it turns back and forth on the spot; none where it walks', () => {
  const shuttle = (seconds: number) =>
    keeper(
      [
        {
          id: 'left',
          activity: { do: 'moveTo', to: 'self.post', within: 0.05 },
          transitions: [{ to: 'right', after: seconds }],
        },
        {
          id: 'right',
          activity: { do: 'moveTo', to: 'attention.of', within: 0.05 },
          transitions: [{ to: 'left', after: seconds }],
        },
      ],
      {
        change: ({ grounds }) => {
          grounds.corner.agents.keeper.at = [4, 5];
          grounds.corner.agents.keeper.post = 'there';
          grounds.corner.posts = { there: { at: [2, 5] } };
        },
      },
    );
  const limits = { flickers: 1000, jitters: 4 };
  expect(kindsOf({ document: shuttle(0.3), seconds: 6, limits })).toContain('jitter');
  expect(kindsOf({ document: shuttle(3), seconds: 6, limits })).toEqual([]);
});

it('ties: options that score the same; none where they differ', () => {
  const choosing = (weight: number) => {
    const document = cornerProject({ sight: KEEN_SIGHT });
    document.minds.keeper.activity = { choice: 'what' };
    const wait = { do: 'wait', seconds: 0.4 };
    document.minds.keeper.choices = {
      what: {
        title: 'What?',
        options: [
          { id: 'one', title: 'One', weight: 0.5, does: wait },
          { id: 'two', title: 'Two', weight, does: wait },
          {
            id: 'rest',
            title: 'Rest',
            weight: 0.9,
            cooldown: 0.5,
            does: { do: 'wait', seconds: 0.1 },
          },
        ],
      },
    };
    return document;
  };
  expect(kindsOf({ document: choosing(0.5), seconds: 8 })).toEqual(['tie']);
  expect(kindsOf({ document: choosing(0.4), seconds: 8 })).toEqual([]);
});

describe('taken over', () => {
  const both = (second: 'legs' | 'eyes') => {
    const document = keeper([
      {
        id: 'go',
        activity: { do: 'moveTo', to: 'attention.of', within: 0.2 },
        transitions: [{ to: 'go', on: 'done' }],
      },
    ]);
    document.minds.other = {
      title: 'Other',
      cadence: { every: 0.5 },
      machine: {
        initial: 'pull',
        states: [
          {
            id: 'pull',
            activity:
              second === 'legs'
                ? { do: 'moveTo', to: 'self.post', within: 0.2 }
                : { do: 'face', toward: 'self.post' },
            transitions: [{ to: 'pull', after: 0.5 }],
          },
        ],
      },
    };
    Object.assign(document.archetypes.keeper, { minds: ['keeper', 'other'] });
    delete document.archetypes.keeper.mind;
    return document;
  };
  it('is noticed of two minds that pull on the same legs', () => {
    expect(kindsOf({ document: both('legs'), seconds: 8 })).toContain('overwritten');
    expect(kindsOf({ document: both('eyes'), seconds: 8 })).not.toContain('overwritten');
  });

  it('is noticed of a key that two write in one tick', () => {
    const squad = (count: number) =>
      keeper(
        [{ id: 'a', entry: [{ do: 'remember', key: 'mark', value: 'distance(self.post)' }] }],
        {
          memory: { mark: { type: 'number', scope: 'squad' } },
          change: (document) => {
            document.squads = { watch: { title: 'Watch' } };
            const { agents } = document.grounds.corner;
            agents.keeper.squad = 'watch';
            if (count > 1) agents.keeper2 = { archetype: 'keeper', at: [3, 3], squad: 'watch' };
          },
        },
      );
    expect(kindsOf({ document: squad(2), seconds: 1 })).toContain('overwritten');
    expect(kindsOf({ document: squad(1), seconds: 1 })).toEqual([]);
  });
});

it('starved: nothing is decided for long; none for a moment', () => {
  const waits = (seconds: number) =>
    keeper([
      {
        id: 'hold',
        activity: { do: 'wait', seconds, uninterrupted: true },
        transitions: [
          { to: 'after', on: 'sight' },
          { to: 'after', on: 'done' },
        ],
      },
      { id: 'after' },
    ]);
  expect(kindsOf({ document: waits(6), seconds: 8 })).toEqual(['starved']);
  expect(kindsOf({ document: waits(2), seconds: 8 })).toEqual([]);
});

it('endless steps: states lead on to each other in one decision', () => {
  const circle = (guard: string) =>
    keeper([
      { id: 'a', transitions: [{ to: 'b', when: 'time >= 0' }] },
      { id: 'b', transitions: [{ to: 'a', when: guard }] },
    ]);
  const limits = { flickers: 1000 };
  expect(kindsOf({ document: circle('time >= 0'), seconds: 1, limits })).toContain('endless');
  expect(kindsOf({ document: circle('time > 100'), seconds: 1, limits })).toEqual([]);
});

it('nothing to remember: a key that is to be what is divided by nothing', () => {
  const divides = (by: string) =>
    keeper([{ id: 'a', entry: [{ do: 'remember', key: 'share', value: `1 / (${by})` }] }], {
      memory: { share: { type: 'number', default: 0 } },
    });
  expect(kindsOf({ document: divides('time - time'), seconds: 1 })).toEqual(['notFinite']);
  expect(kindsOf({ document: divides('time + 1'), seconds: 1 })).toEqual([]);
  const [{ message, place }] = noticed({ document: divides('time - time'), seconds: 1 });
  expect(message).toMatch(/^share was to be written in a, and the value was nothing/);
  expect(place).toMatchObject({ mind: 'keeper', state: 'a' });
});

it('target gone: who is remembered is dead; none where it lives, or is forgotten', () => {
  const hunts = (health: number, forgetAfter?: number): Scene => ({
    document: keeper(
      [
        {
          id: 'calm',
          transitions: [
            {
              to: 'after',
              when: 'attention.strength > 0.5',
              do: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
            },
          ],
        },
        { id: 'after' },
      ],
      {
        memory: { quarry: { type: 'agent', ...(forgetAfter && { forgetAfter }) } },
        change: (document) => {
          document.archetypes.gleaner.health = health;
          document.grounds.corner.things = {
            stone: { kind: 'stone', at: [8.4, 5], damage: 40 },
          };
          document.archetypes.keeper.health = 100;
        },
      },
    ),
    seconds: 8,
    limits: { goneFor: 1 },
  });
  const dies = (scene: Scene) => {
    const run = createRun(programOf(scene.document), 1, 3);
    const observation = createObserver(limitsOf(scene.limits));
    for (let i = 1; i <= scene.seconds * 60; i++) {
      advance(run);
      const gleaner = run.world.agents.find(({ name }) => name === 'gleaner')!;
      if (i === 120 && scene.document.archetypes.gleaner.health === 1) gleaner.life.diedAt = i;
      // Looked at as it goes: what was done to it by hand no replay would make again.
      observe(observation, run, always);
    }
    return observationsOf(observation).map(({ kind }) => kind);
  };
  expect(dies(hunts(1))).toEqual(['targetGone']);
  expect(dies(hunts(2))).toEqual([]);
  expect(dies(hunts(1, 1))).toEqual([]);
});

it('fires again and again: a rule on a level; none on the edge', () => {
  const rule = (edge?: true): Scene => {
    const document = cornerProject({
      sight: KEEN_SIGHT,
    });
    Object.assign(document.minds.keeper, {
      activity: { rules: 'all' },
      rules: {
        all: {
          rows: [
            {
              when: 'attention.strength > 0.5',
              ...(edge && { edge }),
              do: [{ do: 'say', text: 'Who is there?' }],
            },
          ],
        },
      },
    });
    return { document, seconds: 3 };
  };
  expect(kindsOf(rule())).toEqual(['repeated']);
  expect(kindsOf(rule(true))).toEqual([]);
});

it('waits for what does not come: an event no agent raises any more; none where time ends it too', () => {
  const waits = (transitions: StateDocument['transitions']): Scene => ({
    document: keeper([
      { id: 'begin', transitions: [{ to: 'wait', after: 1 }] },
      { id: 'wait', title: 'Wait', transitions },
      {
        id: 'ring',
        entry: [{ do: 'raise', event: 'bell' }],
        transitions: [{ to: 'wait', after: 1 }],
      },
    ]),
    seconds: 8,
    limits: { waitsFor: 5 },
  });
  expect(kindsOf(waits([{ to: 'ring', on: 'bell' }]))).toEqual(['waiting']);
  expect(kindsOf(waits([{ to: 'ring', on: 'hearing' }]))).toEqual([]);
  expect(
    kindsOf(
      waits([
        { to: 'ring', on: 'bell' },
        { to: 'ring', after: 30 },
      ]),
    ),
  ).toEqual([]);
});

it('an old goal: it walks to a remembered place while it attends to another', () => {
  const walks = (transitions: StateDocument['transitions']): Scene => ({
    document: keeper(
      [
        {
          id: 'go',
          entry: [{ do: 'remember', key: 'place', value: 'self.post' }],
          activity: { do: 'moveTo', to: 'place', within: 0.3 },
          transitions,
        },
        { id: 'look', activity: { do: 'moveTo', to: 'attention.of', within: 1 } },
      ],
      {
        memory: { place: { type: 'point' } },
        change: ({ grounds }) => {
          grounds.corner.agents.keeper.post = 'there';
          grounds.corner.posts = { there: { at: [18, 5] } };
          grounds.corner.agents.gleaner.at = [10, 7];
        },
      },
    ),
    seconds: 8,
  });
  expect(kindsOf(walks([]))).toEqual(['oldGoal']);
  expect(kindsOf(walks([{ to: 'look', when: 'attention.strength > 0.6' }]))).toEqual([]);
});

it('tells of a state that stays after what it does has ended, once each time, and of none that goes on', () => {
  const scene = (
    does: number | ActionDocument,
    transitions: StateDocument['transitions'],
  ): Scene => {
    const activity = typeof does === 'number' ? { tree: 'stands' } : does;
    const wait = { do: 'wait', seconds: typeof does === 'number' ? does : 1 };
    const change = ({ minds }: ProjectDocument) => {
      minds.keeper.trees = { stands: { root: { sequence: [wait, wait] } } };
    };
    return {
      document: keeper([{ id: 'stand', title: 'Stand', activity, transitions }, { id: 'rest' }], {
        change,
      }),
      seconds: 8,
    };
  };
  const away = [{ to: 'rest', when: 'time > 100' }];
  expect(noticed(scene(0.5, away))).toMatchObject([
    {
      kind: 'ended',
      agent: 'keeper',
      message: 'What Stand does succeeded 5 s ago; it is still in Stand and does nothing there.',
      place: { mind: 'keeper', state: 'stand' },
      ticks: [expect.closeTo(360, -1)],
    },
  ]);
  expect(noticed(scene(20, away))).toEqual([]);
  expect(noticed(scene(0.5, [{ to: 'rest', on: 'done' }]))).toEqual([]);
  expect(noticed(scene(0.5, [])), 'where nothing leads out, the file has a finding').toEqual([]);
  // An action that went well, such as going to a place, may be followed by waiting there.
  expect(noticed(scene({ do: 'wait', seconds: 0.5 }, away))).toEqual([]);
  const lost: ActionDocument = { do: 'followRoute', route: 'self.route' };
  expect(noticed(scene(lost, away))).toMatchObject([{ kind: 'ended' }]);
});

describe('a run that is watched', () => {
  const night = () => programOf(nightWatch());

  it('is not changed by it, and comes to the same whether it is watched as it goes or afterwards', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            at: fc.integer({ min: 1, max: 500 }),
            x: fc.integer({ min: -1, max: 1 }),
            y: fc.integer({ min: -1, max: 1 }),
          }),
          { maxLength: 6 },
        ),
        (turns) => {
          const program = night();
          const plain = createRun(program, 1, 7);
          const watched = createRun(program, 1, 7);
          const asItGoes = createObserver();
          for (let i = 1; i <= 500; i++) {
            const inputs = turns
              .filter(({ at }) => at === i)
              .map(({ x, y }): Input => ({ agent: 'gleaner', x, y, gait: 'run' }));
            advance(plain, inputs);
            advance(watched, inputs);
            observe(asItGoes, watched, always);
          }
          expect(worldHash(watched.world)).toBe(worldHash(plain.world));
          const afterwards = createObserver();
          observe(afterwards, plain, always);
          expect(observationsOf(afterwards)).toEqual(observationsOf(asItGoes));
        },
      ),
      { numRuns: 6 },
    );
  });

  it('is looked at piece by piece where there is little time', () => {
    const document = switching('distance(attention.of) > 5', 'distance(attention.of) > 5.5');
    const [whole, run] = observed({ document, seconds: 5 });
    const pieces = createObserver();
    let looks = 0;
    while (
      !observe(pieces, run, () => {
        looks++;
        return looks % 40 !== 0;
      })
    );
    expect(looks).toBeGreaterThan(200);
    expect(observationsOf(pieces)).toEqual(observationsOf(whole));
  });

  it('forgets what came after where the run takes another way, and goes on from there', () => {
    const document = switching('distance(attention.of) > 5', 'distance(attention.of) > 5.5');
    const [observation, run] = observed({ document, seconds: 6 });
    const before = observationsOf(observation)[0].ticks;
    seek(run, 200);
    const onward = observerFrom(observation, 200);
    expect(observationsOf(onward)[0].ticks).toEqual(before.filter((tick) => tick <= 200));
    expect(observationsOf(observation)[0].ticks).toEqual(before);
    for (let i = 0; i < 160; i++) {
      advance(run, i === 0 ? [steer(1, 0)] : []);
      observe(onward, run, always);
    }
    const again = createObserver();
    observe(again, run, always);
    expect(observationsOf(again)).toEqual(observationsOf(onward));
  });

  it('goes on through an edit', () => {
    const document = switching('distance(attention.of) > 5', 'distance(attention.of) > 5.5');
    const [observation, run] = observed({ document, seconds: 3 });
    const count = observationsOf(observation)[0].ticks.length;
    applyEdit(run, programOf(switching('time > 100', 'time > 100')), 2);
    for (let i = 0; i < 200; i++) {
      advance(run);
      observe(observation, run, always);
    }
    expect(observationsOf(observation)[0].ticks).toHaveLength(count);
  });
});
