import { api, ApiError } from '../api/client.ts';
import type { AppThunk } from './store.ts';
import { opened, opening, openingFailed, recovered } from './project-slice.ts';
import { readHistory } from './undo.ts';
import { dropStash, readStash } from './stash.ts';
import { reportFailure, runInBackground } from './failures.ts';
import { download } from '../ui/download.ts';

function tellSetAside(text: string): void {
  reportFailure({
    title:
      'Unsaved work of an earlier visit can’t be read. It was set aside, and the project is open as it was saved last.',
    report: text,
    retry: {
      label: 'Download it',
      run: () => download('unsaved-work.json', 'application/json', text),
    },
  });
}

/** Opens a project; work of an earlier visit that the server never took comes back with it. */
export function openProject(id: string): AppThunk<Promise<void>> {
  return async (dispatch, getState) => {
    dispatch(opening(id));
    const loading = getState().project;
    // While the server answers, the project can be left, or be opened a second time.
    const isLeft = () => getState().project !== loading;
    try {
      const project = await api.read(id);
      if (isLeft()) return;
      dispatch(opened(project));
      runInBackground(dispatch(readHistory(id, project.edit)));
      const kept = readStash(id, tellSetAside);
      if (!kept) return;
      if (JSON.stringify(kept.document) === JSON.stringify(project.document)) return dropStash(id);
      dispatch(recovered(kept));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (isLeft()) return;
      dispatch(openingFailed({ id, message: error.message }));
    }
  };
}
