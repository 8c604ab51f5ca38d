import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import type {
  ActivityDocument,
  ProjectDocument,
  TransitionDocument,
} from '../../model/documents.ts';
import { readMind } from '../../world/readout/readout.ts';
import { worldHash } from '../../world/handover/snapshot.ts';
import { advance, applyEdit, createRun, revisit, RUN_LIMITS, seek } from '../run.ts';
import { explanationLines, QuestionError, type Question } from './statement.ts';
import { find, ran } from './statements.fixture.ts';
import { whyNotNamed } from './why-not.ts';
import { why } from './why.ts';

/** Sees the gleaner 6 m off: awareness rises by 1.28 a second. It comes at certainty, but never gets near enough to grab. */
const program = programOf(
  cornerProject({
    sight: KEEN_SIGHT,
    memory: { quarry: { type: 'agent' } },
    machine: {
      initial: 'stand',
      states: [
        {
          id: 'stand',
          title: 'Stand',
          transitions: [{ to: 'peer', when: 'attention.strength > 0.5' }],
        },
        {
          id: 'peer',
          title: 'Peer',
          activity: { do: 'wait', seconds: 0.5 },
          transitions: [{ to: 'come', on: 'done' }],
        },
        {
          id: 'come',
          title: 'Come',
          entry: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
          activity: { do: 'moveTo', to: 'quarry', within: 2 },
          transitions: [
            { to: 'grab', when: 'sees(quarry) && distance(quarry) < 1.5' },
            { to: 'rest', when: 'distance(quarry) < 3', for: 60 },
          ],
        },
        { id: 'grab', title: 'Grab' },
        { id: 'rest', title: 'Rest' },
        { id: 'island', title: 'Island', transitions: [{ to: 'stand', after: 1 }] },
      ],
    },
  }),
);

const run = ran(program);
const at = (tick: number): Question => ({ run, agent: 'keeper', tick });

describe('why', () => {
  it('goes back from the state through transitions, values, events and percepts to the beginning', () => {
    const answer = why(at(200));
    expect(answer).toMatchObject({ statement: 'keeper is in Come', holds: true });
    const done = find(answer, 'transition 1 of Peer: on done.success')!;
    expect(done.since).toBe(answer.since);
    expect(find(done, 'wait in Peer ended in success')!.since).toBe(done.since);
    const seen = find(answer, 'transition 1 of Stand')!;
    expect(seen.values).toEqual([{ part: 'attention.strength', value: '0.51' }]);
    expect(find(seen, 'sight of gleaner: curious')!.since).toBe(15);
    expect(find(seen, 'the run began there')!.since).toBe(1);
    // 0.5 / 1.28 s = 23.4 ticks, then half a second of peering.
    expect([seen.since, done.since]).toEqual([24, 54]);
  });

  it('is the same whenever it is asked', () => {
    expect(why(at(200))).toEqual(why(at(200)));
  });
});

describe('why not', () => {
  it('names what would have to hold, what does not, since when, and the nearest miss', () => {
    const answer = whyNotNamed(at(300), 'grab');
    expect(answer.holds).toBe(false);
    expect(find(answer, 'it is in Come')).toMatchObject({ holds: true, since: 54 });
    expect(find(answer, 'sees(quarry)')).toMatchObject({ holds: true });
    const near = find(answer, 'distance(quarry) < 1.5')!;
    expect(near.holds).toBe(false);
    expect(near.nearest!.text).toMatch(/^(1\.9\d?|2) < 1\.5$/);
    expect(near.nearest!.tick).toBeGreaterThan(100);
  });

  it('tells how much of a time is still missing', () => {
    const rest = find(whyNotNamed(at(300), 'rest'), 'all that for 60 s')!;
    expect(rest.holds).toBe(false);
    expect(Number(/[\d.]+/.exec(rest.values[0].value)![0])).toBeGreaterThan(1);
    expect(rest.since).toBeGreaterThan(54);
  });

  it('says that no transition leads there, or that it is there after all', () => {
    expect(find(whyNotNamed(at(10), 'island'), 'no transition leads there')).toBeDefined();
    expect(whyNotNamed(at(200), 'come')).toMatchObject({
      holds: true,
      statement: 'keeper is in Come',
    });
  });

  it('sees that the state it would have to leave is not the one it is in', () => {
    expect(find(whyNotNamed(at(10), 'grab'), 'it is in Come')).toMatchObject({ holds: false });
  });
});

describe('who sleeps', () => {
  const sleeping = (change: (document: ReturnType<typeof cornerProject>) => void): Question => {
    const document = cornerProject({
      sight: KEEN_SIGHT,
      machine: {
        initial: 'watch',
        states: [
          { id: 'watch', activity: { choice: 'whatNow' }, transitions: [{ to: 'come', after: 1 }] },
          { id: 'come', activity: { tree: 'dawdle' } },
        ],
      },
    });
    Object.assign(document.minds.keeper, {
      trees: { dawdle: { root: { do: 'wait', seconds: 3 } } },
      choices: { whatNow: { options: [{ id: 'hum', does: { do: 'wait', seconds: 3 } }] } },
    });
    change(document);
    return { run: ran(programOf(document)), agent: 'keeper', tick: 200 };
  };
  const far = sleeping((document) => {
    document.archetypes.keeper.sleepDistance = 1;
  });
  const until = sleeping(({ grounds }) => {
    grounds.corner.agents.keeper.asleep = true;
  });

  it('for want of a player near is kept apart from who has not decided yet, with since when', () => {
    const answer = why(far);
    expect(answer).toMatchObject({ statement: 'keeper decides nothing', since: 1 });
    expect(answer.cause).toEqual([
      expect.objectContaining({
        statement: 'it sleeps, since every player is beyond its sleep distance',
        values: [{ part: 'sleep distance', value: '1 m' }],
      }),
    ]);
    expect(why(until).cause[0].statement).toBe('it is asleep until it is woken');
  });

  it.each(['come', 'hum', 'dawdle:1'])('does not come to %s for that reason first', (what) => {
    for (const question of [far, until]) {
      const { holds, cause } = whyNotNamed(question, what);
      expect(holds).toBe(false);
      expect(cause[0]).toMatchObject({ statement: 'it is awake, and decides', holds: false });
      expect(cause.filter(({ statement }) => statement.includes('awake'))).toHaveLength(1);
    }
  });

  it('wakes, and that is no reason any more', () => {
    const question = sleeping(() => {});
    for (const what of ['hum', 'dawdle:1', 'watch'])
      expect(JSON.stringify(whyNotNamed(question, what))).not.toContain('awake');
  });
});

describe('an activity that has ended in a state that stays', () => {
  const run = (activity: ActivityDocument) => {
    const document = cornerProject({
      machine: { initial: 'watch', states: [{ id: 'watch', title: 'Watch', activity }] },
    });
    document.minds.keeper.trees = {
      look: { title: 'Look about', root: { sequence: [{ do: 'wait', seconds: 1 }] } },
      fails: { title: 'Fails', root: { fail: { do: 'wait', seconds: 1 } } },
    };
    return ran(programOf(document));
  };

  it('is told, with when and how, and is the reason why a row is not done', () => {
    const asked = { run: run({ tree: 'look' }), agent: 'keeper', tick: 200 };
    const ended = why(asked).cause.find(({ statement }) => statement.includes('has ended'));
    expect(ended).toMatchObject({
      statement: 'look has ended, and it stays: it succeeded',
      since: 61,
    });
    expect(why({ ...asked, tick: 30 }).cause).not.toContainEqual(
      expect.objectContaining({ statement: expect.stringContaining('has ended') as string }),
    );
    const { cause } = whyNotNamed(asked, 'look:2');
    expect(cause[1]).toMatchObject({
      statement: 'what the state does goes on: it succeeded and ended',
      holds: false,
      since: 61,
    });
  });

  it('reads as ended in the readout, until it is entered again', () => {
    const failed = run({ tree: 'fails' });
    expect(readMind(revisit(failed, 121), 'keeper', 'watch')!.ended).toEqual([
      { state: 'watch', seconds: 1, ending: 'failure' },
    ]);
    expect(readMind(revisit(failed, 30), 'keeper', 'watch')!.ended).toEqual([]);
  });
});

it('of one who has slept in its state says when it woke', () => {
  const document = cornerProject({
    machine: { initial: 'watch', states: [{ id: 'watch', activity: { do: 'wait', seconds: 9 } }] },
  });
  document.archetypes.keeper.sleepDistance = 8;
  const run = createRun(programOf(document), 1, 7);
  const put = (x: number, ticks: number) => {
    advance(run, [{ agent: 'gleaner', x: 0, y: 0, gait: null, place: [x, 5] }]);
    for (let i = 1; i < ticks; i++) advance(run);
  };
  put(5, 60);
  put(18, 60);
  put(5, 60);
  const { cause, since } = why({ run, agent: 'keeper', tick: 180 });
  const woke = cause.find(({ statement }) => statement.startsWith('it woke'));
  expect(since).toBe(1);
  expect(woke!.since).toBeGreaterThanOrEqual(121);
  expect(woke!.since).toBeLessThan(180);
  const before = why({ run, agent: 'keeper', tick: 60 });
  expect(JSON.stringify(before)).not.toContain('it woke');
});

describe('questions that can’t be answered', () => {
  it.each<[string, () => unknown, RegExp]>([
    [
      'an unknown agent',
      () => why({ ...at(5), agent: 'goose' }),
      /no agent “goose”. There are: gleaner, keeper/,
    ],
    ['an agent without a mind', () => why({ ...at(5), agent: 'gleaner' }), /has no mind/],
    ['an unknown state', () => whyNotNamed(at(5), 'flee'), /no state or row “flee”/],
    ['a tick before the first', () => why(at(0)), /tick 1/],
    ['a tick that is still ahead', () => why(at(301)), /has come to tick 300; tick 301/],
  ])('%s', (_, ask, words) => {
    expect(ask).toThrow(QuestionError);
    expect(ask).toThrow(words);
  });
});

it('is written as indented lines with times', () => {
  const lines = explanationLines(whyNotNamed(at(300), 'grab'), 60);
  expect(lines[0]).toBe('- keeper is in Grab');
  expect(lines[1]).toBe('  - transition 1 of Come');
  expect(lines[2]).toBe('    + it is in Come  since 0.90 s');
  expect(lines[4]).toMatch(
    /^ {4}- distance\(quarry\) < 1\.5 {2}\[distance\(quarry\) = [\d.]+\] {2}since 0\.\d\d s {2}nearest at [\d.]+ s: [\d.]+ < 1\.5$/,
  );
});

describe('causes', () => {
  const document = (guard: string): ProjectDocument => {
    const made = cornerProject({
      sight: KEEN_SIGHT,
      memory: { noisy: { type: 'point' }, quiet: { type: 'text' } },
      machine: {
        initial: 'stand',
        states: [
          {
            id: 'stand',
            title: 'Stand',
            entry: [
              { do: 'remember', key: 'quiet', value: '"noisy"' },
              { do: 'remember', key: 'noisy', value: 'self.place' },
              { do: 'makeNoise', kind: 'bell', reach: 20 },
            ],
            transitions: [{ to: 'listen', when: guard, after: 0.2 }],
          },
          { id: 'listen', title: 'Listen' },
        ],
      },
    });
    made.archetypes.keeper.hearing = { threshold: 0.01 };
    made.grounds.corner.agents.keeper2 = { ...made.grounds.corner.agents.keeper, at: [3, 8] };
    return made;
  };
  const causes = (guard: string) =>
    why({ run: ran(programOf(document(guard))), agent: 'keeper', tick: 60 }).cause[0].cause.map(
      ({ statement }) => statement,
    );

  it('name the sense that the guard speaks of, and what it brought', () => {
    expect(causes('heard.loudness > 0')).toContainEqual(
      expect.stringMatching(/^hearing: bell, at/),
    );
    expect(causes('heard.loudness > 0')).not.toContainEqual(expect.stringMatching(/^sight/));
    expect(causes('attention.strength > 0')).toContainEqual(
      expect.stringMatching(/^hearing: bell/),
    );
  });

  it('name the keys a guard reads, not words of a text that are spelt alike', () => {
    expect(causes("quiet == 'noisy'")).toContain('quiet was set to noisy');
    expect(causes("quiet == 'noisy'").filter((cause) => cause.startsWith('noisy'))).toEqual([]);
  });
});

describe('what led to a transition', () => {
  const led = (
    leave: TransitionDocument,
    change: (document: ProjectDocument) => void = () => {},
  ) => {
    const document = cornerProject({
      sight: KEEN_SIGHT,
      machine: {
        initial: 'stand',
        states: [
          {
            id: 'stand',
            title: 'Stand',
            entry: [{ do: 'makeNoise', kind: 'bell', reach: 20 }],
            activity: { do: 'wait', seconds: 0.4 },
            transitions: [{ to: 'next', ...leave }],
          },
          { id: 'next', title: 'Next' },
        ],
      },
    });
    document.archetypes.keeper.hearing = { threshold: 0.01 };
    document.grounds.corner.agents!.keeper2 = { archetype: 'keeper', at: [3, 8] };
    change(document);
    const answer = why({ run: ran(programOf(document), 120), agent: 'keeper', tick: 120 });
    expect(answer.statement).toBe('keeper is in Next');
    const [{ statement, cause }] = answer.cause;
    return [statement, ...cause.map((each) => each.statement)];
  };

  it('is the percept that its event is about', () => {
    expect(led({ on: 'hearing' })).toEqual([
      'transition 1 of Stand: on hearing.bell',
      expect.stringMatching(/^hearing: bell, at/),
      'it was in Stand',
    ]);
    expect(led({ on: 'sight.certain' })).toEqual([
      'transition 1 of Stand: on sight.certain',
      expect.stringMatching(/^sight of gleaner: certain, at/),
      'it was in Stand',
    ]);
  });

  it('is the end of what it did', () => {
    expect(led({ on: 'done' })).toEqual([
      'transition 1 of Stand: on done.success',
      'wait in Stand ended in success',
      'it was in Stand',
    ]);
  });

  it('is nothing but its time', () => {
    expect(led({ after: 0.5 })).toEqual([
      'transition 1 of Stand: its time was over',
      'it was in Stand',
    ]);
  });

  it('is event and guard together, each cause once', () => {
    expect(led({ on: 'sight.certain', when: 'sees(attention.of)' })).toEqual([
      'transition 1 of Stand: on sight.certain and sees(attention.of)',
      expect.stringMatching(/^sight of gleaner: certain/),
      'it was in Stand',
    ]);
  });

  it('is what was written into memory last, of the keys its guard reads', () => {
    const written = led({ when: 'looks > 1' }, ({ minds: { keeper } }) => {
      keeper.memory = {
        looks: { type: 'number', default: 0 },
        other: { type: 'number', default: 0 },
      };
      keeper.machine!.states[0].entry = [
        { do: 'remember', key: 'looks', value: '1' },
        { do: 'remember', key: 'looks', value: '2' },
        { do: 'remember', key: 'other', value: '3' },
      ];
    });
    expect(written).toEqual([
      'transition 1 of Stand: looks > 1',
      'looks was set to 2',
      'it was in Stand',
    ]);
  });
});

describe('one of several minds', () => {
  const document = cornerProject({
    machine: {
      initial: 'legs',
      states: [
        { id: 'legs', title: 'Legs', transitions: [{ to: 'run', after: 0.5 }] },
        { id: 'run', title: 'Run', transitions: [{ to: 'legs', when: 'time > 1000' }] },
      ],
    },
  });
  document.minds.voice = {
    title: 'Voice',
    machine: {
      initial: 'still',
      states: [
        { id: 'still', title: 'Still', transitions: [{ to: 'hum', after: 0.25 }] },
        { id: 'hum', title: 'Hum', transitions: [{ to: 'still', when: 'time > 999' }] },
      ],
    },
  };
  document.archetypes.keeper.minds = ['voice'];
  const question: Question = { run: ran(programOf(document), 60), agent: 'keeper', tick: 60 };

  it('is asked by its name; the first, if none is named', () => {
    expect(why(question).statement).toBe('keeper is in Run');
    expect(why({ ...question, mind: 'voice' }).statement).toBe('keeper is in Hum');
    expect(whyNotNamed({ ...question, mind: 'voice' }, 'still')).toMatchObject({
      statement: 'keeper is in Still',
      holds: false,
      since: 16,
    });
    expect(whyNotNamed(question, 'legs')).toMatchObject({ holds: false, since: 31 });
  });

  it('goes by what that mind recorded alone', () => {
    expect(find(why({ ...question, mind: 'voice' }), 'transition 1 of Still')!.since).toBe(16);
    expect(JSON.stringify(why({ ...question, mind: 'voice' }))).not.toContain('Legs');
    expect(JSON.stringify(why(question))).not.toContain('Still');
  });

  it('that is not there is refused, with those that are', () => {
    expect(() => why({ ...question, mind: 'tail' })).toThrow(
      '“keeper” has no mind “tail”. It has: keeper, voice.',
    );
  });
});

describe('a run with edits', () => {
  const edited = () => {
    const change = cornerProject({
      sight: KEEN_SIGHT,
      memory: { quarry: { type: 'agent' } },
      machine: {
        initial: 'stand',
        states: [
          {
            id: 'stand',
            title: 'Renamed',
            transitions: [{ to: 'grab', when: 'attention.strength > 2' }],
          },
          {
            id: 'come',
            title: 'Came',
            transitions: [{ to: 'grab', when: 'distance(quarry) < 0.5' }],
          },
          { id: 'grab', title: 'Grab' },
        ],
      },
    });
    const two = createRun(program, 1, 1);
    while (two.head < 200) advance(two);
    applyEdit(two, programOf(change), 2);
    while (two.head < 300) advance(two);
    return two;
  };

  it('is explained by what was in force in each tick', () => {
    const answer = why({ run: edited(), agent: 'keeper', tick: 250 });
    expect(answer.statement).toBe('keeper is in Came');
    const taken = find(answer, 'transition 1 of Peer')!;
    expect(taken.since).toBe(54);
    expect(find(answer, 'it was in Stand')).toBeDefined();
    expect(find(answer, 'Renamed')).toBeUndefined();
    expect(why({ run: edited(), agent: 'keeper', tick: 150 }).statement).toBe('keeper is in Come');
  });

  it('says since when under which guard: an edit that changes the guard begins to watch again', () => {
    const run = edited();
    const before = whyNotNamed({ run, agent: 'keeper', tick: 190 }, 'grab');
    expect(find(before, 'distance(quarry) < 1.5')).toMatchObject({ holds: false });
    const after = whyNotNamed({ run, agent: 'keeper', tick: 260 }, 'grab');
    expect(find(after, 'it is in Came')).toMatchObject({ holds: true, since: 54 });
    expect(find(after, 'distance(quarry) < 0.5')).toMatchObject({ holds: false, since: 200 });
  });

  it('is left where it stands by a question', () => {
    const run = edited();
    seek(run, 120);
    const hash = worldHash(run.world);
    whyNotNamed({ run, agent: 'keeper', tick: 260 }, 'grab');
    expect([run.world.tick, worldHash(run.world)]).toEqual([120, hash]);
  });

  it('whose beginning is no longer kept says so', () => {
    const run = createRun(program, 1, 1);
    for (let i = 1; i <= 600; i++)
      advance(
        run,
        i % 10 === 1 && i > 300
          ? [{ agent: 'gleaner', x: 0, y: i % 20 === 1 ? 0.01 : -0.01, gait: null }]
          : [],
        {
          ...RUN_LIMITS,
          entries: 20,
        },
      );
    expect(run.keptFrom).toBeGreaterThan(0);
    const answer = why({ run, agent: 'keeper', tick: 600 });
    expect(find(answer, 'no longer kept')).toBeDefined();
    expect(() => why({ run, agent: 'keeper', tick: run.keptFrom - 1 })).toThrow(/no longer kept/);
  });
});
