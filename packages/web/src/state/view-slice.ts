import { isObject } from '@crooked-lantern/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { readKept } from './kept-settings.ts';

/** What can be drawn over the ground, with the key that shows and hides it. */
export const OVERLAYS = [
  { id: 'sight', name: 'sight', key: 'Digit1', tint: 'var(--sight)' },
  { id: 'sound', name: 'sound', key: 'Digit2', tint: 'var(--sound)' },
  { id: 'light', name: 'light', key: 'Digit3', tint: 'var(--found)' },
  { id: 'wicks', name: 'awareness', key: 'Digit4', tint: 'var(--lampText)' },
  { id: 'known', name: 'known', key: 'Digit5', tint: 'var(--sight)' },
  { id: 'paths', name: 'paths', key: 'Digit6', tint: 'var(--done)' },
  { id: 'routes', name: 'routes', key: 'Digit7', tint: 'var(--bone)' },
  { id: 'forces', name: 'forces', key: 'Digit8', tint: 'var(--refuse)' },
  { id: 'places', name: 'searched', key: 'Digit9', tint: 'var(--told)' },
  { id: 'walkable', name: 'walkable', key: 'KeyW', tint: 'var(--done)' },
] as const;

type OverlayId = (typeof OVERLAYS)[number]['id'];
type Overlays = Record<OverlayId, boolean>;

export interface ViewState {
  overlays: Overlays;
  /** Whether what was never done is shown where minds are edited, and whether all kept runs count or this one alone. */
  coverage: { shown: boolean; over: boolean };
  /** The command list is open. */
  commandList: boolean;
  /** The page of the reference that is open; empty for none in particular, null while it is closed. */
  reference: string | null;
  /** The sheet of shortcuts is open. */
  shortcuts: boolean;
  /** The history of edits is open. */
  history: boolean;
}

const STORED_AS = 'crooked-lantern.overlays';

function storedOverlays(): Overlays {
  const standard: Overlays = {
    sight: true,
    sound: true,
    light: true,
    wicks: true,
    known: false,
    paths: true,
    routes: true,
    forces: false,
    places: true,
    walkable: false,
  };
  return { ...standard, ...readKept(STORED_AS, isOverlays) };
}

function isOverlays(value: unknown): value is Partial<Overlays> {
  return isObject(value) && Object.values(value).every((shown) => typeof shown === 'boolean');
}

const slice = createSlice({
  name: 'view',
  initialState: (): ViewState => ({
    overlays: storedOverlays(),
    coverage: { shown: false, over: false },
    commandList: false,
    reference: null,
    shortcuts: false,
    history: false,
  }),
  reducers: {
    overlayToggled(state, { payload }: PayloadAction<OverlayId>) {
      state.overlays[payload] = !state.overlays[payload];
      localStorage.setItem(STORED_AS, JSON.stringify(state.overlays));
    },
    coverageShown({ coverage }, { payload }: PayloadAction<boolean>) {
      coverage.shown = payload;
    },
    coverageOver({ coverage }, { payload }: PayloadAction<boolean>) {
      coverage.over = payload;
    },
    commandListShown(state, { payload }: PayloadAction<boolean>) {
      state.commandList = payload;
    },
    referenceShown(state, { payload }: PayloadAction<string | null>) {
      state.reference = payload;
    },
    historyShown(state, { payload }: PayloadAction<boolean>) {
      state.history = payload;
    },
    shortcutsShown(state, { payload }: PayloadAction<boolean>) {
      state.shortcuts = payload;
    },
  },
});

export const {
  overlayToggled,
  coverageShown,
  coverageOver,
  commandListShown,
  historyShown,
  referenceShown,
  shortcutsShown,
} = slice.actions;
export const viewReducer = slice.reducer;
