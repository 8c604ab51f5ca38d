import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilReady } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('at 1280 × 800', () => {
  it('all of the demo’s lanes are in sight, and the whole plan', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`);
    await untilReady(page);
    const lanes = page.getByRole('region', { name: 'Ledger' }).locator('button[aria-pressed]');
    await expect.poll(() => lanes.count()).toBe(8);
    for (const lane of await lanes.all()) {
      const { y, height } = (await lane.boundingBox())!;
      expect(y + height).toBeLessThanOrEqual(800);
    }
    const plan = page.getByRole('region', { name: 'State plan' });
    await plan.locator('[data-state="rounds"]').waitFor({ state: 'attached' });
    const overflow = await plan.evaluate((box) => [
      box.scrollWidth - box.clientWidth,
      box.scrollHeight - box.clientHeight,
    ]);
    expect(Math.max(...overflow)).toBeLessThanOrEqual(0);
  });
});

describe('by the keyboard', () => {
  it('one goes through the tools with the arrow keys', async () => {
    const page = await app.open(`${await app.newNightWatch()}/ground`);
    await untilReady(page);
    const tools = page.getByRole('toolbar', { name: 'Tools' });
    await tools.getByRole('button', { name: 'Choose', exact: true }).focus();
    const focused = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
    await page.keyboard.press('ArrowRight');
    expect(await focused()).toBe('Wall');
    await page.keyboard.press('ArrowRight');
    expect(await focused()).toBe('Hedge');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Space');
    expect(
      await tools.getByRole('button', { name: 'Wall', exact: true }).getAttribute('aria-pressed'),
    ).toBe('true');
  });

  it('a field says what it is when it is reached', async () => {
    const page = await app.open(`${await app.newNightWatch()}/cast/archetypes/warden`);
    await untilReady(page);
    const field = page.getByRole('button', { name: /^Acceleration of Warden/ });
    await field.focus();
    await page.keyboard.press('Shift+Tab');
    await page.keyboard.press('Tab');
    await page.getByRole('tooltip', { name: 'how fast its velocity changes' }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('tooltip', { name: 'how fast its velocity changes' }).waitFor({
      state: 'detached',
    });
    expect(await field.evaluate((element) => element === document.activeElement)).toBe(true);
    // What has a tooltip keeps no key to itself.
    await page.keyboard.press('Shift+?');
    await page.getByRole('dialog', { name: 'Shortcuts' }).waitFor();
  });
});
