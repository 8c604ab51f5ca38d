import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from 'playwright-core';

/** What axe finds serious or worse, with where; by some of its rules, or all. */
export async function seriousFaults(page: Page, rules?: string[]): Promise<string[]> {
  // Our pages hold no pages of others, so that axe needs no page of its own to put together what it finds.
  const builder = new AxeBuilder({ page }).setLegacyMode(true).options({
    resultTypes: ['violations'],
    // Whatever is pressed is 24 pixels wide and high, or has that much room around it.
    rules: { 'target-size': { enabled: true } },
  });
  const { violations } = await (rules ? builder.withRules(rules) : builder).analyze();
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
  // The themes differ in their colours only.
  for (const [colorScheme, rules] of [
    ['dark', undefined],
    ['light', ['color-contrast']],
  ] as const) {
    await page.emulateMedia({ colorScheme });
    const found = await seriousFaults(page, rules && [...rules]);
    faults.push(...found.map((fault) => `${colorScheme}: ${fault}`));
  }
  return faults;
}
