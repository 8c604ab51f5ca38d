import { configureStore, type Action, type ThunkAction } from '@reduxjs/toolkit';
import type { ProjectDocument } from '@crooked-lantern/core';
import { useCallback } from 'react';
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

function openIn({ project }: RootState): ProjectState {
  if (project.status !== 'open') throw new Error('No project is open.');
  return project;
}

/** The open project, for parts that are shown only while there is one. */
export function useProject<T>(
  select: (project: ProjectState) => T,
  isSame?: (before: T, after: T) => boolean,
): T {
  return useAppSelector((state) => select(openIn(state)), isSame);
}

/** Reads the open document when something is done with it, so that nothing is rendered whenever it changes. */
export function useDocumentNow(): () => ProjectDocument {
  const store = useAppStore();
  return useCallback(() => openIn(store.getState()).document, [store]);
}
