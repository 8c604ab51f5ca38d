import type { ProjectDocument } from '../model/documents.ts';
import { differenceOf } from './difference.ts';

/** Characters of what an edit says that it changes, where it is kept. */
export const LONGEST_WHAT = 200;

/** Letters of a value that is said. */
const LONGEST = 40;

/**
 * What two documents differ in, with both values, where that is one small thing:
 * `guard of transition 2 of Rounds of Warden: time > 2 → time > 3`. Null where more differs.
 */
export function oneChange(before: ProjectDocument, after: ProjectDocument): string | null {
  const [change, ...others] = differenceOf(before, after);
  if (!change || others.length > 0 || change.how !== 'changed') return null;
  const { what, from = '', to = '' } = change;
  const isSmall = [from, to].every((text) => text !== '' && text.length <= LONGEST);
  return isSmall ? `${what}: ${from} → ${to}` : null;
}
