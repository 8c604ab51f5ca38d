import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import type { Program } from '../../world/program/program.ts';
import { worldHash } from '../../world/handover/snapshot.ts';
import type { Question } from './statement.ts';
import { find, ran } from './statements.fixture.ts';
import { whyNot } from './why-not.ts';
import { why } from './why.ts';

/** The keeper stands at (2, 5), the gleaner 6 m off. */
function weighing(): Program {
  const document = cornerProject({ sight: KEEN_SIGHT });
  document.minds.keeper.activity = { choice: 'whatNow' };
  document.minds.keeper.choices = {
    whatNow: {
      title: 'What now?',
      every: 1,
      options: [
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
    },
  };
  return programOf(document);
}

const run = ran(weighing(), 150);
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
    expect(whyNot(at(140), 'watch')).toMatchObject({ holds: true });
  });
});

describe('why not that option', () => {
  it('names what held it down most, and the input that would have won', () => {
    const answer = whyNot(at(140), 'Grab it');
    expect(answer).toMatchObject({ statement: 'keeper picks Grab it', holds: false, since: 121 });
    const behind = find(answer, 'its score was 0.63, and Watch it had 0.9')!;
    // √(worth × 1) ≥ 0.9 from a worth of 0.81 on: 1.9 m.
    expect(behind.cause.map(({ statement }) => statement)).toEqual(['Reach at 1.9 would have won']);
    expect(answer.cause.slice(1).map(({ statement }) => statement)).toEqual([
      'Reach',
      'Sure of it',
    ]);
    expect(whyNot(at(140), 'whatNow:grab')).toEqual(answer);
  });

  it('says what kept it out', () => {
    expect(find(whyNot(at(140), 'Sleep'), 'its guard did not hold')).toMatchObject({
      holds: false,
    });
    expect(find(whyNot(at(10), 'grab'), 'Stand had 0.2')).toBeDefined();
  });

  it('leaves the run where it is', () => {
    const hash = worldHash(run.world);
    whyNot(at(100), 'grab');
    expect([run.world.tick, worldHash(run.world)]).toEqual([150, hash]);
  });
});
