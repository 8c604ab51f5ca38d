import type { Name } from './documents.ts';

/** A level of difficulty: numbers of the project that differ in it. */
export interface TierDocument {
  name: Name;
  title?: string;
  note?: string;
  changes?: TierChangeDocument[];
}

/** One number, by its path from the whole document, such as `archetypes.keeper.reaction`: a value, or a factor. */
export interface TierChangeDocument {
  path: string;
  value?: number;
  factor?: number;
}
