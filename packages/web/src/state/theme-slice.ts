import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type ThemeChoice = 'system' | 'night' | 'day';

const STORED_AS = 'crooked-lantern.theme';

function stored(): ThemeChoice {
  const value = localStorage.getItem(STORED_AS);
  return value === 'night' || value === 'day' ? value : 'system';
}

const slice = createSlice({
  name: 'theme',
  initialState: stored,
  reducers: { themeChosen: (_, { payload }: PayloadAction<ThemeChoice>) => payload },
});

export const { themeChosen } = slice.actions;
export const themeReducer = slice.reducer;

/** Shows a choice and keeps it for the next visit. */
export function applyTheme(choice: ThemeChoice): void {
  if (choice === 'system') {
    delete document.documentElement.dataset.theme;
    localStorage.removeItem(STORED_AS);
  } else {
    document.documentElement.dataset.theme = choice;
    localStorage.setItem(STORED_AS, choice);
  }
}

const systemDay = matchMedia('(prefers-color-scheme: light)');

export function isDay(choice: ThemeChoice): boolean {
  return choice === 'system' ? systemDay.matches : choice === 'day';
}

export function onSystemThemeChange(listener: () => void): () => void {
  systemDay.addEventListener('change', listener);
  return () => systemDay.removeEventListener('change', listener);
}
