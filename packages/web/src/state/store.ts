import { configureStore, type Action, type ThunkAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { projectReducer, type ProjectSlot, type ProjectState } from './project-slice.ts';
import { createSaving } from './saving.ts';
import { themeReducer, type ThemeChoice } from './theme-slice.ts';
import { viewReducer, type ViewState } from './view-slice.ts';

export interface RootState {
  project: ProjectSlot;
  theme: ThemeChoice;
  view: ViewState;
}

export function createStore() {
  return configureStore({
    reducer: { project: projectReducer, theme: themeReducer, view: viewReducer },
    middleware: (defaults) =>
      // Documents are large and plain; walking them after each action to prove it costs more than it tells.
      defaults({ serializableCheck: false, immutableCheck: false }).prepend(
        createSaving().middleware,
      ),
  });
}

export type AppStore = ReturnType<typeof createStore>;
export type AppThunk<T> = ThunkAction<T, RootState, unknown, Action>;

export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppStore = useStore.withTypes<AppStore>();
export const useAppSelector = useSelector.withTypes<RootState>();

/** The open project, for parts that are shown only while there is one. */
export function useProject<T>(
  select: (project: ProjectState) => T,
  isSame?: (before: T, after: T) => boolean,
): T {
  return useAppSelector(({ project }) => {
    if (project.status !== 'open') throw new Error('No project is open.');
    return select(project);
  }, isSame);
}
