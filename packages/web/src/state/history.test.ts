import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { historyOf } from './history.ts';

/** Numbers of the edits that are led to after these, by what their documents say, one letter each. */
const after = (documents: string) => {
  const { past, future } = historyOf(
    [...documents].map((digest, i) => ({ number: i + 1, digest })),
  );
  const numbers = (steps: typeof past) => steps.map(({ number }) => number);
  return { past: numbers(past), future: numbers(future) };
};

describe('what undo leads to over a reload', () => {
  it('is every edit before, down to the first', () => {
    expect(after('abcd')).toEqual({ past: [1, 2, 3], future: [] });
    expect(after('a')).toEqual({ past: [], future: [] });
  });

  it('goes on where undo had stopped, and redo leads forth again', () => {
    expect(after('abcb')).toEqual({ past: [1], future: [3] });
    expect(after('abcba')).toEqual({ past: [], future: [3, 2] });
    expect(after('abcbab')).toEqual({ past: [1], future: [3] });
  });

  it('is ended by a change for what could be redone', () => {
    expect(after('abcbd')).toEqual({ past: [1, 2], future: [] });
  });

  it('passes over edits that changed nothing', () => {
    expect(after('aabb')).toEqual({ past: [1], future: [] });
  });

  it('is called after what is undone or redone, or by its number where nothing was said', () => {
    const { past, future } = historyOf([
      { number: 1, digest: 'a' },
      { number: 2, digest: 'b', what: 'guard of Chase' },
      { number: 3, digest: 'c' },
      { number: 4, digest: 'd', what: 'title of Comb' },
      { number: 5, digest: 'c', what: 'undone: title of Comb' },
    ]);
    expect(past).toEqual([
      { number: 1, label: 'guard of Chase' },
      { number: 2, label: 'edit 3' },
    ]);
    expect(future).toEqual([{ number: 4, label: 'title of Comb' }]);
  });

  it('is the same as in a visit that was never left', () => {
    const moves = fc.array(fc.constantFrom('change', 'undo', 'redo'), { maxLength: 40 });
    fc.assert(
      fc.property(moves, (chosen) => {
        const made = [0];
        let [past, now, future, count] = [[] as number[], 0, [] as number[], 0];
        for (const move of chosen) {
          if (move === 'change') [past, now, future] = [[...past, now], ++count, []];
          else if (move === 'undo' && past.length > 0)
            [past, now, future] = [past.slice(0, -1), past.at(-1)!, [...future, now]];
          else if (move === 'redo' && future.length > 0)
            [past, now, future] = [[...past, now], future.at(-1)!, future.slice(0, -1)];
          else continue;
          made.push(now);
        }
        const edits = made.map((document, i) => ({ number: i + 1, digest: String(document) }));
        const documents = (steps: { number: number }[]) =>
          steps.map(({ number }) => made[number - 1]);
        const history = historyOf(edits);
        expect([documents(history.past), documents(history.future)]).toEqual([past, future]);
      }),
    );
  });
});
