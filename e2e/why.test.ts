import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, chooseOption } from './testing/fields.fixture.ts';
import { tick, untilReady } from './testing/minds-page.fixture.ts';
import { cornerOf, OPTIONS } from './testing/weighing.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('asking why', () => {
  it('gives the chain of causes with the values of then, each a way to its moment', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/minds/warden?agent=warden2&tick=200`);
    await page.getByTestId('hash').waitFor();
    await page.keyboard.press('Shift+W');
    const dialog = page.getByRole('dialog', { name: 'Why?' });
    const answer = dialog.getByRole('list', { name: 'The answer' });
    await answer.getByText('Warden 2 is in Rounds').waitFor();
    await answer.getByText('the run began there').waitFor();
    await chooseOption(page, /What is asked/, 'why it is not in Chase');
    await answer.getByText('Not so: Warden 2 is in Chase').waitFor();
    await answer
      .getByText(/^awareness\(attention\.of\) = /)
      .first()
      .waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);

    const since = answer.getByRole('button', { name: /^To 0:00/ }).first();
    await since.click();
    await expect.poll(() => tick(page)).toBeLessThan(200);
    await answer.getByText(/Warden 2 is in Chase/).waitFor();
    await dialog.getByRole('button', { name: 'back to 0:03.33' }).click();
    await expect.poll(() => tick(page)).toBe(200);
    // Somebody else, who has another mind.
    await chooseOption(page, /Who is asked about/, 'Goose');
    await answer.getByText('Goose is in Graze').waitFor();
    await page.keyboard.press('Escape');
    await dialog.waitFor({ state: 'hidden' });
  });

  it('starts from a state and from an option too', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/minds/warden?agent=warden2&state=comb&tick=120`);
    await page.getByTestId('hash').waitFor();
    await page.getByRole('button', { name: 'More for Comb', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Why is it here, or not' }).click();
    await page.getByText('Not so: Warden 2 is in Comb').waitFor();
    await page.keyboard.press('Escape');

    const corner = await app.open(`${await app.newProject(cornerOf(OPTIONS))}/weigh`);
    await untilReady(corner);
    await corner.locator('body').press('Shift+Period');
    await corner.locator('body').press('Shift+Period');
    await chooseFrom(corner, 'More on Watch it', 'Why this, or why not');
    const answer = corner.getByRole('list', { name: 'The answer' });
    await answer.getByText(/^Not so: .*Watch it/).waitFor();
    await corner.keyboard.press('Escape');
    await chooseFrom(corner, 'More on Close in', 'Why this, or why not');
    await answer
      .getByText(/it picked Close in/)
      .first()
      .waitFor();
  });
});
