import type { Action } from '@reduxjs/toolkit';
import { api, ApiError } from '../api/client.ts';
import { historyOf } from './history.ts';
import { historyRead, redone, stepRead, undone } from './project-slice.ts';
import type { AppThunk } from './store.ts';

/** Undo and redo, also over edits of earlier visits, whose documents are read when they are asked for. */

/** Finds out what was done before the open edit, as far back as one page of edits goes. Without an answer undo goes back as far as this visit does. */
export function readHistory(id: string, edit: number): AppThunk<Promise<void>> {
  return async (dispatch) => {
    try {
      const page = await api.edits(id, { before: edit + 1 });
      const edits = page.edits.toReversed();
      dispatch(historyRead({ id, ...historyOf(edits) }));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      console.warn('The edits of earlier visits could not be read.', error);
    }
  };
}

/** Returns why it could not be done; null where it was, or there is nothing to do. */
function step(from: 'past' | 'future', take: () => Action): AppThunk<Promise<string | null>> {
  return async (dispatch, getState) => {
    const last = () => {
      const { project } = getState();
      return project.status === 'open' ? { id: project.id, step: project[from].at(-1) } : null;
    };
    const { id, step: wanted } = last() ?? {};
    if (id === undefined || wanted === undefined) return null;
    if (wanted.document === null) {
      try {
        const { document } = await api.readEdit(id, wanted.number);
        // Meanwhile another step may have been taken, or another project opened.
        if (last()?.step !== wanted) return null;
        dispatch(stepRead({ id, from, document }));
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        return error.message;
      }
    }
    dispatch(take());
    return null;
  };
}

export const undo = () => step('past', undone);
export const redo = () => step('future', redone);
