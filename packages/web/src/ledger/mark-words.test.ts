import { SENSES, type LedgerEntry } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import type { Tokens } from '../theme/tokens.ts';
import { DOT_WORDS, tintOf } from './mark-words.ts';

/** By kind of entry, what decides its colour; a new kind that is missing here does not compile. */
const DECIDING: Record<LedgerEntry['kind'], readonly object[]> = {
  enter: [{}],
  exit: [{}],
  transition: [{}],
  begin: [{}],
  end: [{}],
  did: [{}],
  picked: [{}],
  fired: [{}],
  overruled: [{}],
  skipped: [{}],
  percept: SENSES.map((sense) => ({ sense })),
  awareness: [{}],
  memory: [{}],
  kept: [{}],
  forgot: [{}],
  reached: [{}],
  overwrote: [{}],
  say: [{}],
  input: [{}],
  noise: [{}],
  harm: [{}],
  death: [{}],
  move: [{}],
  broken: [{}],
  hit: ['landed', 'guarded', 'parried', 'dodged', 'missed'].map((result) => ({ result })),
  knocked: [{}],
  sleeps: [{}],
  wakes: [{}],
  recycled: [{}],
  role: [{}],
  stuck: [{}],
  cycle: [{}],
  dropped: [{}],
  noWay: [{}],
  came: [{}],
  left: [{}],
  wave: [{ how: 'held' }, { how: 'started' }],
  mode: [{}],
  score: [{ by: 1 }, { by: -1 }],
  announced: [{}],
  result: [{ how: 'won' }, { how: 'lost' }],
  edit: [{}],
  moved: [{}],
};

/** Colours that are called what their tokens are. */
const tokens = new Proxy({}, { get: (_, name) => name }) as Tokens;

describe('the legend of the lanes', () => {
  it('says what every colour of a dot can stand for, and names no other', () => {
    const tints = Object.entries(DECIDING).flatMap(([kind, variants]) =>
      variants.flatMap((variant) => tintOf({ kind, ...variant } as LedgerEntry, tokens) ?? []),
    );
    // What is said stands above the ground, not in the lanes.
    const drawn = new Set(tints.filter((tint) => tint !== 'bone'));
    expect(DOT_WORDS.map(({ tint }) => tint).sort()).toEqual([...drawn].sort());
  });
});
