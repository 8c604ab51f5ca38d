import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import type { Input } from '../../world/program/program.ts';
import { advance, createRun, type Run } from '../run.ts';
import { whatEverLedTo, whoTold, whyRemembered } from './ever.ts';
import { finished, QuestionError, type Question } from './statement.ts';
import { whyNotNamed, whyNotSteps } from './why-not.ts';

const steer = (x: number): Input => ({ agent: 'gleaner', x, y: 0, gait: null });

/** A keeper that is roused whenever it sees the gleaner, who goes out of sight and comes back. */
function ran(): Run {
  const document = cornerProject({
    sight: { ...KEEN_SIGHT, forgetAfter: 1 },
    memory: { spot: { type: 'point' } },
    machine: {
      initial: 'calm',
      states: [
        {
          id: 'calm',
          title: 'Calm',
          transitions: [
            {
              to: 'roused',
              when: 'attention.strength > 0.5',
              do: [{ do: 'remember', key: 'spot', value: 'attention.place' }],
            },
          ],
        },
        {
          id: 'roused',
          title: 'Roused',
          transitions: [{ to: 'calm', when: 'attention.strength < 0.1' }],
        },
        { id: 'asleep', title: 'Asleep' },
      ],
    },
  });
  const run = createRun(programOf(document), 1, 2);
  for (let i = 0; i < 1200; i++) {
    // Off to the right, and back.
    advance(run, i === 120 ? [steer(1)] : i === 600 ? [steer(-1)] : []);
  }
  return run;
}

const run = ran();
const at = (tick: number): Question => ({ run, agent: 'keeper', tick });

describe('questions over the whole run', () => {
  it('what ever led to a state: each time with its transition, the latest first', () => {
    const entered = run.entries.filter((e) => e.kind === 'enter' && e.state === 'roused');
    expect(entered.length).toBeGreaterThan(1);
    const answer = whatEverLedTo(at(1200), 'roused');
    expect(answer.statement).toBe(`keeper came to be in Roused ${entered.length} times`);
    expect(answer.cause.map(({ since }) => since)).toEqual(
      entered.map(({ tick }) => tick).reverse(),
    );
    expect(answer.cause[0].cause[0].statement).toBe(
      'transition 1 of Calm: attention.strength > 0.5',
    );
    // Only what was up to the tick counts.
    expect(whatEverLedTo(at(entered[0].tick), 'roused').statement).toMatch(/once$/);
  });

  it('says of what never was so', () => {
    expect(whatEverLedTo(at(1200), 'asleep')).toMatchObject({ cause: [] });
    expect(whoTold(at(1200)).statement).toBe('keeper was told something: never, up to here');
    expect(() => whatEverLedTo(at(1200), 'nowhere')).toThrow(QuestionError);
  });

  it('when and why memory was written', () => {
    const writes = run.entries.filter((e) => e.kind === 'memory' && e.key === 'spot');
    const answer = whyRemembered(at(1200), 'spot');
    expect(answer.cause.map(({ since }) => since)).toEqual(
      writes.map(({ tick }) => tick).reverse(),
    );
    expect(answer.cause[0].cause[0].statement).toBe(
      'transition 1 of Calm: attention.strength > 0.5',
    );
    expect(() => whyRemembered(at(1200), 'nothing')).toThrow(/no key “nothing”/);
  });
});

describe('why not, looked at only a little way back', () => {
  const far = () => whyNotNamed(at(500), 'roused');
  const near = (back: number) => whyNotNamed({ ...at(500), back }, 'roused');
  const guard = (answer: ReturnType<typeof whyNotNamed>) => answer.cause[0].cause[1];

  it('says the same of the moment, how far it looked, and nothing of what it did not see', () => {
    expect(guard(far()).since).not.toBeNull();
    const { lookedFrom } = near(30);
    expect(lookedFrom).toBe(471);
    expect(guard(near(30)).since).toBeNull();
    expect(guard(near(30)).values).toEqual(guard(far()).values);
    // Far enough back it is the whole answer.
    expect(near(10_000)).toEqual(far());
    expect(far().lookedFrom).toBeUndefined();
  });

  it('can be gone on with step by step, to the same answer', () => {
    const steps = whyNotSteps(at(500), { kind: 'state', state: 'roused' });
    let count = 0;
    for (let step = steps.next(); !step.done; step = steps.next()) {
      count++;
      expect(step.value.of).toBe(500);
    }
    expect(count).toBeGreaterThan(5);
    expect(finished(whyNotSteps(at(500), { kind: 'state', state: 'roused' }))).toEqual(far());
  });
});
