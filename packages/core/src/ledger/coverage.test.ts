import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../testing/orchard.fixture.ts';
import { coverageOf, coverageOver, type CoverageItem } from './coverage.ts';
import { withTransition } from './moved-transition.fixture.ts';
import { advance, applyEdit, createRun } from './run.ts';

/** A keeper that looks, and would chase with a tree of which one row is never reached; and weighs what to do in the end. */
function ran(seconds: number, threshold = 0.5): CoverageItem[] {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    machine: {
      initial: 'calm',
      states: [
        {
          id: 'calm',
          title: 'Calm',
          transitions: [
            { to: 'asleep', when: 'time > 1000' },
            { to: 'chase', when: `attention.strength > ${threshold}` },
          ],
        },
        {
          id: 'chase',
          title: 'Chase',
          activity: { tree: 'hunt' },
          transitions: [{ to: 'end', after: 1 }],
        },
        { id: 'end', title: 'End', activity: { choice: 'what' } },
        { id: 'asleep', title: 'Asleep' },
      ],
    },
  });
  document.minds.keeper.trees = {
    hunt: {
      title: 'Hunt',
      root: {
        selector: [
          { do: 'wait', seconds: 5, title: 'Stand' },
          { do: 'say', text: 'Gone', title: 'Never said' },
        ],
      },
    },
  } as never;
  document.minds.keeper.choices = {
    what: {
      title: 'What?',
      options: [
        { id: 'rest', title: 'Rest', weight: 0.9, does: { do: 'wait', seconds: 1 } },
        { id: 'sing', title: 'Sing', weight: 0.1, does: { do: 'wait', seconds: 1 } },
      ],
    },
  };
  const run = createRun(programOf(document), 1, 2);
  for (let i = 0; i < seconds * 60; i++) advance(run);
  return coverageOf(run);
}

it('counts a transition that was moved up since as the one it is', () => {
  const run = createRun(programOf(withTransition(false)), 1, 2);
  for (let i = 0; i < 60; i++) advance(run);
  applyEdit(run, programOf(withTransition(true)), 2);
  for (let i = 0; i < 60; i++) advance(run);
  const taken = coverageOf(run)
    .filter(({ part }) => part === 'transition')
    .map(({ title, times }) => `${title}: ${times}`);
  expect(taken).toEqual([
    'calm 1: to roused, time > 0.5: 2',
    'calm 2: to asleep, time > 1000: 0',
    'roused 1: to calm: 1',
  ]);
});

const never = (items: readonly CoverageItem[]) =>
  items.filter(({ times }) => times === 0).map(({ part, title }) => `${part} ${title}`);

describe('coverage', () => {
  it('is what was entered, taken, reached and picked, and names what was not', () => {
    const items = ran(5);
    expect(never(items)).toEqual([
      'transition Calm 1: to Asleep, time > 1000',
      'row Never said',
      'option Sing (What?)',
      'row Wait 1',
      'state Asleep',
    ]);
    const find = (part: string, key: string) =>
      items.find((item) => item.part === part && item.key === key)!;
    expect(find('transition', 'calm 2')).toMatchObject({ times: 1, state: 'calm', mind: 'keeper' });
    expect(find('option', 'what:rest').times).toBeGreaterThan(0);
  });

  it('is nothing but where it began before the first tick has decided otherwise', () => {
    expect(never(ran(1 / 60, 2))).toHaveLength(ran(1 / 60, 2).length - 1);
  });

  it('over several runs is of what any of them did', () => {
    const [short, long] = [ran(0.1), ran(5)];
    expect(never(short)).toContain('state End');
    expect(never(coverageOver([short, long]))).toEqual(never(long));
    const of = (items: readonly CoverageItem[]) => items.map(({ times }) => times);
    expect(of(coverageOver([long, long]))).toEqual(of(long).map((times) => 2 * times));
  });

  it('is of states that can be active, not of histories', () => {
    const document = cornerProject({
      machine: {
        initial: 'house',
        states: [
          {
            id: 'house',
            initial: 'hall',
            states: [
              { id: 'hall', transitions: [{ to: 'back', on: 'bell' }] },
              { id: 'back', kind: 'history' },
              { id: 'allBack', kind: 'deepHistory' },
            ],
            transitions: [{ to: 'allBack', on: 'knock' }],
          },
        ],
      },
    });
    const items = coverageOf(createRun(programOf(document), 1, 2));
    expect(items.flatMap(({ part, key }) => (part === 'state' ? [key] : []))).toEqual([
      'house',
      'hall',
    ]);
  });
});
