import { largeProject, NIGHT_WATCH, rounded } from '../bench/dist/main.js';
import { addProject, withApplication } from './with-application.mjs';

const WARDENS = 178;
const ROUNDS = 5;
const ROUND_MS = 3000;

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
    const ticks = async () => {
      const text = await page.getByTestId('clock').innerText();
      return Number(/tick (\d+)/.exec(text)?.[1] ?? 0);
    };
    const hidden = page
      .getByRole('button', { name: /^Show / })
      .and(page.locator('[aria-pressed="false"]'));
    await page.getByRole('button', { name: 'Pause (P)' }).waitFor();
    while ((await hidden.count()) > 0) await hidden.first().click();
    await page.waitForTimeout(ROUND_MS);

    const session = await page.context().newCDPSession(page);
    await session.send('Performance.enable');
    const scriptSeconds = async () => {
      const { metrics } = await session.send('Performance.getMetrics');
      return metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? NaN;
    };
    const rounds = [];
    for (let i = 0; i < ROUNDS; i++) {
      const [script, tick] = [await scriptSeconds(), await ticks()];
      // A frame is sent at most once a display frame, and one that is drawn has a tick of its own.
      const displayed = await page.evaluate(
        (ms) =>
          new Promise((resolve) => {
            let frames = 0;
            const end = performance.now() + ms;
            const count = () => {
              frames++;
              if (performance.now() < end) requestAnimationFrame(count);
              else resolve(frames);
            };
            requestAnimationFrame(count);
          }),
        ROUND_MS,
      );
      const frames = Math.min(displayed, (await ticks()) - tick);
      rounds.push({ ms: (((await scriptSeconds()) - script) * 1000) / frames, frames });
    }
    rounds.sort((a, b) => a.ms - b.ms);
    const { ms, frames } = rounds[ROUNDS >> 1];
    return {
      figure: 'draw.script_ms',
      value: rounded(ms),
      unit: 'ms of script a frame, 200 agents, all overlays',
      goal: '≤ 8',
      detail: { frames, seconds: ROUND_MS / 1000 },
    };
  });
}
