import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilReady, untilSaved, writeExpression } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('the history', () => {
  it('says what each edit changed, lets one be named, and restores one as a new edit', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase`);
    await untilReady(page);
    await writeExpression(page, 'guard of transition 1 of Chase', 'distance(quarry) < 2');
    await untilSaved(page);
    await page
      .getByRole('button', { name: 'Target of transition 1 of Chase: Collar. Choose' })
      .click();
    await page.getByRole('menuitem', { name: 'Rounds' }).click();
    await untilSaved(page);

    await page.keyboard.press('F4');
    const dialog = page.getByRole('dialog', { name: 'History' });
    const differences = dialog.getByRole('list', { name: 'Differences' });
    await differences.getByText(/target of transition 1 of Chase/).waitFor();
    expect(await differences.getByRole('listitem').count()).toBe(1);
    expect(await differences.innerText()).toMatch(/collar → rounds/);
    // The list says what each was, and is searched by it.
    const edits = dialog.getByRole('group', { name: 'Edits' });
    await edits.getByText('target of transition 1 of Chase of Warden: collar → rounds').waitFor();
    await edits
      .getByText(/transition 1 of Chase/)
      .nth(1)
      .waitFor();
    await dialog.getByRole('searchbox', { name: 'Find an edit' }).fill('TARGET of transition');
    await expect.poll(() => edits.getByRole('button').count()).toBe(1);
    await dialog.getByRole('searchbox', { name: 'Find an edit' }).fill('a lighthouse');
    await edits.getByText('No edit says that.').waitFor();
    await dialog.getByRole('searchbox', { name: 'Find an edit' }).fill('');
    await dialog.getByRole('button', { name: /^Edit 1 / }).click();
    await dialog.getByText('This is the first edit.').waitFor();
    await dialog.getByRole('button', { name: 'Name of edit 1: empty. Edit' }).click();
    await page.keyboard.type('As it was');
    await page.keyboard.press('Enter');
    await dialog.getByRole('button', { name: /^As it was / }).waitFor();
    await dialog.getByRole('button', { name: /What it is compared with/ }).click();
    await page.getByRole('option', { name: /what has changed since/ }).click();
    await expect.poll(() => differences.getByRole('listitem').count()).toBe(2);
    // Any two against each other.
    await dialog.getByRole('button', { name: /What it is compared with/ }).click();
    await page.getByRole('option', { name: 'against Edit 2' }).click();
    await expect.poll(() => differences.getByRole('listitem').count()).toBe(1);
    expect(await differences.innerText()).toMatch(/guard of transition 1 of Chase/);
    expect(await faultsInBothThemes(page)).toEqual([]);

    await dialog.getByRole('button', { name: 'Restore it as a new edit' }).click();
    await page
      .getByRole('button', { name: 'Target of transition 1 of Chase: Collar. Choose' })
      .waitFor();
    await page.getByText(/^running edit 4/).waitFor();
    await page.keyboard.press('Control+z');
    await page
      .getByRole('button', { name: 'Target of transition 1 of Chase: Rounds. Choose' })
      .waitFor();
    await untilSaved(page);
  });
});
