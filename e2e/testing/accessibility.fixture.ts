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
