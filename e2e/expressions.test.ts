import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseOption } from './testing/fields.fixture.ts';
import { untilResting } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

const GUARD = /^guard of transition 2 of Rounds/;

async function openRounds(): Promise<Page> {
  const page = await app.open(`${await app.newNight()}?agent=warden1&state=rounds&tick=60`);
  await untilResting(page);
  return page;
}

describe('an expression', () => {
  it('shows what it is worth on focus, and each part at the caret and under the pointer', async () => {
    const page = await openRounds();
    const guard = page.getByRole('button', { name: GUARD });
    await guard.focus();
    await page.keyboard.press('Shift+Tab');
    await page.keyboard.press('Tab');
    await page.getByRole('tooltip').getByText('attention.strength').waitFor();
    await page.keyboard.press('Enter');
    await page.getByRole('textbox', { name: GUARD }).waitFor();
    const value = page.getByTestId('part-value');
    await value.getByText('false').waitFor();
    await page.keyboard.press('Home');
    await expect.poll(() => value.textContent()).toBe('attention.strength is 0');
    await page.keyboard.press('End');
    await page.keyboard.type(' && self.crouched');
    await expect.poll(() => value.textContent()).toBe('self.crouched is false');
    const word = page.locator('.cm-line');
    const { x, y } = (await word.boundingBox())!;
    await page.mouse.move(x + 40, y + 8, { steps: 3 });
    await page.locator('.cm-value').getByText('attention.strength is 0').waitFor();
    await page.keyboard.press('Escape');
  });

  it('is asked for by questions, by a user who does not know the names', async () => {
    const page = await openRounds();
    await page.getByRole('button', { name: GUARD }).click();
    await page.getByRole('textbox', { name: GUARD }).waitFor();
    await page.keyboard.press('F2');
    const dialog = page.getByRole('dialog', { name: 'What do you want to ask?' });
    await dialog.getByRole('button', { name: 'Myself' }).click();
    await dialog.getByRole('button', { name: /^how fast this body moves/ }).click();
    await chooseOption(page, 'When it holds', 'is at most');
    await dialog.getByRole('textbox', { name: 'Compared with' }).fill('40');
    await dialog.getByText('self.speed <= 40').waitFor();
    // What it is worth now stands there before it is taken.
    await dialog.getByText('true', { exact: true }).waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await dialog.getByRole('button', { name: 'Take it' }).click();
    await page
      .getByRole('button', { name: 'guard of transition 2 of Rounds: self.speed <= 40. Edit' })
      .waitFor();
  });

  it('takes an answer in the place of what was chosen in it, and keeps the rest', async () => {
    const page = await openRounds();
    await page.getByRole('button', { name: GUARD }).click();
    await page.getByRole('textbox', { name: GUARD }).waitFor();
    await page.keyboard.press('End');
    await page.keyboard.type(' && ');
    await page.keyboard.press('F2');
    const dialog = page.getByRole('dialog', { name: 'What do you want to ask?' });
    await dialog.getByRole('button', { name: 'Time', exact: true }).click();
    await dialog.getByRole('button', { name: /^seconds since the run began/ }).click();
    // Given up, the editor is back with what was written.
    await page.keyboard.press('Escape');
    await page.getByRole('textbox', { name: GUARD }).waitFor();
    await page.getByText('attention.strength > 0.3 && ').waitFor();
    await page.keyboard.press('End');
    await page.keyboard.press('F2');
    await dialog.getByRole('button', { name: 'Time', exact: true }).click();
    await dialog.getByRole('button', { name: /^seconds since the run began/ }).click();
    await dialog.getByRole('button', { name: 'Take it' }).click();
    await page
      .getByRole('button', { name: /: attention\.strength > 0\.\d+ && time > 1\. Edit/ })
      .waitFor();
  });
});
