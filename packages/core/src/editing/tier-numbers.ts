import type { ProjectDocument } from '../model/documents.ts';
import { isObject } from '../model/schema/schema.ts';
import { pathText } from '../model/names/path-text.ts';
import type { DocumentPath } from './commands/commands.ts';
import { wordsOfPath } from './commands/path-words.ts';

/** A number of a document that can differ by tier. */
export interface TierNumber {
  /** As tiers name it: `archetypes.keeper.reaction`. */
  path: string;
  /** In words: “reaction of Keeper”. */
  words: string;
  value: number;
}

/** Parts in which numbers say how hard something is; where things stand is the same in all tiers. */
const PARTS = ['archetypes', 'minds', 'squads', 'grounds'] as const;

/** Every number of a document that can differ by tier, in the order of the document. Numbers of places and sizes are none. */
export function tierNumbers(document: ProjectDocument): TierNumber[] {
  const found: TierNumber[] = [];
  const visit = (part: unknown, path: DocumentPath): void => {
    if (typeof part === 'number')
      found.push({ path: pathText(path), words: wordsOfPath(document, path), value: part });
    else if (isObject(part))
      for (const [key, value] of Object.entries(part)) visit(value, [...path, key]);
    else if (Array.isArray(part) && !part.every((each) => typeof each === 'number'))
      part.forEach((each, i) => visit(each, [...path, i]));
  };
  for (const part of PARTS) visit(document[part], [part]);
  return found;
}
