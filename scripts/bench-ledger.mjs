import { largeProject, NIGHT_WATCH, rounded } from '../bench/dist/main.js';
import { scriptPerFrame, ticksShown } from './measured-script.mjs';
import { addProject, withApplication } from './with-application.mjs';

const WARDENS = 178;
const MINUTES = 30;
/** Until so much is run, at the latest. */
const PATIENCE_MS = 900_000;
const ROUNDS = 5;

/**
 * Milliseconds of script that the page takes for each frame while 200 lanes of half an hour are scrolled and
 * zoomed; the run rests.
 * @returns {Promise<import('../bench/dist/measure.js').Figure>}
 */
export function measureLedger() {
  return withApplication(async ({ address, browser }) => {
    const where = await addProject(address, largeProject(WARDENS, undefined, NIGHT_WATCH));
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const last = MINUTES * 60 * 60;
    await page.goto(`${address}${where}/watch?tick=${last}`);
    await page.getByTestId('hash').waitFor({ timeout: PATIENCE_MS });
    if ((await ticksShown(page)) < last) throw new Error('The run rests before it is due.');
    const span = page.getByRole('button', { name: /^Shows the / });
    await span.click();
    await page.getByRole('menuitem', { name: 'whole run' }).click();
    await page.getByRole('slider', { name: 'Playhead' }).focus();
    /** @type {{ ms: number, frames: number }[]} */
    const rounds = [];
    for (let i = 0; i < ROUNDS; i++)
      rounds.push(
        await scriptPerFrame(page, (ms) =>
          page.evaluate(
            (length) =>
              new Promise((resolve) => {
                const lanes = document.querySelector('[data-testid="lanes"]');
                /** @type {Element | null | undefined} */
                let body = lanes;
                while (body && body.scrollHeight <= body.clientHeight + 1)
                  body = body.parentElement;
                let frames = 0;
                const end = performance.now() + length;
                const go = () => {
                  frames++;
                  if (body)
                    body.scrollTop = (frames * 37) % (body.scrollHeight - body.clientHeight);
                  if (frames % 5 === 0)
                    lanes?.dispatchEvent(
                      new WheelEvent('wheel', {
                        ctrlKey: true,
                        deltaY: frames % 50 < 25 ? -1 : 1,
                        cancelable: true,
                      }),
                    );
                  if (performance.now() < end) requestAnimationFrame(go);
                  else resolve(frames);
                };
                requestAnimationFrame(go);
              }),
            ms,
          ),
        ),
      );
    rounds.sort((a, b) => a.ms - b.ms);
    const { ms, frames } = rounds[ROUNDS >> 1];
    return {
      figure: 'ledger.script_ms',
      value: rounded(ms),
      unit: 'ms of script a frame, scrolling and zooming 200 lanes of 30 minutes',
      goal: '≤ 6',
      detail: { frames },
    };
  });
}
