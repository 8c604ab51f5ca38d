import type { Page } from 'playwright-core';

/** A keyboard that counts what is pressed: each letter is one. */
export interface CountedKeys {
  press(...keys: string[]): Promise<void>;
  type(text: string): Promise<void>;
  readonly count: number;
}

export function countedKeys(page: Page): CountedKeys {
  let count = 0;
  return {
    async press(...keys) {
      for (const key of keys) {
        await page.keyboard.press(key);
        count++;
      }
    },
    async type(text) {
      await page.keyboard.type(text);
      count += text.length;
    },
    get count() {
      return count;
    },
  };
}
