import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from 'playwright-core';

/** What axe finds serious or worse, with where. */
export async function seriousFaults(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id}: ${nodes.map(({ html, failureSummary }) => `${html} ${failureSummary}`).join('\n')}`,
    );
}

/** The same in both themes, which follow the system's setting while the page is open. */
export async function faultsInBothThemes(page: Page): Promise<string[]> {
  const faults: string[] = [];
  for (const colorScheme of ['dark', 'light'] as const) {
    await page.emulateMedia({ colorScheme });
    faults.push(...(await seriousFaults(page)).map((fault) => `${colorScheme}: ${fault}`));
  }
  return faults;
}
