import { battle, largeProject, NIGHT_WATCH, rounded } from '../bench/dist/main.js';
import { measuredScript } from './measured-script.mjs';
import { addProject, withApplication } from './with-application.mjs';

const WARDENS = 178;
const EACH_SIDE = 200;
/** Until all is drawn for the first time. */
const WARM_UP_MS = 3000;

/**
 * Milliseconds of script that a page takes for each frame it draws of a run that goes on, every overlay of the
 * ground shown. What the engine's worker takes is not in it.
 * @param {object} what
 * @param {import('@crooked-lantern/core').ProjectDocument} what.document
 * @param {string} what.place of the page, after the project's address
 * @param {string} what.figure
 * @param {string} what.unit
 * @returns {Promise<import('../bench/dist/measure.js').Figure>}
 */
function measureFrames({ document, place, figure, unit }) {
  return withApplication(async ({ address, browser }) => {
    const where = await addProject(address, document);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}${where}/${place}`);
    const hidden = page
      .getByRole('button', { name: /^Show / })
      .and(page.locator('[aria-pressed="false"]'));
    await page.getByRole('button', { name: 'Pause (P)' }).waitFor();
    while ((await hidden.count()) > 0) await hidden.first().click();
    await page.waitForTimeout(WARM_UP_MS);

    const { ms, frames } = await measuredScript(page);
    return { figure, value: rounded(ms), unit, goal: '≤ 8', detail: { frames } };
  });
}

/** 200 agents of Night Watch, and all of the Minds page, the ledger's lanes included. */
export const measureDrawing = () =>
  measureFrames({
    document: largeProject(WARDENS, undefined, NIGHT_WATCH),
    place: 'minds/warden',
    figure: 'draw.script_ms',
    unit: 'ms of script a frame, 200 agents, all overlays',
  });

/** The battle of Harvest Night, two hundred against two hundred, with its ledger. */
export const measureBattle = () =>
  measureFrames({
    document: battle(EACH_SIDE),
    place: 'watch',
    figure: 'draw.battle_ms',
    unit: 'ms of script a frame, 200 against 200, all overlays',
  });
