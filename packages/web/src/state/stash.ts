import type { ProjectDocument } from '@crooked-lantern/core';

/** Work the server has not taken yet, kept in the browser so that closing the page loses nothing. */
export interface Stash {
  /** The edit the document is based on. */
  basedOn: number;
  document: ProjectDocument;
}

const keyOf = (id: string) => `crooked-lantern.unsaved.${id}`;

export function stash(id: string, basedOn: number, document: ProjectDocument): void {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify({ basedOn, document }));
  } catch (error) {
    // The browser's storage is full or off; the page itself still holds the work and says that it is unsaved.
    console.warn('Unsaved work could not be kept in the browser.', error);
  }
}

export function dropStash(id: string): void {
  localStorage.removeItem(keyOf(id));
}

export function readStash(id: string): Stash | null {
  const text = localStorage.getItem(keyOf(id));
  return text === null ? null : (JSON.parse(text) as Stash);
}
