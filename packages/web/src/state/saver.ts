import { mergeDocuments, sameData, type Fault, type ProjectDocument } from '@crooked-lantern/core';
import { ApiError, type api, type StoredProject } from '../api/client.ts';
import type { Edit } from './project-slice.ts';
import { runInBackground } from './failures.ts';
import type { Stash } from './stash.ts';

/**
 * Saves one project as it is worked on: every edit in its turn, one at a time. A small machine of five states: at
 * rest, sending (which includes trying again), reading what another window saved, held by a conflict, and stopped.
 * Work is in the browser's storage as soon as it is made. An edit that is refused is left out; those after it go on.
 * What another window saved is taken over, and merged with ours where no part was changed by both.
 */

/** What the saver has to tell. */
export type SaverEvent =
  | { kind: 'saving' }
  | { kind: 'saved'; edit: number; at: string }
  | { kind: 'waiting'; message: string }
  | { kind: 'refused'; edit: number; message: string }
  /**
   * Another window saved, and nothing here stands against it: its edit, and what both come to, which is `theirs` where
   * nothing of ours is unsaved. `parts`: in words what the other changed.
   */
  | { kind: 'joined'; theirs: StoredProject; document: ProjectDocument; parts: string[] }
  /** Both changed the same part. `base`: the edit of the server that ours was made from, at the time `mineAt`. */
  | { kind: 'conflict'; theirs: StoredProject; base: number; mineAt: string };

export interface SaverTools {
  api: Pick<typeof api, 'read' | 'readEdit' | 'write'>;
  /** Keeps work that the server has not taken. */
  keep(work: Stash): void;
  drop(): void;
  /** What the server would refuse the document for. */
  faultsOf(document: ProjectDocument): Fault[];
  delay(ms: number): Promise<unknown>;
  tell(event: SaverEvent): void;
}

export interface Saver {
  /** Takes over a new edit, with the time it was made at. */
  add(edit: Edit, at: string): void;
  /** The server has this edit: of another window, where it is none of ours. */
  heard(serverEdit: number): void;
  /** Goes on from the server's edit: with this one of ours on top, or with nothing to send. */
  resume(serverEdit: number, mine: Edit | null, at: string): void;
  /** Sends nothing more. What is unsaved stays in the browser's storage. */
  stop(): void;
}

const RETRY_MS = [1000, 2000, 4000, 8000];
/** Nothing is sent while one edit follows another: the machine is left to the page and the engine, which show them at once. */
export const PAUSE_MS = 400;

export function createSaver(id: string, startingEdit: number, tools: SaverTools): Saver {
  const { api: server, keep, drop, faultsOf, delay, tell } = tools;
  /** The latest edit of the server that we know of; what is sent next is based on it. */
  let serverEdit = startingEdit;
  let waiting: Edit[] = [];
  /** When the last of them was made. */
  let madeAt = '';
  let state: 'resting' | 'sending' | 'reading' | 'held' | 'stopped' = 'resting';
  /** The latest edit that the server is known to have, of whichever window. */
  let heard = startingEdit;
  /** Set while the page shows work that the server refused. */
  let hasRefused = false;

  function kept(): void {
    const last = waiting.at(-1);
    if (last) keep({ basedOn: serverEdit, document: last.document, at: madeAt });
    else drop();
  }

  /** Leaves an edit out of what waits. */
  function done(edit: Edit): void {
    waiting = waiting.filter((other) => other !== edit);
  }

  function refuse(edit: Edit, message: string): void {
    done(edit);
    hasRefused = true;
    // The refused work itself is kept in the browser until something after it was saved.
    if (waiting.length > 0) kept();
    tell({ kind: 'refused', edit: edit.edit, message });
  }

  /**
   * Finds out whether the server's edit is ours, and only its answer was lost; else it is another's. True where it is
   * to be tried again.
   */
  async function settle(edit: Edit): Promise<boolean> {
    try {
      const theirs = await server.read(id);
      const isOurs =
        theirs.edit === serverEdit + 1 &&
        JSON.stringify(theirs.document) === JSON.stringify(edit.document);
      if (isOurs) saved(edit, theirs);
      else await join(theirs);
      return false;
    } catch (error) {
      return again(error);
    }
  }

  /** What an earlier edit of the server holds; null where it has none of that number. */
  async function readEdit(number: number): Promise<ProjectDocument | null> {
    try {
      return (await server.readEdit(id, number)).document;
    } catch (error) {
      if (error instanceof ApiError && !error.passing) return null;
      throw error;
    }
  }

  /** Takes over what another window saved, together with what is unsaved here; a conflict where both changed a part. */
  async function join(theirs: StoredProject): Promise<void> {
    const base = await readEdit(serverEdit);
    if (state === 'stopped') return;
    // What was made while it was read is in it too.
    const mine = waiting.at(-1)?.document ?? base;
    const both = base && mine ? mergeDocuments(base, mine, theirs.document) : null;
    const hasOwn = waiting.length > 0;
    const isClean =
      both !== null &&
      both.parts.every(({ by }) => by !== 'both') &&
      faultsOf(both.document).length === 0;
    if (hasOwn && !isClean) {
      state = 'held';
      tell({ kind: 'conflict', theirs, base: serverEdit, mineAt: madeAt });
      return;
    }
    serverEdit = theirs.edit;
    waiting = [];
    hasRefused = false;
    kept();
    const parts = both?.parts.flatMap(({ by, what }) => (by === 'theirs' ? what : [])) ?? [];
    // With something of ours in it, what both come to is an edit of its own, which is added to what waits.
    const isOwn = hasOwn && both !== null && !sameData(both.document, theirs.document);
    tell({ kind: 'joined', theirs, document: isOwn ? both.document : theirs.document, parts });
  }

  function saved(edit: Edit, stored: StoredProject): void {
    serverEdit = stored.edit;
    hasRefused = false;
    done(edit);
    kept();
    tell({ kind: 'saved', edit: edit.edit, at: stored.updatedAt });
  }

  /** Reads what another window saved while nothing of ours waits. */
  async function read(): Promise<void> {
    state = 'reading';
    try {
      await join(await server.read(id));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      // It is heard of again when the server answers again.
      heard = serverEdit;
    }
    if (state === 'reading') rest();
  }

  function rest(): void {
    state = 'resting';
    if (waiting.length > 0) runInBackground(sendAll());
    // What waits is refused as based on an older edit, and what the page shows of a refused one stays.
    else if (heard > serverEdit && !hasRefused) runInBackground(read());
  }

  /** Sends one edit; true where it is to be tried again. */
  async function send(edit: Edit): Promise<boolean> {
    const [fault] = faultsOf(edit.document);
    if (fault) {
      refuse(edit, `${fault.path} ${fault.message}.`);
      return false;
    }
    try {
      saved(edit, await server.write(id, serverEdit, edit.document, edit.what));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.status === 412) return settle(edit);
      if (error.passing) return again(error);
      refuse(edit, error.message);
    }
    return false;
  }

  /** The server can't be reached for now; anything else is a fault of ours. */
  function again(error: unknown): true {
    if (!(error instanceof ApiError)) throw error;
    tell({ kind: 'waiting', message: error.message });
    return true;
  }

  async function sendAll(): Promise<void> {
    if (state !== 'resting') return;
    state = 'sending';
    tell({ kind: 'saving' });
    for (let made = 0; made < waiting.length; await delay(PAUSE_MS)) made = waiting.length;
    for (let failures = 0; waiting.length > 0 && state === 'sending';) {
      const failed = await send(waiting[0]);
      if (!failed) {
        failures = 0;
        continue;
      }
      await delay(RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)]);
    }
    if (state === 'sending') rest();
  }

  return {
    add(edit, at) {
      waiting.push(edit);
      madeAt = at;
      kept();
      if (state === 'resting') rest();
    },
    heard(edit) {
      heard = Math.max(heard, edit);
      if (state === 'resting') rest();
    },
    resume(edit, mine, at) {
      if (state === 'stopped') return;
      serverEdit = edit;
      waiting = mine ? [mine] : [];
      madeAt = at;
      hasRefused = false;
      kept();
      rest();
    },
    stop() {
      state = 'stopped';
    },
  };
}
