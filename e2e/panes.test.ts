import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilRunning } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

const border = (page: Page, of: string) => page.getByRole('separator', { name: `Size of ${of}` });
const box = async (page: Page, role: 'region' | 'navigation', name: string) =>
  (await page.getByRole(role, { name }).boundingBox())!;

describe('the parts of a page', () => {
  it('are made larger by dragging, and stay so over a reload', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`);
    await untilRunning(page);
    const before = await box(page, 'navigation', 'Minds');
    await border(page, 'the list of minds').hover();
    await page.mouse.down();
    await page.mouse.move(before.width + 80, 300, { steps: 4 });
    await page.mouse.up();
    const dragged = await box(page, 'navigation', 'Minds');
    expect(dragged.width - before.width).toBeGreaterThan(60);
    await page.reload();
    await untilRunning(page);
    expect((await box(page, 'navigation', 'Minds')).width).toBeCloseTo(dragged.width, -1);
    await page.keyboard.press('Control+k');
    await page.getByRole('searchbox', { name: 'Find a command' }).fill('usual sizes');
    await page.keyboard.press('Enter');
    await expect
      .poll(async () => (await box(page, 'navigation', 'Minds')).width)
      .toBeCloseTo(before.width, -1);
  });

  it('are moved and folded by the keyboard alone, whichever side of their border they are on', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`);
    await untilRunning(page);
    const { height } = await box(page, 'region', 'Ledger');
    await border(page, 'the ledger').focus();
    await page.keyboard.press('ArrowUp');
    expect((await box(page, 'region', 'Ledger')).height).toBeGreaterThan(height);
    await page.keyboard.press('Enter');
    const folded = await box(page, 'region', 'Ledger');
    expect(folded.height).toBeLessThan(50);
    // What a folded ledger keeps is its transport.
    const pause = (await page.getByRole('button', { name: 'Pause (P)' }).boundingBox())!;
    expect(pause.y + pause.height).toBeLessThanOrEqual(800);
    await border(page, 'the ground').focus();
    await page.keyboard.press('Enter');
    expect((await box(page, 'region', 'Ground')).width).toBeLessThan(2);
    await page.keyboard.press('Alt+3');
    expect((await box(page, 'region', 'Ground')).width).toBeGreaterThan(300);
    expect(await seriousFaults(page)).toEqual([]);
  });
});

describe('magnified to twice its size', () => {
  it('the running ground and the transport stay in sight wherever the page is scrolled to', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`, {
      viewport: { width: 640, height: 400 },
    });
    await untilRunning(page);
    const areInSight = async () => {
      const ground = (await page.getByTestId('ground').boundingBox())!;
      const transport = (await page.getByRole('button', { name: 'Pause (P)' }).boundingBox())!;
      expect(ground.y).toBeGreaterThanOrEqual(0);
      expect(ground.height).toBeGreaterThan(100);
      expect(transport.y).toBeGreaterThanOrEqual(ground.y + ground.height);
      expect(transport.y + transport.height).toBeLessThanOrEqual(400);
    };
    await areInSight();
    for (const name of ['on exit', 'last 40 s']) {
      await page.getByText(name).first().scrollIntoViewIfNeeded();
      await areInSight();
    }
    await page.getByRole('link', { name: 'Watch', exact: true }).click();
    await page.getByText('An answer is about one moment.').waitFor();
    await areInSight();
    await page.getByText('last 40 s').first().scrollIntoViewIfNeeded();
    await areInSight();
  });
});
