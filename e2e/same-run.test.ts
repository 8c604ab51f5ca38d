import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import { DEMO_MINDS, pause, tick, untilRunning } from './testing/minds-page.fixture.ts';

const ROOT = path.resolve(import.meta.dirname, '..');

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** The last line `lantern run` prints for a demo. */
function lastLine(
  seed: number,
  demo = 'night-watch',
  seconds = 30,
): { type: string; tick: number; hash: string } {
  const result = spawnSync(
    process.execPath,
    [
      'scripts/lantern.mjs',
      'run',
      `demo/${demo}.lantern.json`,
      '--seed',
      String(seed),
      '--seconds',
      String(seconds),
      '--json',
    ],
    {
      cwd: ROOT,
      encoding: 'utf8',
      maxBuffer: 64 * 1_048_576,
    },
  );
  expect(result.stderr).toBe('');
  return JSON.parse(result.stdout.trim().split('\n').pop()!) as ReturnType<typeof lastLine>;
}

describe('the same run comes back', () => {
  it('in Node and in Chromium, tick for tick; another seed gives another', async () => {
    const seven = lastLine(7);
    expect(seven).toEqual({
      type: 'hash',
      tick: 1800,
      hash: expect.stringMatching(/^[0-9a-f]{16}$/) as string,
    });
    expect(lastLine(7)).toEqual(seven);
    const eight = lastLine(8);
    expect(eight.hash).not.toBe(seven.hash);
    for (const [seed, { hash }] of [
      [7, seven],
      [8, eight],
    ] as const) {
      const page = await app.open(`${DEMO_MINDS}?tick=1800&seed=${seed}`);
      await page.getByTestId('hash').waitFor();
      expect(await tick(page)).toBe(1800);
      expect(await page.getByTestId('hash').innerText()).toBe(hash);
      await page.context().close();
    }
  });

  it.each(['windfall', 'harvest-night', 'hive-day', 'bell-hours'])(
    'in Node and in Chromium, with a director and all that comes and goes: %s',
    async (demo) => {
      const { hash } = lastLine(5, demo, 15);
      const page = await app.open(`/projects/${demo}/watch?tick=900&seed=5`);
      await page.getByTestId('hash').waitFor();
      expect(await tick(page)).toBe(900);
      expect(await page.getByTestId('hash').innerText()).toBe(hash);
    },
  );

  it('when one goes back and comes to the same tick again', async () => {
    const page = await app.open(`${DEMO_MINDS}?tick=600&seed=7`);
    const hash = page.getByTestId('hash');
    await hash.waitFor();
    const at600 = await hash.innerText();
    await page.getByRole('button', { name: 'One tick back (,)' }).click();
    await expect.poll(() => tick(page)).toBe(599);
    expect(await hash.innerText()).not.toBe(at600);
    const playhead = page.getByRole('slider', { name: 'Playhead' });
    await playhead.focus();
    await page.keyboard.press('Home');
    await expect.poll(() => tick(page)).toBe(0);
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => tick(page)).toBe(60);
    await page.keyboard.press('End');
    await expect.poll(() => tick(page)).toBe(600);
    expect(await hash.innerText()).toBe(at600);
  });

  it('when a link is opened that names the tick', async () => {
    const page = await app.open(DEMO_MINDS);
    await untilRunning(page);
    await pause(page);
    const hash = await page.getByTestId('hash').innerText();
    await expect.poll(() => page.url()).toContain(`tick=${await tick(page)}`);
    const link = new URL(page.url());
    const other = await app.open(link.pathname + link.search);
    await other.getByTestId('hash').waitFor();
    expect(await other.getByTestId('hash').innerText()).toBe(hash);
  });
});
