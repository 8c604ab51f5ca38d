import { sameData, type ProjectDocument } from '@crooked-lantern/core';

/** What of a document only says what to look out for. */
const WATCHING: readonly (keyof ProjectDocument)[] = ['breakpoints', 'observationLimits'];

/** Whether two documents make the same program, and are watched otherwise. */
export function differsOnlyInWatching(before: ProjectDocument, after: ProjectDocument): boolean {
  const isSame = (key: keyof ProjectDocument) => sameData(before[key], after[key]);
  if (WATCHING.every(isSame)) return false;
  const keys = new Set([...Object.keys(before), ...Object.keys(after)]) as Set<
    keyof ProjectDocument
  >;
  return [...keys].every((key) => WATCHING.includes(key) || isSame(key));
}
