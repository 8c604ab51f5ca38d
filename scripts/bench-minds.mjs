import { largeMind, rounded } from '../bench/dist/main.js';
import { measuredScript, ticksShown } from './measured-script.mjs';
import { addProject, withApplication } from './with-application.mjs';

const PRESSES = 31;
/** Milliseconds between presses, as of one who types quickly: what the press before set going does not count. */
const PACE_MS = 250;

/** In the page: how long it takes from the next key press until the row says it is off or on, and that edit runs. */
function watchNextPress() {
  const running = () =>
    /edit (\d+) · live/.exec(document.querySelector('header')?.textContent ?? '')?.[1];
  const off = () => document.activeElement?.getAttribute('data-off');
  const before = { running: running(), off: off() };
  let pressed = 0;
  addEventListener('keydown', ({ timeStamp }) => (pressed = timeStamp), {
    once: true,
    capture: true,
  });
  /** @type {any} */ (globalThis).pressTaken = new Promise((resolve) => {
    const look = () => {
      const [edit, now] = [running(), off()];
      if (now !== before.off && edit !== undefined && edit !== before.running)
        resolve(performance.now() - pressed);
      else requestAnimationFrame(look);
    };
    look();
  });
}

/**
 * Milliseconds from a key press in a mind of 40 states and a tree of 500 rows until what it changed is on the
 * page and the edit is checked and runs; and of script that the page takes for a frame while the tree is
 * shown and all its rows run.
 * @returns {Promise<import('../bench/dist/measure.js').Figure[]>}
 */
export function measureMinds() {
  return withApplication(async ({ address, browser }) => {
    const where = await addProject(address, largeMind());
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}${where}/minds/warden?agent=warden1&sheet=trees.large`);
    const row = page.getByRole('row').nth(4);
    await row.waitFor();
    while ((await ticksShown(page)) < 60) await page.waitForTimeout(100);
    const script = await measuredScript(page);

    await row.focus();
    const times = [];
    for (let i = 0; i < PRESSES; i++) {
      await page.waitForTimeout(PACE_MS);
      await page.evaluate(watchNextPress);
      await page.keyboard.press('o');
      times.push(Number(await page.evaluate(() => /** @type {any} */ (globalThis).pressTaken)));
    }
    times.sort((a, b) => a - b);
    /** @type {import('../bench/dist/measure.js').Figure[]} */
    const figures = [
      {
        figure: 'edit.visible_ms',
        value: rounded(times[PRESSES >> 1]),
        unit: 'ms from a key press until shown, checked and in force, 40 states and 550 rows',
        goal: '<= 50',
        detail: { presses: PRESSES, slowest: rounded(times[PRESSES - 1]) },
      },
      {
        figure: 'outline.script_ms',
        value: rounded(script.ms),
        unit: 'ms of script a frame, a tree of 550 rows that all run',
        goal: '<= 4',
        detail: { frames: script.frames },
      },
    ];
    return figures;
  });
}
