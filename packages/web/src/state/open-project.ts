import { api, ApiError } from '../api/client.ts';
import type { AppThunk } from './store.ts';
import { changed, opened, opening, openingFailed, savingChanged } from './project-slice.ts';
import { dropStash, readStash } from './stash.ts';

/** Opens a project; work of an earlier visit that the server never took comes back with it. */
export function openProject(id: string): AppThunk<Promise<void>> {
  return async (dispatch) => {
    dispatch(opening(id));
    try {
      const project = await api.read(id);
      dispatch(opened(project));
      const kept = readStash(id);
      if (!kept) return;
      if (JSON.stringify(kept.document) === JSON.stringify(project.document)) return dropStash(id);
      dispatch(changed({ document: kept.document, label: 'unsaved work of the last visit' }));
      if (kept.basedOn !== project.edit)
        dispatch(savingChanged({ kind: 'conflict', theirs: project }));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      dispatch(openingFailed({ id, message: error.message }));
    }
  };
}
