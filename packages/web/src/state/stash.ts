import { isObject, type ProjectDocument } from '@crooked-lantern/core';
import { readKept } from './kept-settings.ts';

/** Work the server has not taken yet, kept in the browser so that closing the page loses nothing. */
export interface Stash {
  /** The edit the document is based on. */
  basedOn: number;
  document: ProjectDocument;
  /** When it was made; absent in what earlier versions kept. */
  at?: string;
}

const keyOf = (id: string) => `crooked-lantern.unsaved.${id}`;

export function stash(id: string, work: Stash): void {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(work));
  } catch (error) {
    // The browser's storage is full or off; the page itself still holds the work and says that it is unsaved.
    console.warn('Unsaved work could not be kept in the browser.', error);
  }
}

/** Whether work on a project is kept that no server has. */
export const hasStash = (id: string) => localStorage.getItem(keyOf(id)) !== null;

export function dropStash(id: string): void {
  localStorage.removeItem(keyOf(id));
}

/** Where work that can't be read is put, so that it neither locks its project nor is lost. */
const asideOf = (id: string) => `crooked-lantern.set-aside.${id}`;

/** Whether pages can show it: faults further inside are findings like any. */
function isProject(value: unknown): value is ProjectDocument {
  if (!isObject(value) || typeof value.title !== 'string') return false;
  const { minds, archetypes, grounds, start } = value;
  return (
    isObject(start) &&
    [minds, archetypes, grounds].every(
      (parts) => isObject(parts) && Object.values(parts).every(isObject),
    )
  );
}

function isStash(value: unknown): value is Stash {
  if (!isObject(value) || !Number.isInteger(value.basedOn)) return false;
  const isDated = value.at === undefined || !Number.isNaN(Date.parse(String(value.at)));
  return isDated && isProject(value.document);
}

/** Unsaved work of an earlier visit; null for none. What can't be read is set aside, and handed to `onFaulty` as text. */
export function readStash(id: string, onFaulty: (text: string) => void = () => {}): Stash | null {
  return readKept(keyOf(id), isStash, asideOf(id), onFaulty);
}
