const ROUNDS = 5;
const ROUND_MS = 3000;

/**
 * The tick that the page shows.
 * @param {import('playwright-core').Page} page
 */
export async function ticksShown(page) {
  const text = await page.getByTestId('clock').innerText();
  return Number(/tick (\d+)/.exec(text)?.[1] ?? 0);
}

/**
 * Milliseconds of script that a page takes for each frame while something is done; what workers take is not in it.
 * @param {import('playwright-core').Page} page
 * @param {(ms: number) => Promise<number>} act does it for so many milliseconds; returns how many frames that were
 */
export async function scriptPerFrame(page, act) {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const scriptSeconds = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? NaN;
  };
  const before = await scriptSeconds();
  const frames = await act(ROUND_MS);
  const ms = (((await scriptSeconds()) - before) * 1000) / frames;
  await session.detach();
  return { ms, frames };
}

/**
 * Milliseconds of script that a page takes for each frame it draws of a run that goes on, the median of some
 * rounds.
 * @param {import('playwright-core').Page} page
 */
export async function measuredScript(page) {
  /** @type {{ ms: number, frames: number }[]} */
  const rounds = [];
  for (let i = 0; i < ROUNDS; i++) {
    const tick = await ticksShown(page);
    rounds.push(
      await scriptPerFrame(page, async (ms) => {
        // A frame is sent at most once a display frame, and one that is drawn has a tick of its own.
        const displayed = await page.evaluate(
          (length) =>
            new Promise((resolve) => {
              let frames = 0;
              const end = performance.now() + length;
              const count = () => {
                frames++;
                if (performance.now() < end) requestAnimationFrame(count);
                else resolve(frames);
              };
              requestAnimationFrame(count);
            }),
          ms,
        );
        return Math.min(displayed, (await ticksShown(page)) - tick);
      }),
    );
  }
  rounds.sort((a, b) => a.ms - b.ms);
  return rounds[ROUNDS >> 1];
}
