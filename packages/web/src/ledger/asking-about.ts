import type { Asking, LedgerEntry } from '@crooked-lantern/core';
import { WHY } from '../engine/asking-address.ts';

/** The question that a mark in the lane of an agent begins; without a mark, why the agent does what it does. */
export function askingAbout(
  entry: LedgerEntry | undefined,
  isAgent: (name: string) => boolean,
): Asking {
  switch (entry?.kind) {
    case 'hit':
      return { ask: 'hit', side: 'dealt' };
    case 'harm':
    case 'death':
      return { ask: 'hit', side: 'taken' };
    case 'stuck':
    case 'noWay':
      return { ask: 'moves' };
    case 'percept':
      if (entry.sense === 'told') return { ask: 'told' };
      return isAgent(entry.of) ? { ask: 'notices', agent: entry.of } : WHY;
    case 'result':
      return { ask: 'ended' };
    default:
      return WHY;
  }
}
