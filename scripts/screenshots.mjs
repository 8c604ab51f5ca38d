import { mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt } from './build.mjs';
import { CHROMIUM_FLAGS, ensureChromium } from './chromium.mjs';
import { ensurePackages } from './install.mjs';
import { freePort, startCluster, temporaryFolder } from './postgres.mjs';
import { checkNode, ROOT, runScript, say } from './project.mjs';

/** @typedef {import('playwright-core').Page} Page */

const MIND = '/projects/night-watch/minds/warden';

/** @param {Page} page @param {string} state */
const untilLit = (page, state) =>
  page
    .locator(`[data-state="${state}"][data-active="true"]`)
    .waitFor({ state: 'attached', timeout: 60_000 });

/**
 * Walks the gleaner into the way of the second warden and stops when it is chased.
 * @param {Page} page
 */
async function beChased(page) {
  await page.getByTestId('ground').click();
  await page.keyboard.down('ArrowUp');
  await page.waitForTimeout(2600);
  await page.keyboard.up('ArrowUp');
  await untilLit(page, 'chase');
  await page.waitForTimeout(350);
  await page.keyboard.press('p');
  await page.getByTestId('hash').waitFor();
}

/**
 * Is seen, runs off around a wall, and stops when the warden looks about where it lost sight.
 * @param {Page} page
 */
async function beCombedFor(page) {
  await page.getByTestId('ground').click();
  await page.keyboard.down('ArrowUp');
  await page.waitForTimeout(2600);
  await page.keyboard.up('ArrowUp');
  await untilLit(page, 'chase');
  await page.keyboard.down('Shift');
  for (const [key, time] of /** @type {const} */ ([
    ['ArrowLeft', 1900],
    ['ArrowUp', 1500],
    ['ArrowLeft', 1600],
    ['ArrowUp', 900],
  ])) {
    await page.keyboard.down(key);
    await page.waitForTimeout(time);
    await page.keyboard.up(key);
  }
  await page.keyboard.up('Shift');
  await page.locator('li[data-result="running"]', { hasText: 'Left' }).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(250);
  await page.keyboard.press('p');
  await page.getByTestId('hash').waitFor();
}

/** @type {{ file: string, where: string, scheme?: 'light', act: (page: Page) => Promise<void> }[]} */
const SHOTS = [
  {
    file: 'home.png',
    where: '/',
    act: (page) => page.getByRole('link', { name: 'Night Watch' }).waitFor(),
  },
  { file: 'minds.png', where: `${MIND}?agent=warden2`, act: beChased },
  {
    file: 'minds-day.png',
    where: `${MIND}?agent=warden2&state=comb&tick=900`,
    scheme: 'light',
    act: async (page) => void (await page.locator('[data-state="comb"]').waitFor()),
  },
  { file: 'minds-tree.png', where: `${MIND}?agent=warden2&state=comb`, act: beCombedFor },
  {
    file: 'minds-editing.png',
    where: `${MIND}?agent=warden2&state=chase`,
    async act(page) {
      await beChased(page);
      await page.getByRole('button', { name: 'Close view (0)' }).click();
      await page.getByRole('button', { name: /^guard of transition 1 of Chase/ }).click();
      await page.getByRole('textbox', { name: 'guard of transition 1 of Chase' }).waitFor();
      await page.keyboard.press('Control+a');
      await page.keyboard.type('sees(quarry) && dist', { delay: 30 });
      await page
        .getByRole('option', { name: /distance/ })
        .first()
        .waitFor();
    },
  },
];

// Takes the pictures the README shows, from the demo, on a database of its own.
await runScript(async () => {
  checkNode();
  ensurePackages();
  const executablePath = ensureChromium();
  ensureBuilt(['programs', 'pages']);
  const { chromium } = await import('playwright-core');
  const { serve } = await import('../packages/server/dist/index.js');
  const folder = temporaryFolder();
  const cluster = await startCluster({ folder, durable: false });
  const serving = await serve({
    databaseUrl: cluster.url,
    port: await freePort(),
    pages: path.join(ROOT, 'packages/web/dist'),
    demos: path.join(ROOT, 'demo'),
  });
  const browser = await chromium.launch({ executablePath, args: CHROMIUM_FLAGS });
  const target = path.join(ROOT, 'docs/screenshots');
  mkdirSync(target, { recursive: true });
  try {
    for (const { file, where, scheme, act } of SHOTS) {
      const page = await browser.newPage({
        viewport: { width: 1280, height: 800 },
        colorScheme: scheme ?? 'dark',
      });
      await page.goto(serving.address + where);
      await act(page);
      await page.waitForTimeout(300);
      await page.screenshot({ path: path.join(target, file) });
      await page.close();
      say(`docs/screenshots/${file}`);
    }
  } finally {
    await browser.close();
    await serving.close();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
