import type { HitResult } from '@crooked-lantern/core';

/** What came of a hit, as people read it. */
export const RESULT_WORDS: Record<HitResult, string> = {
  landed: 'Landed',
  guarded: 'Guarded',
  parried: 'Parried',
  dodged: 'Dodged',
  missed: 'Missed',
  walled: 'Walled',
};
