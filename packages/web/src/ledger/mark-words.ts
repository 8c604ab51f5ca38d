import type { HitResult, LedgerEntry } from '@crooked-lantern/core';
import { senseTint, type Tokens } from '../theme/tokens.ts';
import type { EntryTitles } from '../engine/entry-titles.ts';
import { entryWords } from '../engine/entry-words.ts';

/** Which entries stand as marks in the lanes, and in which colour. */

/** The colour of what came of a hit: harm where it landed, success where it was met, else faint. */
export function hitTint(result: HitResult, tokens: Tokens): string {
  if (result === 'landed') return tokens.harm;
  return result === 'guarded' || result === 'parried' || result === 'dodged'
    ? tokens.done
    : tokens.mute;
}

/** Below this share of its health an agent is in danger. */
const IN_DANGER = 0.3;

export function healthTint(share: number, tokens: Tokens): string {
  return share < IN_DANGER ? tokens.harm : tokens.done;
}

/** Colour of an entry that stands as a dot; undefined for one that does not. */
export function tintOf(entry: LedgerEntry, tokens: Tokens): string | undefined {
  switch (entry.kind) {
    case 'percept':
      return senseTint(entry.sense, tokens);
    case 'hit':
      return hitTint(entry.result, tokens);
    case 'harm':
    case 'death':
    case 'noWay':
    case 'stuck':
    case 'cycle':
    case 'dropped':
    case 'overwrote':
      return tokens.harm;
    case 'broken':
    case 'input':
    case 'end':
      return tokens.refuse;
    case 'recycled':
    case 'skipped':
    case 'moved':
      return tokens.mute;
    case 'say':
      return tokens.bone;
    case 'role':
    case 'announced':
      return tokens.told;
    case 'came':
      return tokens.done;
    case 'left':
      return tokens.mute;
    case 'wave':
      return entry.how === 'held' ? tokens.refuse : undefined;
    case 'score':
      return entry.by < 0 ? tokens.harm : tokens.found;
    case 'result':
      return entry.how === 'lost' ? tokens.harm : tokens.done;
    case 'reached':
      return tokens.mute;
    default:
      return undefined;
  }
}

/** What a dot of a colour can stand for. */
export const DOT_WORDS: readonly { tint: keyof Tokens; words: string }[] = [
  { tint: 'sight', words: 'it has seen a target, or lost sight of one' },
  { tint: 'sound', words: 'it has heard something' },
  { tint: 'told', words: 'it was told something, got a role in its squad; the director announces' },
  { tint: 'found', words: 'it has found something; points scored' },
  {
    tint: 'harm',
    words: 'felt, damaged or dead; a hit that landed; stuck, no way; something lost',
  },
  { tint: 'refuse', words: 'broken off, failed, held up, or not possible' },
  { tint: 'done', words: 'a hit that was met, one that came with a wave, a game won' },
  {
    tint: 'mute',
    words: 'a miss; moved by hand, respawned, gone; a key at its bound; a decision skipped',
  },
];

/** Colour and words of an entry that stands as a dot; undefined for one that does not. */
export function dotOf(
  entry: LedgerEntry,
  tokens: Tokens,
  titles: EntryTitles,
): { color: string; words: string } | undefined {
  const color = tintOf(entry, tokens);
  return color === undefined ? undefined : { color, words: entryWords(entry, titles) };
}
