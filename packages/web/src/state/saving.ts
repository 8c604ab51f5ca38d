import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { api, ApiError } from '../api/client.ts';
import {
  changed,
  editSaved,
  mineKept,
  redone,
  savingChanged,
  theirsTaken,
  undone,
  type ProjectSlot,
} from './project-slice.ts';
import { dropStash, stash } from './stash.ts';

/**
 * Saves as you go: every edit in its turn, one at a time. Where the server can't take one now the work
 * stays here and in the browser's own storage, and is tried again.
 */

const RETRY_MS = [1000, 2000, 4000, 8000];

interface WithProject {
  project: ProjectSlot;
}

export const saving = createListenerMiddleware<WithProject>();

type Dispatch = (action: { type: string }) => unknown;

interface Listening {
  getState(): WithProject;
  dispatch: Dispatch;
  delay(ms: number): Promise<unknown>;
}

/** One saver works at a time; it looks anew at what is unsaved before each write. */
let isSaving = false;

saving.startListening({
  matcher: isAnyOf(changed, undone, redone, mineKept),
  effect: async (_, listening) => {
    if (isSaving) return;
    isSaving = true;
    try {
      await saveAll(listening);
    } finally {
      isSaving = false;
    }
  },
});

async function saveAll({ getState, dispatch, delay }: Listening): Promise<void> {
  for (let failures = 0; ;) {
    const { project } = getState();
    if (project.status !== 'open' || project.unsaved.length === 0) return;
    const [next] = project.unsaved;
    stash(project.id, next.edit - 1, project.document);
    if (failures === 0) dispatch(savingChanged({ kind: 'saving' }));
    try {
      const saved = await api.write(project.id, next.edit - 1, next.document);
      failures = 0;
      dispatch(editSaved({ edit: saved.edit, at: saved.updatedAt }));
      dropStashWhenDone(getState().project);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.status === 412) {
        if (await settledBefore(project.id, next.edit, next.document, dispatch)) continue;
        return;
      }
      if (!error.passing) {
        dispatch(savingChanged({ kind: 'refused', message: error.message }));
        return;
      }
      dispatch(savingChanged({ kind: 'waiting', message: error.message }));
      await delay(RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)]);
    }
  }
}

function dropStashWhenDone(project: ProjectSlot): void {
  if (project.status === 'open' && project.unsaved.length === 0) dropStash(project.id);
}

/**
 * A stale edit may be our own, saved before the answer was lost: then it counts as saved (true). Else
 * the page shows both (false).
 */
async function settledBefore(
  id: string,
  edit: number,
  document: unknown,
  dispatch: Dispatch,
): Promise<boolean> {
  const theirs = await api.read(id);
  if (theirs.edit === edit && JSON.stringify(theirs.document) === JSON.stringify(document)) {
    dispatch(editSaved({ edit, at: theirs.updatedAt }));
    return true;
  }
  dispatch(savingChanged({ kind: 'conflict', theirs }));
  return false;
}

saving.startListening({
  matcher: isAnyOf(theirsTaken),
  effect: (_, { getState }) => {
    dropStashWhenDone(getState().project);
  },
});
