import { useEffect, useState } from 'react';
import { useAppSelector } from '../state/store.ts';
import { isDay, onSystemThemeChange } from '../state/theme-slice.ts';
import { DAY, NIGHT, type Tokens } from './tokens.ts';

/** The colours in force, for what is drawn on a canvas; follows the choice and the system. */
export function useTokens(): Tokens {
  const theme = useAppSelector((state) => state.theme);
  const [, renew] = useState(0);
  useEffect(() => onSystemThemeChange(() => renew((count) => count + 1)), []);
  return isDay(theme) ? DAY : NIGHT;
}
