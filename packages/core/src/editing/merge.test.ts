import { describe, expect, it } from 'vitest';
import { checkProject } from '../findings/check-project.ts';
import { nightWatch } from '../testing/demo.fixture.ts';
import { applyCommand } from './apply-command.ts';
import type { DocumentCommand } from './commands/commands.ts';
import { differenceOf } from './difference.ts';
import { mergeDocuments } from './merge.ts';

const base = nightWatch();
const mind = 'warden';
const after = (...commands: DocumentCommand[]) => commands.reduce(applyCommand, base);
const retitle = (state: string, title: string): DocumentCommand => ({
  command: 'changeState',
  mind,
  state,
  change: { title },
});
const wait = (seconds: number): DocumentCommand => ({
  command: 'changeTransition',
  mind,
  state: 'chase',
  index: 1,
  change: { for: seconds },
});
const fresh = (id: string): DocumentCommand => ({
  command: 'insertState',
  mind,
  parent: null,
  state: { id, title: id },
});

/** What has changed in the merged document since both parted. */
const changes = (mine: typeof base, theirs: typeof base, chosen = {}) =>
  differenceOf(base, mergeDocuments(base, mine, theirs, chosen).document).map(
    ({ what, to }) => `${what} → ${to}`,
  );

describe('two documents made from one', () => {
  it('come to the one that was changed, where the other was not', () => {
    const changed = after(retitle('comb', 'Comb it'), fresh('nap'), wait(4));
    expect(mergeDocuments(base, changed, base).document).toEqual(changed);
    expect(mergeDocuments(base, base, changed).document).toEqual(changed);
  });

  it('keep what each changed, in different parts, and say who did', () => {
    const mine = after(retitle('comb', 'Comb it'), fresh('nap'));
    const theirs = after(wait(4), fresh('yawn'));
    expect(changes(mine, theirs).sort()).toEqual(
      [
        'for of transition 2 of Chase of Warden → 4',
        'nap of Warden → nap',
        'title of Comb it of Roused of Warden → Comb it',
        'yawn of Warden → yawn',
      ].sort(),
    );
    const { parts, document } = mergeDocuments(base, mine, theirs);
    expect(parts.map(({ by }) => by).sort()).toEqual(['mine', 'mine', 'theirs', 'theirs']);
    expect(checkProject(document).program).not.toBeNull();
  });

  it('ask about what both changed, and take what is chosen', () => {
    const [mine, theirs] = [after(wait(4)), after(wait(6))];
    const { parts } = mergeDocuments(base, mine, theirs);
    expect(parts).toEqual([
      {
        key: expect.stringMatching(/transitions\[1\]/),
        what: expect.stringContaining('of Chase of Warden'),
        by: 'both',
        base: expect.any(String),
        mine: expect.any(String),
        theirs: expect.any(String),
      },
    ]);
    expect(changes(mine, theirs)).toEqual(['for of transition 2 of Chase of Warden → 4']);
    const [{ key }] = parts;
    expect(changes(mine, theirs, { [key]: 'theirs' })).toEqual([
      'for of transition 2 of Chase of Warden → 6',
    ]);
  });

  it('ask about what one removed and the other changed', () => {
    const mine = after({ command: 'removeState', mind, state: 'collar' });
    const theirs = after(retitle('collar', 'Caught'));
    const part = mergeDocuments(base, mine, theirs).parts.find(({ by }) => by === 'both')!;
    expect(part).toMatchObject({ mine: undefined, theirs: 'Caught' });
    const titles = (side: 'mine' | 'theirs') =>
      JSON.stringify(mergeDocuments(base, mine, theirs, { [part.key]: side }).document);
    expect(titles('mine')).not.toContain('"Caught"');
    expect(titles('theirs')).toContain('"Caught"');
  });

  it('come to the one or the other where all of it is chosen', () => {
    const mine = after(retitle('comb', 'Comb it'), fresh('nap'), wait(4));
    const theirs = after(retitle('comb', 'Comb them'), fresh('yawn'), wait(6), {
      command: 'moveState',
      mind,
      state: 'comb',
      parent: 'roused',
      at: 0,
    });
    for (const [side, whole] of [
      ['mine', mine],
      ['theirs', theirs],
    ] as const) {
      const { parts } = mergeDocuments(base, mine, theirs);
      const chosen = Object.fromEntries(parts.map(({ key }) => [key, side]));
      const left = differenceOf(whole, mergeDocuments(base, mine, theirs, chosen).document);
      // The order of states is no part of its own: where both changed it, mine stays.
      expect(left.filter(({ how }) => how !== 'moved')).toEqual([]);
    }
  });
});
