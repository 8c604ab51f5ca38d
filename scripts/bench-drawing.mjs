import { largeProject, NIGHT_WATCH, rounded } from '../bench/dist/main.js';
import { measuredScript } from './measured-script.mjs';
import { addProject, withApplication } from './with-application.mjs';

const WARDENS = 178;
/** Until all is drawn for the first time. */
const WARM_UP_MS = 3000;

/**
 * Milliseconds of script that the page takes for each frame it draws, with 200 agents of Night Watch and
 * every overlay shown: all of the Minds page, the ledger's lanes included. What the engine's worker takes
 * is not in it.
 * @returns {Promise<import('../bench/dist/measure.js').Figure>}
 */
export function measureDrawing() {
  return withApplication(async ({ address, browser }) => {
    const document = largeProject(WARDENS, undefined, NIGHT_WATCH);
    const where = await addProject(address, document);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}${where}/minds/warden`);
    const hidden = page
      .getByRole('button', { name: /^Show / })
      .and(page.locator('[aria-pressed="false"]'));
    await page.getByRole('button', { name: 'Pause (P)' }).waitFor();
    while ((await hidden.count()) > 0) await hidden.first().click();
    await page.waitForTimeout(WARM_UP_MS);

    const { ms, frames } = await measuredScript(page);
    return {
      figure: 'draw.script_ms',
      value: rounded(ms),
      unit: 'ms of script a frame, 200 agents, all overlays',
      goal: '≤ 8',
      detail: { frames },
    };
  });
}
