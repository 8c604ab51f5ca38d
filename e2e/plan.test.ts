import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes, seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { state, untilReady, untilSaved } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

const focused = (page: Page) =>
  page.evaluate(() => document.activeElement?.getAttribute('data-state') ?? null);

const states = (page: Page) =>
  page
    .getByRole('region', { name: 'State plan' })
    .locator('[data-state]')
    .evaluateAll((all) => all.map((each) => each.getAttribute('data-state')));

describe('the state plan', () => {
  it('is walked, and states are made, wrapped, moved and taken away with keys; the focus stays on what was made', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await state(page, 'chase').focus();
    await page.keyboard.press('b');
    await page.getByRole('textbox', { name: 'Title' }).waitFor();
    await page.keyboard.type('Catch breath');
    await page.keyboard.press('Enter');
    await expect.poll(() => focused(page)).toBe('catchBreath');
    await page.keyboard.press('l');
    await page.getByRole('menuitem', { name: 'New state …' }).waitFor();
    await page.keyboard.type('Comb');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    // Its guard opens, to be written or left as it is; Escape leads back.
    await page.getByRole('textbox', { name: 'guard of transition 1 of Catch breath' }).waitFor();
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page
      .getByRole('button', {
        name: 'guard of transition 1 of Catch breath: attention.strength > 0.5. Edit',
      })
      .waitFor();
    await expect.poll(() => focused(page)).toBe('catchBreath');
    // Along that way out, and back by the arrows.
    await page.keyboard.press('1');
    await expect.poll(() => focused(page)).toBe('comb');
    await state(page, 'catchBreath').focus();
    await page.keyboard.press('w');
    await page.getByRole('textbox', { name: 'Title' }).waitFor();
    await page.keyboard.type('Breaks');
    await page.keyboard.press('Enter');
    await expect.poll(() => focused(page)).toBe('breaks');
    await page.keyboard.press(' ');
    await expect.poll(() => states(page)).not.toContain('catchBreath');
    await page.keyboard.press(' ');
    await expect.poll(() => states(page)).toContain('catchBreath');
    await state(page, 'catchBreath').focus();
    await page.keyboard.press('m');
    await page.getByRole('menuitem', { name: 'Out of all states' }).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect.poll(() => focused(page)).toBe('catchBreath');
    await page.keyboard.press('Control+d');
    await expect.poll(() => focused(page)).toBe('catchBreath2');
    await page.keyboard.press('Delete');
    await expect.poll(() => states(page)).not.toContain('catchBreath2');
    await page.keyboard.press('k');
    await page.keyboard.press('Escape');
    await untilSaved(page);
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('is made larger and smaller, with a small map while not all is in sight', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    const map = page.getByRole('img', { name: 'Minimap' });
    expect(await map.count()).toBe(0);
    await state(page, 'chase').focus();
    for (let i = 0; i < 5; i++) await page.keyboard.press('+');
    await map.waitFor();
    await page.getByRole('button', { name: 'Fitted (0)' }).click();
    await expect.poll(() => map.count()).toBe(0);
    await page.getByRole('button', { name: 'Signs and keys of the plan' }).click();
    await page.getByText('urgent: looked at before those of the states inside').waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await page.keyboard.press('Escape');
  });

  it('takes a state that is dragged into a room, with all that leads to it', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await state(page, 'peer').waitFor();
    const before = await states(page);
    const from = (await state(page, 'peer').boundingBox())!;
    const to = (await state(page, 'roused').boundingBox())!;
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
    await page.mouse.down();
    await page.mouse.move(to.x + 30, to.y + 6, { steps: 5 });
    await page.mouse.up();
    await page.getByText('peer', { exact: true }).first().waitFor();
    await expect
      .poll(() => page.getByRole('region', { name: /^State Peer/ }).innerText())
      .toContain('in Roused');
    await page.keyboard.press('Control+z');
    await expect.poll(() => states(page)).toEqual(before);
  });
});

describe('sheets of a mind', () => {
  it('a mind is made, given to an agent, set, copied and taken away', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await page.getByRole('button', { name: 'Add a mind' }).click();
    await page.getByRole('menuitem', { name: 'A behaviour tree' }).click();
    await page.getByRole('textbox', { name: 'Title' }).waitFor();
    await page.keyboard.type('Night heron');
    await page.keyboard.press('Enter');
    await page.getByRole('treegrid', { name: 'Rows of Night heron' }).waitFor();
    await page.getByRole('button', { name: 'About Night heron …' }).click();
    await page.getByRole('button', { name: /When Night heron decides/ }).click();
    await page.getByRole('option', { name: 'at an interval, staggered' }).click();
    await page.getByRole('button', { name: /^Decides every of Night heron: 0.2/ }).waitFor();
    await page.getByRole('button', { name: 'Night heron may use the arms' }).click();
    await page.getByRole('button', { name: /Give Night heron to an archetype/ }).click();
    await page.getByRole('option', { name: 'Warden' }).click();
    await page.getByText(/has it beside Warden/).waitFor();
    await page.getByRole('button', { name: /^Name of Night heron in the file/ }).click();
    await page.keyboard.type('heron');
    await page.keyboard.press('Enter');
    await page.waitForURL(/minds\/heron/);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await page.waitForURL(/minds\/heron2/);
    await page.getByRole('button', { name: 'Remove …' }).click();
    await page.getByText('No archetype has it, so nothing else changes.').waitFor();
    await page.getByRole('button', { name: 'Remove Night heron 2' }).click();
    await page.waitForURL((url) => !url.href.includes('heron2'));
    await untilSaved(page);
  });

  it('memory is declared, renamed wherever it is used, and says who reads and writes it', async () => {
    const page = await app.open(`${await app.newNight()}?agent=warden1&sheet=memory`);
    await untilReady(page);
    await page.getByRole('button', { name: 'name of the key quarry: quarry. Edit' }).click();
    await page.keyboard.type('prey');
    await page.keyboard.press('Enter');
    await page.getByText('None: everything has its place.').waitFor();
    await page
      .getByRole('link', { name: /transition 1 of Chase/ })
      .first()
      .click();
    await page.getByRole('button', { name: /^guard of transition 1 of Chase: .*prey/ }).waitFor();
    await page.getByRole('button', { name: 'All about memory …' }).click();
    await page.getByRole('button', { name: 'Declare a key' }).click();
    await page.getByRole('textbox', { name: 'Title' }).waitFor();
    await page.keyboard.type('gaveUp');
    await page.getByRole('button', { name: /Type of the key/ }).click();
    await page.getByRole('option', { name: 'number', exact: true }).click();
    await page.getByRole('button', { name: 'Declare', exact: true }).click();
    await page.getByRole('button', { name: /unit of gaveUp/ }).click();
    await page.getByRole('option', { name: 's', exact: true }).click();
    await page.getByRole('button', { name: 'default of gaveUp: empty. Edit' }).click();
    await page.keyboard.type('2,5');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'default of gaveUp: 2.5. Edit' }).waitFor();
    await page.getByRole('button', { name: 'Remove the key gaveUp' }).click();
    await untilSaved(page);
  });

  it('an event is chosen from those that anything raises, and a state heeds what it is set to', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase`);
    await untilReady(page);
    await page.getByRole('button', { name: 'More for transition 1 of Chase' }).click();
    await page.getByRole('menuitem', { name: 'Wait for an event' }).click();
    await page
      .getByRole('button', { name: 'event of transition 1 of Chase: done. Choose' })
      .click();
    await page.getByRole('searchbox', { name: 'event of transition 1 of Chase' }).waitFor();
    await page.keyboard.type('certain');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page
      .getByRole('button', { name: 'event of transition 1 of Chase: sight.certain. Choose' })
      .waitFor();
    await page.getByRole('button', { name: /Add a sense to the attention of Chase/ }).click();
    await page.getByRole('option', { name: 'Hearing' }).click();
    await page
      .getByRole('button', { name: 'Remove Hearing from the attention of Chase' })
      .waitFor();
    await untilSaved(page);
  });

  it.each(['mind', 'memory', 'trees.combThePlace'])(
    'have nothing axe finds serious, dark and light: %s',
    async (sheet) => {
      const page = await app.open(`${await app.newNight()}?sheet=${sheet}`);
      await untilReady(page);
      expect(await faultsInBothThemes(page)).toEqual([]);
    },
  );
});
