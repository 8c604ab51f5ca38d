import type { Fault, ProjectDocument } from '@crooked-lantern/core';
import { ApiError, type api, type StoredProject } from '../api/client.ts';
import type { Edit } from './project-slice.ts';
import { runInBackground } from './failures.ts';

/**
 * Saves one project as it is worked on: every edit in its turn, one at a time. A small machine of four
 * states: at rest, sending, waiting to try again, and held (by another's edit, or for good). Work is in the
 * browser's storage as soon as it is made. An edit that is refused is left out; those after it go on.
 */

/** What the saver has to tell. */
export type SaverEvent =
  | { kind: 'saving' }
  | { kind: 'saved'; edit: number; at: string }
  | { kind: 'waiting'; message: string }
  | { kind: 'refused'; edit: number; message: string }
  /** `base`: the edit of the server that ours was made from. */
  | { kind: 'conflict'; theirs: StoredProject; base: number };

export interface SaverTools {
  api: Pick<typeof api, 'read' | 'write'>;
  /** Keeps work that the server has not taken, and the server's edit it is based on. */
  keep(basedOn: number, document: ProjectDocument): void;
  drop(): void;
  /** What the server would refuse the document for. */
  faultsOf(document: ProjectDocument): Fault[];
  delay(ms: number): Promise<unknown>;
  tell(event: SaverEvent): void;
}

export interface Saver {
  /** Takes a new edit in hand. */
  add(edit: Edit): void;
  /** Another's edit was first: nothing is sent until {@link resume}. */
  hold(): void;
  /** Goes on from the server's edit: with this one of ours on top, or with nothing to send. */
  resume(serverEdit: number, mine: Edit | null): void;
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
  let state: 'resting' | 'sending' | 'held' | 'stopped' = 'resting';

  function kept(): void {
    const last = waiting.at(-1);
    if (last) keep(serverEdit, last.document);
    else drop();
  }

  /** Leaves an edit out of what waits. */
  function done(edit: Edit): void {
    waiting = waiting.filter((other) => other !== edit);
  }

  function refuse(edit: Edit, message: string): void {
    done(edit);
    // The refused work itself is kept in the browser until something after it was saved.
    if (waiting.length > 0) kept();
    tell({ kind: 'refused', edit: edit.edit, message });
  }

  /**
   * Finds out whether the server's edit is ours, and only its answer was lost; else both are shown. True
   * where it is to be tried again.
   */
  async function settle(edit: Edit): Promise<boolean> {
    let theirs: StoredProject;
    try {
      theirs = await server.read(id);
    } catch (error) {
      return again(error);
    }
    const isOurs =
      theirs.edit === serverEdit + 1 &&
      JSON.stringify(theirs.document) === JSON.stringify(edit.document);
    if (isOurs) {
      saved(edit, theirs);
      return false;
    }
    if (state === 'sending') state = 'held';
    tell({ kind: 'conflict', theirs, base: serverEdit });
    return false;
  }

  function saved(edit: Edit, stored: StoredProject): void {
    serverEdit = stored.edit;
    done(edit);
    kept();
    tell({ kind: 'saved', edit: edit.edit, at: stored.updatedAt });
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
    if (state === 'sending') state = 'resting';
  }

  return {
    add(edit) {
      waiting.push(edit);
      kept();
      runInBackground(sendAll());
    },
    hold() {
      state = 'held';
    },
    resume(edit, mine) {
      if (state === 'stopped') return;
      serverEdit = edit;
      waiting = mine ? [mine] : [];
      kept();
      state = 'resting';
      if (mine) runInBackground(sendAll());
    },
    stop() {
      state = 'stopped';
    },
  };
}
