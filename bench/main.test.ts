import { describe, expect, it } from 'vitest';
import { groupsOf, meets, readFlags } from './main.ts';

describe('the flags of a measurement', () => {
  it('name a figure, a commit and a number of rounds', () => {
    expect(
      readFlags(['--only', 'page.kb', '--json', '--against', 'main', '--rounds', '3']),
    ).toEqual({
      only: 'page.kb',
      json: true,
      strict: false,
      help: false,
      against: 'main',
      rounds: 3,
    });
  });

  it.each([
    [['--only'], '“--only” needs a value.'],
    [['--only', ''], '“--only” needs a value.'],
    [['--only', '--json'], '“--only” needs a value.'],
    [['--rounds', '0'], '“--rounds” takes a whole number from 1 on.'],
    [['--fast'], 'There is no flag “--fast”.'],
  ])('%j are refused', (flags, wrong) => {
    expect(readFlags(flags)).toEqual({ wrong });
  });
});

describe('a figure', () => {
  const more = {
    page: { figures: ['page.usable_ms', 'page.kb'], measure: () => Promise.resolve([]) },
  };

  it('is found by its own name, also where a group is measured at once', () => {
    expect(groupsOf(more, 'page.kb')).toEqual({ found: more });
    expect(groupsOf(more, 'page')).toEqual({ found: more });
    expect(Object.keys((groupsOf(more) as { found: object }).found)).toContain('batch.speed');
  });

  it('that does not exist is refused, with those that do', () => {
    expect(groupsOf(more, 'page.bk')).toEqual({
      wrong: expect.stringMatching(
        /^There is no figure “page\.bk”.*mind\.ratio.*page\.kb\.$/,
      ) as string,
    });
  });

  it('meets its goal or misses it', () => {
    expect([
      meets(1.2, '<= 1.2'),
      meets(1.21, '<= 1.2'),
      meets(3, '>= 4'),
      meets(3, undefined),
    ]).toEqual([true, false, false, true]);
  });
});
