import type { Page } from 'playwright-core';
import { LAYOUTS } from '../../packages/web/src/minds/plan/kept-layouts.ts';

/**
 * The layouts of plans that pages have kept, which the next ones find: to make them anew takes as long as all else
 * that a page begins with.
 */
let kept: [name: string, value: string][] = [];

export async function takeLayouts(page: Page, address: string): Promise<void> {
  if (!page.url().startsWith(address)) return;
  kept = await page.evaluate(
    (prefix) => Object.entries(localStorage).filter(([name]) => name.startsWith(prefix)),
    LAYOUTS,
  );
}

/** Puts the kept layouts into every page it opens that has none of its own. */
export async function giveLayouts(page: Page): Promise<void> {
  await page.addInitScript(
    ([list, layouts]) => {
      if (location.protocol !== 'http:' || localStorage.getItem(list) !== null) return;
      for (const [name, value] of layouts) localStorage.setItem(name, value);
    },
    [LAYOUTS, kept] as const,
  );
}
