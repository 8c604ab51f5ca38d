import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { textOfInputs } from '../engine/link-input.ts';
import { linkedMoment, openMoment } from './open-moment.ts';

const told = vi.hoisted(() => ({ titles: [] as string[] }));
vi.mock('../state/failures.ts', () => ({
  reportFailure: ({ title }: { title: string }) => told.titles.push(title),
  runInBackground: () => {},
}));

/** What the engine is asked to do. */
function fakeEngine() {
  const done: string[] = [];
  const note =
    (what: string) =>
    (...given: unknown[]) =>
      void done.push([what, ...given.map((each) => JSON.stringify(each))].join(' '));
  return {
    done,
    engine: {
      begin: (setup: string | null) => {
        done.push(`begin ${setup}`);
        return Promise.resolve(setup === 'gone' ? 'There is no set-up “gone”.' : null);
      },
      play: note('play'),
      replay: note('replay'),
      restart: note('restart'),
      seek: note('seek'),
    },
  };
}

const open = async (asked: Partial<Parameters<typeof openMoment>[1]>) => {
  const { engine, done } = fakeEngine();
  const nothing = { tick: null, seed: null, keys: null, setup: null, edit: null };
  await openMoment(engine, { ...nothing, ...asked }, 7);
  return done;
};

beforeEach(() => {
  told.titles = [];
  vi.stubGlobal('window', { location: { href: 'http://orchard/' } });
});
afterEach(() => vi.unstubAllGlobals());

describe('a link to a moment', () => {
  it('opens it with the seed and the input it names', async () => {
    expect(await open({})).toEqual(['play']);
    expect(await open({ tick: 40, seed: 3 })).toEqual(['restart 3', 'seek 40']);
    const inputs = [{ tick: 2, input: { agent: 'gleaner', x: 1, y: 0, gait: null } }];
    const keys = await textOfInputs(inputs);
    expect(await open({ tick: 40, seed: 3, keys })).toEqual([
      `replay ${JSON.stringify({ seed: 3, inputs })} 40`,
    ]);
    expect(told.titles).toEqual([]);
  });

  it.each([
    [{ tick: 1_000_000_000, seed: 1 }, /names tick 1000000000, and a run/],
    [{ tick: 40, seed: 1, keys: '%%%' }, /is cut off or damaged/],
  ])(
    'that can’t be followed says so, and the run starts from the beginning: %j',
    async (asked, words) => {
      expect(await open(asked)).toEqual(['play']);
      expect(told.titles).toEqual([expect.stringMatching(words)]);
    },
  );

  it('begins with the set-up it names, or says that it can’t', async () => {
    expect(await open({ tick: 40, seed: 3, setup: 'caught' })).toEqual([
      'begin caught',
      'restart 3',
      'seek 40',
    ]);
    expect(told.titles).toEqual([]);
    expect(await open({ tick: 40, seed: 3, setup: 'gone' })).toEqual([
      'begin gone',
      'restart 3',
      'seek 40',
    ]);
    expect(told.titles).toEqual([expect.stringMatching(/There is no set-up “gone”\./)]);
  });

  it('copied under another edit says so', async () => {
    expect(await open({ tick: 40, seed: 3, edit: 7 })).toEqual(['restart 3', 'seek 40']);
    expect(told.titles).toEqual([]);
    expect(await open({ tick: 40, seed: 3, edit: 5 })).toEqual(['restart 3', 'seek 40']);
    expect(told.titles).toEqual([expect.stringMatching(/edit 5, and edit 7 runs now/)]);
  });

  it('is read from its address, whatever else that holds', () => {
    expect(linkedMoment('?agent=warden1&tick=40&seed=x3&setup=caught&edit=-1')).toEqual({
      tick: 40,
      seed: null,
      keys: null,
      setup: 'caught',
      edit: null,
    });
  });

  it('whose input is none is not followed', async () => {
    const odd = [{ tick: 2, input: { agent: 'gleaner', x: 1, y: 0, gait: 7 } }];
    const keys = await textOfInputs(odd as never);
    expect(await open({ tick: 40, seed: 3, keys })).toEqual(['play']);
    const place = [
      { tick: 2, input: { agent: 'gleaner', x: 1, y: 0, gait: null, place: ['a', 1] } },
    ];
    expect(await open({ tick: 40, seed: 3, keys: await textOfInputs(place as never) })).toEqual([
      'play',
    ]);
  });
});
