import { addDots } from './steps.fixture.ts';
import { expect, it } from 'vitest';
import { isDemo, stepsDone, type Signs, type StepId } from './steps.ts';

const ALL: StepId[] = ['seen', 'asked', 'changed', 'back', 'onward'];

const rest: Signs = {
  lanes: addDots([]),
  player: 'gleaner',
  frame: { tick: 100, head: 100, playing: true },
  wasBack: false,
  isAsking: false,
  lastChange: '',
};
const done = (signs: Partial<Signs>) => stepsDone(ALL, { ...rest, ...signs });

it('nothing is done at the start', () => expect(done({})).toEqual([]));

it('each is done by doing it', () => {
  const sees = { kind: 'percept', sense: 'sight', of: 'gleaner' };
  expect(done({ lanes: addDots([sees]) })).toEqual(['seen']);
  expect(done({ lanes: addDots([{ ...sees, of: 'goose' }]) })).toEqual([]);
  expect(done({ lanes: addDots([{ ...sees, sense: 'hearing' }]) })).toEqual([]);
  expect(done({ isAsking: true })).toEqual(['asked']);
  expect(done({ lastChange: 'for of transition 2 of Rounds: 0.2 → 0.5' })).toEqual(['changed']);
  expect(done({ lastChange: 'target of transition 1: collar → rounds' })).toEqual([]);
  const back = { tick: 40, head: 100, playing: false };
  expect(done({ frame: back })).toEqual(['back']);
  expect(done({ frame: { ...back, playing: true }, wasBack: true })).toEqual(['onward']);
});

it('what is done is not looked for again, and only demos have steps', () => {
  expect(stepsDone([], { ...rest, isAsking: true })).toEqual([]);
  expect([isDemo('night-watch'), isDemo('night-watch-2'), isDemo('my-night')]).toEqual([
    true,
    false,
    false,
  ]);
});
