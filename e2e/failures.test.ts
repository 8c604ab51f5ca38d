import type { Page, Worker } from 'playwright-core';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { tick, untilRunning, untilSaved, writeExpression } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(async () => app.close());
// What is planted is told on the console as well.
afterEach(async () => {
  await app.endPages();
});

/** The worker that the engine runs in. */
async function engineOf(page: Page): Promise<Worker> {
  return page.workers().find((worker) => /worker/.test(worker.url()))!;
}

/** Has the engine throw wherever a body's speed is worked out. */
async function breakMotion(page: Page): Promise<void> {
  await (
    await engineOf(page)
  ).evaluate(() => {
    Object.assign(globalThis, { sqrtBefore: Math.sqrt });
    Math.sqrt = () => {
      throw new Error('planted');
    };
  });
}

async function mendMotion(page: Page): Promise<void> {
  await (
    await engineOf(page)
  ).evaluate(() => {
    Math.sqrt = (globalThis as unknown as { sqrtBefore: (x: number) => number }).sqrtBefore;
  });
}

it('an engine that stops says so, keeps what was written, and restarts from its last snapshot', async () => {
  const page = await app.open(await app.newNight());
  await untilRunning(page);
  await breakMotion(page);
  const notice = page.getByRole('alert').filter({ hasText: 'The engine stopped: planted' });
  await notice.waitFor();
  expect(await notice.textContent()).toMatch(/\(.+, tick \d+\)/);
  await page.getByRole('button', { name: 'Run (P)' }).waitFor();
  expect(await seriousFaults(page)).toEqual([]);

  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await notice.getByRole('button', { name: 'Copy report' }).click();
  await notice.getByRole('button', { name: 'Report copied' }).waitFor();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(
    /Engine: planted[\s\S]*phase: \w+[\s\S]*edit: 1/,
  );

  await mendMotion(page);
  const stopped = await tick(page);
  await notice.getByRole('button', { name: 'Restart from the last snapshot' }).click();
  await notice.waitFor({ state: 'detached' });
  await expect.poll(() => tick(page)).toBeGreaterThan(stopped + 60);
});

it('what is written while the engine is stopped is saved, and runs when it goes on', async () => {
  const page = await app.open(`${await app.newNight()}?state=rounds`);
  await untilRunning(page);
  await breakMotion(page);
  await page.getByRole('alert').filter({ hasText: 'The engine stopped' }).waitFor();
  await writeExpression(page, 'guard of transition 2 of Rounds', 'awareness(quarry) > 0.8');
  await untilSaved(page);
  await mendMotion(page);
  await page.getByRole('button', { name: 'Restart from the last snapshot' }).click();
  await page.getByText(/running edit 2/).waitFor();
});

it('a worker that breaks outside of any work is told, with a way to start again', async () => {
  const page = await app.open(await app.newNight());
  await untilRunning(page);
  await (
    await engineOf(page)
  ).evaluate(() => {
    setTimeout(() => {
      throw new Error('planted elsewhere');
    });
  });
  await page.getByRole('alert').filter({ hasText: 'planted elsewhere' }).waitFor();
  const before = await tick(page);
  await expect.poll(() => tick(page)).toBeGreaterThan(before);
});

it('a promise of the page that nothing waits for is told', async () => {
  const page = await app.open('/');
  await page.getByRole('heading').first().waitFor();
  await page.evaluate(() => void Promise.reject(new Error('planted on the page')));
  const notice = page.getByRole('alert').filter({ hasText: 'planted on the page' });
  await notice.waitFor();
  await notice.getByRole('button', { name: 'Dismiss' }).click();
  await notice.waitFor({ state: 'detached' });
});
