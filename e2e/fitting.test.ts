import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import { state, untilLit, untilReady } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('at 1280 × 800', () => {
  it('all of the demo’s lanes are in sight', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`);
    await untilReady(page);
    const lanes = page.getByRole('region', { name: 'Ledger' }).locator('button[aria-pressed]');
    await expect.poll(() => lanes.count()).toBe(8);
    for (const lane of await lanes.all()) {
      const { y, height } = (await lane.boundingBox())!;
      expect(y + height).toBeLessThanOrEqual(800);
    }
  });

  it('the plan of a large mind can be read, is panned where it is too large, and fits when its rooms are folded', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`);
    await untilReady(page);
    const plan = page.getByRole('region', { name: 'State plan' });
    await untilLit(page, 'rounds');
    /** Pixels of the smallest text, and of what lies beyond the borders. */
    const measure = () =>
      plan.evaluate((frame) => {
        const box = frame.firstElementChild!;
        const texts = [...frame.querySelectorAll<SVGTextElement>('svg text')];
        const sizes = texts.map(
          (text) => parseFloat(getComputedStyle(text).fontSize) * text.getScreenCTM()!.a,
        );
        return {
          text: Math.round(Math.min(...sizes) * 10) / 10,
          across: Math.max(0, box.scrollWidth - box.clientWidth),
          down: Math.max(0, box.scrollHeight - box.clientHeight),
        };
      });
    const open = await measure();
    expect(open.text).toBeGreaterThanOrEqual(11);
    expect(open.across).toBeGreaterThan(0);
    expect(open.down).toBe(0);
    await page.getByRole('img', { name: 'Minimap' }).waitFor();
    // What is active is in sight.
    const lit = (await state(page, 'rounds').boundingBox())!;
    const frame = (await plan.boundingBox())!;
    expect(lit.x).toBeGreaterThanOrEqual(frame.x);
    expect(lit.x + lit.width).toBeLessThanOrEqual(frame.x + frame.width);
    // A state that has the focus says whole when it leaves.
    await state(page, 'rounds').focus();
    await plan
      .getByRole('listitem')
      .filter({ hasText: 'half noticed: attention.strength > 0.3 for 0.2' })
      .waitFor();
    await page.keyboard.press('z');
    await expect.poll(() => state(page, 'chase').count()).toBe(0);
    await state(page, 'roused').focus();
    await page.keyboard.press(' ');
    await state(page, 'chase').waitFor();
    const folded = await measure();
    expect(folded.text).toBeGreaterThanOrEqual(11);
    expect([folded.across, folded.down]).toEqual([0, 0]);
    // It fits again after the window has been another size.
    await page.setViewportSize({ width: 1920, height: 1080 });
    await expect.poll(async () => (await measure()).text).toBeGreaterThan(folded.text);
    await page.setViewportSize({ width: 1280, height: 800 });
    await expect.poll(measure).toEqual(folded);
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
