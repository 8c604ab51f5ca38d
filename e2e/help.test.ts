import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { tick, untilResting, untilRunning } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('the reference', () => {
  it('opens with F1 at what has the focus, a row or a word that is written', async () => {
    const page = await app.open(`${await app.newNight()}?sheet=trees.combThePlace`);
    await untilRunning(page);
    await page.getByRole('row', { name: /^Move to place/ }).focus();
    await page.keyboard.press('F1');
    const reference = page.getByRole('dialog', { name: 'Reference' });
    await reference.getByRole('heading', { name: 'Move to' }).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    await reference.getByRole('button', { name: 'Run it for 12 s' }).click();
    const story = reference.getByRole('list', { name: 'What came of it' });
    await story.getByText('remembers quarry: Gleaner').first().waitFor();
    await story.getByText('begins “Move to”').first().waitFor();
    await story.getByText('“Move to”: success').first().waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    await reference.getByRole('searchbox', { name: 'Find in the reference' }).focus();
    await page.keyboard.type('hearing');
    await reference.getByRole('button', { name: 'Hearing sense' }).click();
    await reference.getByText('hearing.step, hearing.landing, hearing.gate').waitFor();
    await page.keyboard.press('Escape');

    await page.getByRole('button', { name: 'Back to the states' }).click();
    await page.locator('[data-state="chase"]').click();
    await page.getByRole('button', { name: /^guard of transition 2 of Chase/ }).click();
    await page.getByRole('textbox', { name: 'guard of transition 2 of Chase' }).waitFor();
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('F1');
    await reference.getByRole('heading', { name: 'sees' }).waitFor();
    await page.keyboard.press('Escape');
  });
});

describe('the sheet of shortcuts', () => {
  it('lists every key, and a key that is changed holds from then on, and after a reload', async () => {
    const page = await app.open(await app.newNight());
    await untilRunning(page);
    await page.keyboard.press('Shift+?');
    const sheet = page.getByRole('dialog', { name: 'Shortcuts' });
    await sheet.getByText('New state beside').waitFor();
    // A dialog gives the focus to its first part.
    expect(await sheet.locator('button:focus').count()).toBe(1);
    expect(await faultsInBothThemes(page)).toEqual([]);
    const change = sheet.getByRole('button', { name: 'Change the key of Pause' });
    await change.click();
    await page.keyboard.press('Control+k');
    await sheet
      .getByRole('alert')
      .getByText(/is the key of “Show all commands”/)
      .waitFor();
    await page.keyboard.press('F9');
    await sheet.getByRole('button', { name: 'Usual key of Pause' }).waitFor();
    await page.keyboard.press('Escape');
    await page.reload();
    await untilRunning(page);
    await page.keyboard.press('F9');
    await untilResting(page);
    const at = await tick(page);
    await page.keyboard.press('p');
    expect(await tick(page)).toBe(at);
  });

  it('a menu that is opened with the mouse has no ring around itself', async () => {
    const page = await app.open(await app.newNight());
    await untilRunning(page);
    await page.getByRole('button', { name: /^Speed 1 times/ }).click();
    const menu = page.getByRole('menu');
    await expect
      .poll(() => menu.evaluate((each) => each.contains(document.activeElement)))
      .toBe(true);
    expect(await menu.evaluate((each) => getComputedStyle(each).outlineStyle)).toBe('none');
  });
});
