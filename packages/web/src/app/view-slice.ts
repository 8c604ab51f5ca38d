import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export interface Overlays {
  sight: boolean;
  paths: boolean;
  routes: boolean;
}

export interface ViewState {
  overlays: Overlays;
  /** The command list is open. */
  commandList: boolean;
}

const STORED_AS = 'crooked-lantern.overlays';

function storedOverlays(): Overlays {
  const standard: Overlays = { sight: true, paths: true, routes: true };
  try {
    return {
      ...standard,
      ...(JSON.parse(localStorage.getItem(STORED_AS) ?? '{}') as Partial<Overlays>),
    };
  } catch {
    return standard;
  }
}

const slice = createSlice({
  name: 'view',
  initialState: (): ViewState => ({ overlays: storedOverlays(), commandList: false }),
  reducers: {
    overlayToggled(state, { payload }: PayloadAction<keyof Overlays>) {
      state.overlays[payload] = !state.overlays[payload];
      localStorage.setItem(STORED_AS, JSON.stringify(state.overlays));
    },
    commandListShown(state, { payload }: PayloadAction<boolean>) {
      state.commandList = payload;
    },
  },
});

export const { overlayToggled, commandListShown } = slice.actions;
export const viewReducer = slice.reducer;
