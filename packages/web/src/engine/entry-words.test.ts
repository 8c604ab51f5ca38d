import { readFileSync } from 'node:fs';
import { because, readProjectText, type LedgerEntry } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { entryTitles, onlyAgentTitles } from './entry-titles.ts';
import { entryWords } from './entry-words.ts';

const words = (entry: Record<string, unknown>) =>
  entryWords({ tick: 1, agent: 'keeper1', ...entry } as unknown as LedgerEntry, onlyAgentTitles());

describe('an entry of the ledger', () => {
  it.each([
    [
      { kind: 'harm', amount: 3, left: 4, by: 'gleaner' },
      'takes 3 damage from gleaner, 4 health left',
    ],
    [{ kind: 'harm', amount: 3, left: 4, by: '' }, 'takes 3 damage, 4 health left'],
    [{ kind: 'begin', action: 'moveTo', row: 0 }, 'begins “move to” (row 1)'],
    [{ kind: 'begin', action: 'toTheGate' }, 'begins “toTheGate”'],
    [
      {
        kind: 'end',
        action: 'turn',
        row: 1,
        ending: 'failure',
        reason: because('channelTaken', 'eyes'),
      },
      '“turn” failed (row 2): something else took its eyes',
    ],
    [
      { kind: 'reached', key: 'nerve', end: 'min', value: 0.12345 },
      'nerve reaches its minimum, 0.123',
    ],
    [{ kind: 'role', role: '' }, 'has no role'],
    [{ kind: 'wave', wave: 'dusk', how: 'comes', times: 1 }, 'dusk comes'],
    [{ kind: 'wave', wave: 'dusk', how: 'comes', times: 2 }, 'dusk comes, 2 times so far'],
    [
      { kind: 'transition', from: 'walk', order: 2, to: null, on: null, when: null },
      'walk: transition 2',
    ],
    [
      { kind: 'percept', sense: 'hearing', of: '', how: 'step', strength: 0.421 },
      'heard a step, loudness 0.42',
    ],
    [
      { kind: 'hit', move: 'sweep', of: 'gleaner', result: 'guarded', harm: 0 },
      'sweep was guarded by gleaner',
    ],
    [
      { kind: 'hit', move: 'sweep', of: '', result: 'missed', harm: 0, missedBy: 0.256 },
      'sweep missed by 0.26 m',
    ],
  ])('%j reads %s', (entry, said) => {
    expect(words(entry)).toBe(said);
  });

  it('says what a player does, and what it can’t do', () => {
    const input = { kind: 'input', x: 0, y: 0, gait: null };
    expect(words(input)).toBe('player: stand still');
    expect(words({ ...input, x: 1, gait: 'run' })).toBe('player: run');
    expect(words({ ...input, act: 'pickUp' })).toBe('player: pick up');
    expect(words({ ...input, control: 'player' })).toBe('a player takes over');
    expect(words({ ...input, control: 'minds' })).toBe('its minds take over');
    expect(words({ ...input, place: [1, 2.04] })).toBe('put down at (1.0, 2.0)');
  });
});

describe('with the titles of a document', () => {
  const document = readProjectText(
    readFileSync(new URL('../../../../demo/keepers-duel.lantern.json', import.meta.url), 'utf8'),
  );
  const titles = document.ok ? entryTitles(document.document) : onlyAgentTitles();
  const said = (entry: Record<string, unknown>) =>
    entryWords({ tick: 1, ...entry } as unknown as LedgerEntry, titles);

  it.each([
    [{ kind: 'enter', state: 'tending' }, 'enters Tending'],
    [
      { kind: 'picked', choice: 'press', option: 'rakeSweep', of: 'gleaner', score: 0.5 },
      'Drive them back: picks Rake sweep (Gleaner), 0.50',
    ],
    [{ kind: 'move', move: 'lowHook', of: 'gleaner' }, 'Low hook begins, at Gleaner'],
    [{ kind: 'death', by: 'gleaner' }, 'dies, by Gleaner'],
    [{ kind: 'exit', state: 'gone' }, 'leaves gone'],
  ])('%j reads %s', (entry, words) => {
    expect(said({ agent: 'keeper', ...entry })).toBe(words);
  });
});
