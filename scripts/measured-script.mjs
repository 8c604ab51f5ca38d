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
 * Milliseconds of script that a page takes for each frame it draws of a run that goes on, the median of some
 * rounds; what workers take is not in it.
 * @param {import('playwright-core').Page} page
 */
export async function measuredScript(page) {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const scriptSeconds = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? NaN;
  };
  const rounds = [];
  for (let i = 0; i < ROUNDS; i++) {
    const [script, tick] = [await scriptSeconds(), await ticksShown(page)];
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
    const frames = Math.min(displayed, (await ticksShown(page)) - tick);
    rounds.push({ ms: (((await scriptSeconds()) - script) * 1000) / frames, frames });
  }
  rounds.sort((a, b) => a.ms - b.ms);
  return rounds[ROUNDS >> 1];
}
