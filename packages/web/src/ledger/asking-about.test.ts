import type { Asking, LedgerEntry } from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { askingAbout } from './asking-about.ts';

it.each<[string, object | undefined, Asking]>([
  ['a hit it landed', { kind: 'hit' }, { ask: 'hit', side: 'dealt' }],
  ['damage it took', { kind: 'harm' }, { ask: 'hit', side: 'taken' }],
  ['a place where it was stuck', { kind: 'stuck' }, { ask: 'moves' }],
  [
    'something it saw',
    { kind: 'percept', sense: 'sight', of: 'gleaner' },
    { ask: 'notices', agent: 'gleaner' },
  ],
  ['a thing it saw', { kind: 'percept', sense: 'sight', of: 'basket' }, { ask: 'why' }],
  ['something it was told', { kind: 'percept', sense: 'told', of: 'hound' }, { ask: 'told' }],
  ['the end of the run', { kind: 'result' }, { ask: 'ended' }],
  ['nothing in particular', undefined, { ask: 'why' }],
])('a question can begin from %s', (_, entry, asking) => {
  expect(askingAbout(entry as LedgerEntry | undefined, (name) => name === 'gleaner')).toEqual(
    asking,
  );
});
