import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import type {
  ChoiceDocument,
  ConsiderationDocument,
  OptionDocument,
  ProjectDocument,
} from '../../model/documents.ts';
import { worldHash } from '../../world/handover/snapshot.ts';
import type { Question } from './statement.ts';
import { find, ran } from './statements.fixture.ts';
import { whyNotNamed } from './why-not.ts';
import { why } from './why.ts';

/**
 * A question at the end of a run of a keeper that weighs these options twice a second. It stands at (2, 5), the
 * gleaner 6 m off.
 */
function asking(
  options: OptionDocument[],
  choice: Partial<ChoiceDocument> = {},
  ticks = 100,
  change: (document: ProjectDocument) => void = () => {},
) {
  const document = cornerProject({ sight: structuredClone(KEEN_SIGHT) });
  document.minds.keeper.activity = { choice: 'whatNow' };
  document.minds.keeper.choices = {
    whatNow: { title: 'What now?', every: 0.5, ...choice, options },
  };
  document.bands = {
    range: {
      input: 'distance(attention.of)',
      bands: [
        { name: 'close', fullTo: 4, to: 8 },
        { name: 'far', from: 4, fullFrom: 8 },
      ],
    },
    hour: { input: 'time', bands: [{ name: 'late', from: 0, fullFrom: 3 }] },
  };
  change(document);
  return { run: ran(programOf(document), ticks), agent: 'keeper', tick: ticks };
}

const waits = { do: 'wait', seconds: 60 };
const stand: OptionDocument = { id: 'stand', title: 'Stand', weight: 0.2, does: waits };

const { run } = asking(
  [
    {
      id: 'watch',
      title: 'Watch it',
      weight: 0.9,
      each: { as: 'foe', agents: 'hostile' },
      considerations: [{ title: 'Sure of it', input: 'awareness(foe)' }],
      does: { do: 'wait', seconds: 60 },
    },
    {
      id: 'grab',
      title: 'Grab it',
      considerations: [
        { title: 'Reach', input: 'distance(attention.of)', from: 10, to: 0 },
        { title: 'Sure of it', input: 'awareness(attention.of)' },
      ],
      does: { do: 'wait', seconds: 60 },
    },
    { id: 'stand', title: 'Stand', weight: 0.2, does: { do: 'wait', seconds: 60 } },
    { id: 'sleep', title: 'Sleep', when: 'time > 100', does: { do: 'wait', seconds: 60 } },
  ],
  { every: 1 },
  150,
);
const at = (tick: number): Question => ({ run, agent: 'keeper', tick });

describe('why this option', () => {
  it('names its terms with their values, who came next and by how much', () => {
    const picked = find(why(at(140)), 'it picked Watch it for gleaner')!;
    // Certain after a second of looking; weighed at 61 and 121.
    expect(picked.since).toBe(61);
    expect(Object.fromEntries(picked.values.map(({ part, value }) => [part, value]))).toEqual({
      score: '0.9',
      next: 'Grab it',
      margin: String(Number((0.9 - Math.sqrt(0.4)).toFixed(2))),
    });
    expect(picked.cause).toMatchObject([
      { statement: 'Sure of it', values: [{ value: '1' }, { part: 'worth', value: '1' }] },
    ]);
  });

  it('says that it was picked where one asks why not', () => {
    expect(whyNotNamed(at(140), 'watch')).toMatchObject({ holds: true });
  });
});

describe('why not that option', () => {
  it('names what held it down most, and the input that would have won', () => {
    const answer = whyNotNamed(at(140), 'Grab it');
    expect(answer).toMatchObject({ statement: 'keeper picks Grab it', holds: false, since: 121 });
    const behind = find(answer, 'its score was 0.63, and Watch it had 0.9')!;
    // √(worth × 1) ≥ 0.9 from a worth of 0.81 on: 1.9 m.
    expect(behind.cause.map(({ statement }) => statement)).toEqual(['Reach at 1.9 would have won']);
    expect(answer.cause.slice(1).map(({ statement }) => statement)).toEqual([
      'Reach',
      'Sure of it',
    ]);
    expect(whyNotNamed(at(140), 'whatNow:grab')).toEqual(answer);
  });

  it('says what kept it out', () => {
    expect(find(whyNotNamed(at(140), 'Sleep'), 'its guard did not hold')).toMatchObject({
      holds: false,
    });
    expect(find(whyNotNamed(at(10), 'grab'), 'Stand had 0.2')).toBeDefined();
  });

  it('leaves the run where it is', () => {
    const hash = worldHash(run.world);
    whyNotNamed(at(100), 'grab');
    expect([run.world.tick, worldHash(run.world)]).toEqual([150, hash]);
  });
});

describe('what kept an option out', () => {
  const found = (option: Partial<OptionDocument>, choice: Partial<ChoiceDocument> = {}) =>
    whyNotNamed(asking([stand, { id: 'it', title: 'It', does: waits, ...option }], choice), 'it')!;

  it.each<[string, Partial<OptionDocument>]>([
    ['its guard did not hold', { when: 'time < 0' }],
    ['it had no candidate', { each: { as: 'one', agents: 'friendly' } }],
    ['it was vetoed', { considerations: [{ input: '0', veto: true }, { input: '1' }] }],
    ['its score was not above the minimum', { considerations: [{ input: '0' }] }],
    ['an option of a higher rank competed', { rank: -1 }],
  ])('%s', (statement, option) => {
    const answer = found(option);
    expect(answer).toMatchObject({ statement: 'keeper picks It', holds: false });
    expect(answer.cause[0]).toMatchObject({ statement, holds: false });
    expect(find(answer, 'would have won')).toBeUndefined();
  });

  it('it was on cooldown, which has no terms', () => {
    const answer = whyNotNamed(
      asking([
        stand,
        {
          id: 'it',
          title: 'It',
          cooldown: 60,
          considerations: [{ input: '1' }],
          does: { do: 'wait', seconds: 0.1 },
        },
      ]),
      'it',
    )!;
    expect(answer.cause.map(({ statement }) => statement)).toEqual(['it was on cooldown']);
  });

  it('it was a rule of conduct that was not obeyed', () => {
    const question = asking(
      [stand, { id: 'it', title: 'It', conduct: true, when: 'time >= 0', does: waits }],
      {},
      30,
      ({ archetypes }) => {
        archetypes.keeper.obedience = 0;
      },
    );
    expect(whyNotNamed(question, 'it')!.cause[0].statement).toBe(
      'it was a rule of conduct that was not obeyed',
    );
  });

  it('is said with the terms, those that are worth least first, and which of them are worth nothing', () => {
    const answer = found({
      considerations: [
        { title: 'Much', input: '0.9' },
        { title: 'Nothing', input: '0' },
        { title: 'Some', input: '0.4' },
      ],
    });
    expect(answer.cause.slice(1).map(({ statement, holds }) => [statement, holds])).toEqual([
      ['Nothing', false],
      ['Some', true],
      ['Much', true],
    ]);
  });
});

describe('what would have won', () => {
  const needs = (considerations: ConsiderationDocument[], against = 0.5) =>
    find(
      whyNotNamed(
        asking([
          { ...stand, weight: against },
          { id: 'it', title: 'It', considerations, does: waits },
        ]),
        'it',
      ),
      'its score was',
    )!.cause.map(({ statement }) => statement);

  it('is the input nearest to what it was, above or below', () => {
    const peak: ConsiderationDocument['curve'] = {
      shape: 'points',
      points: [
        [0, 0.1],
        [0.398, 0.1],
        [0.4, 1],
        [0.6, 1],
        [0.602, 0.1],
      ],
    };
    expect(needs([{ title: 'Heat', input: '0.2', curve: peak }, { input: '0.6' }], 0.7)).toEqual([
      'Heat at 0.4 would have won',
    ]);
    expect(needs([{ title: 'Heat', input: '0.8', curve: peak }, { input: '0.6' }], 0.7)).toEqual([
      'Heat at 0.6 would have won',
    ]);
  });

  it('is said of each term that could have brought it about alone, in its own range', () => {
    expect(
      needs([
        { title: 'Way', input: '9', from: 10, to: 0 },
        { title: 'Sure', input: '0.9' },
      ]),
    ).toEqual(['Way at 7.2 would have won']);
    expect(
      needs([
        { title: 'Way', input: '8', from: 10, to: 0 },
        { title: 'Sure', input: '0.3' },
      ]),
    ).toEqual(['Way at 1.65 would have won']);
  });

  it('is nothing where no term can', () => {
    expect(needs([{ title: 'Way', input: '0.1' }, { input: '0.1' }, { input: '0.1' }])).toEqual([]);
  });
});

describe('a choice', () => {
  it('that nothing was worth doing in says so', () => {
    const asked = asking([{ ...stand, weight: 0.1 }], { minScore: 0.5 });
    expect(find(why(asked), 'What now?: nothing was worth doing')).toMatchObject({
      statement: 'What now?: nothing was worth doing',
      cause: [],
    });
    expect(whyNotNamed(asked, 'stand')!.cause[0].statement).toBe(
      'its score was not above the minimum',
    );
  });

  it('says how many others it was tied with', () => {
    const asked = asking([stand, { ...stand, id: 'sit', title: 'Sit' }, { ...stand, id: 'lie' }]);
    const [, picked] = ['', find(why(asked), 'it picked')!];
    expect(picked.values.find(({ part }) => part === 'tied with')!.value).toBe('2');
    expect(picked.values.find(({ part }) => part === 'margin')!.value).toBe('0');
  });

  it('of one option says nothing of a next', () => {
    const picked = find(why(asking([stand])), 'it picked Stand')!;
    expect(picked.values.map(({ part }) => part)).toEqual(['score']);
  });

  it('that is graded says the force of each row', () => {
    const asked = asking(
      [
        {
          id: 'it',
          title: 'It',
          grades: [
            { when: { range: 'close', hour: 'late' }, strength: 0.8 },
            { when: { range: 'far' }, strength: 1 },
          ],
          does: waits,
        },
      ],
      { combine: 'graded' },
      200,
    );
    const { cause } = find(why(asked), 'it picked It')!;
    expect(cause.map(({ statement, values }) => [statement, values])).toEqual([
      [
        "inBand(hour, 'late') and inBand(range, 'close')",
        [{ part: 'force', value: expect.any(String) }],
      ],
      ["inBand(range, 'far')", [{ part: 'force', value: '0.5' }]],
    ]);
  });

  it('explains the candidate that was picked, not another', () => {
    const question = asking(
      [
        {
          id: 'it',
          title: 'It',
          each: { as: 'foe', agents: 'hostile' },
          considerations: [{ title: 'Near', input: 'distance(foe)', from: 10, to: 0 }],
          does: waits,
        },
      ],
      {},
      90,
      ({ archetypes, grounds }) => {
        archetypes.keeper.sight!.cones = [{ range: 15, halfAngle: 60, gain: 60 }];
        grounds.corner.agents!.other = { archetype: 'gleaner', at: [6, 5.8] };
      },
    );
    const picked = find(why(question), 'it picked It for other')!;
    expect(picked.cause[0].values[1]).toEqual({ part: 'worth', value: '0.59' });
  });

  it('is not taken for another that the state weighs, nor asked for options it does not have', () => {
    const document = cornerProject({});
    document.minds.keeper.activity = { tree: 'main' };
    document.minds.keeper.trees = {
      main: { root: { parallel: [{ choice: 'first' }, { choice: 'second' }] } },
    };
    document.minds.keeper.choices = {
      first: { title: 'First', options: [stand, { ...stand, id: 'it', weight: 0.1 }] },
      second: {
        title: 'Second',
        options: [
          stand,
          { ...stand, id: 'it', title: 'It', weight: 0.15 },
          { ...stand, id: 'own', weight: 0.01 },
        ],
      },
    };
    const question = { run: ran(programOf(document), 30), agent: 'keeper', tick: 30 };
    expect(find(whyNotNamed(question, 'first:it'), 'its score was 0.1')).toBeDefined();
    expect(find(whyNotNamed(question, 'second:it'), 'its score was 0.15')).toBeDefined();
    expect(find(whyNotNamed(question, 'own'), 'its score was 0.01')).toBeDefined();
  });

  it('that was never weighed says so', () => {
    const question = asking([stand], {}, 30, ({ minds: { keeper } }) => {
      delete keeper.activity;
      keeper.machine = {
        initial: 'calm',
        states: [
          { id: 'calm', transitions: [{ to: 'roused', when: 'time > 1000' }] },
          { id: 'roused', activity: { choice: 'whatNow' } },
        ],
      };
    });
    expect(whyNotNamed(question, 'stand')).toMatchObject({
      holds: false,
      cause: [{ statement: 'What now? has not been weighed yet' }],
    });
  });
});
