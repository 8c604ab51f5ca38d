import type { Asking } from '@crooked-lantern/core';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { questionOf, questionText, WHY } from './asking-address.ts';

const name = fc.stringMatching(/^[a-z][A-Za-z0-9]{0,9}$/);
const target = fc.oneof(
  fc.record({ kind: fc.constant('state' as const), state: name }),
  fc.record({ kind: fc.constant('option' as const), choice: name, option: name }),
  fc.record({ kind: fc.constant('row' as const), of: name, row: fc.integer({ min: 1, max: 99 }) }),
);
/** Every question there is; what is missing does not compile. */
const QUESTIONS: { [Ask in Asking['ask']]: fc.Arbitrary<Extract<Asking, { ask: Ask }>> } = {
  why: fc.constant({ ask: 'why' }),
  whyNot: fc.record({ ask: fc.constant('whyNot'), target }),
  moves: fc.constant({ ask: 'moves' }),
  notices: fc.record({ ask: fc.constant('notices'), agent: name }),
  ever: fc.record({ ask: fc.constant('ever'), state: name }),
  memory: fc.record({ ask: fc.constant('memory'), key: name }),
  told: fc.constant({ ask: 'told' }),
  hit: fc.record({ ask: fc.constant('hit'), side: fc.constantFrom('dealt', 'taken') }),
  wave: fc.record({ ask: fc.constant('wave'), wave: name }),
  ended: fc.constant({ ask: 'ended' }),
};

it('every question comes back from its address', () => {
  fc.assert(
    fc.property(
      fc.oneof(...Object.values(QUESTIONS)),
      fc.option(name, { nil: undefined }),
      (asking, mind) => {
        expect(questionOf(questionText({ asking, mind }))).toEqual({ asking, mind });
      },
    ),
  );
});

it('an address without a question, or with one that does not exist, asks why it does what it does', () => {
  for (const text of [null, '', 'chase', 'notState', 'sings:loud', ':'])
    expect(questionOf(text)).toEqual({ asking: WHY });
});
