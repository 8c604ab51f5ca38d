import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilReady, untilSaved, writeExpression } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

const FIRST = 'transition 1 of Chase';

describe('a transition', () => {
  it('shows what it does when it is taken, and takes more of it', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase`);
    await untilReady(page);
    await page.getByRole('button', { name: `More for ${FIRST}` }).click();
    await page.getByRole('menuitem', { name: 'Do when taken' }).hover();
    await page.getByRole('menuitem', { name: 'Say', exact: true }).click();
    await page
      .getByRole('button', { name: `text of say, of ${FIRST}: Who is there?. Edit` })
      .click();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('Away with you');
    await page.keyboard.press('Enter');
    await page.getByText('“Away with you”').waitFor();
    await untilSaved(page);
    await page.reload();
    await page.getByText('“Away with you”').waitFor();
    await page.getByRole('button', { name: `Remove say of ${FIRST}` }).click();
    await expect.poll(() => page.getByText('“Away with you”').count()).toBe(0);
  });

  it('lets go of its guard when that is cleared, or says why not', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase`);
    await untilReady(page);
    const guard = page.getByRole('button', { name: new RegExp(`^guard of ${FIRST}:`) });
    const clear = async () => {
      await guard.press('Enter');
      const editor = page.getByRole('textbox', { name: `guard of ${FIRST}` });
      await editor.waitFor();
      await editor.focus();
      await page.keyboard.press('Control+a');
      await page.keyboard.press('Delete');
      await expect.poll(() => editor.innerText()).toBe('\n');
      await page.keyboard.press('Enter');
    };
    await clear();
    await page
      .getByRole('alert')
      .getByText('Without an event or a time only its guard says when this is taken.')
      .waitFor();
    expect(await guard.count()).toBe(1);
    await page.getByRole('button', { name: `More for ${FIRST}` }).click();
    await page.getByRole('menuitem', { name: 'Only after a time' }).click();
    await page.getByTestId('sheet').getByText('after 1 s').waitFor();
    // A menu gives the focus back when it has closed.
    await page.locator(`button:focus[aria-label="More for ${FIRST}"]`).waitFor();
    await clear();
    await guard.waitFor({ state: 'detached' });
    await untilSaved(page);
  });
});

describe('an action that needs a key of memory', () => {
  it('asks for one where there is none, and can be given a new one later', async () => {
    const page = await app.open(
      `${await app.newNight((document) => {
        const { warden } = document.minds;
        delete warden.memory;
        delete warden.trees;
        warden.machine = { initial: 'stand', states: [{ id: 'stand', title: 'Stand' }] };
      })}?state=stand`,
    );
    await untilReady(page);
    await page.getByRole('button', { name: 'Add an action on entry of Stand' }).click();
    await page.getByRole('menuitem', { name: 'Remember' }).click();
    const dialog = page.getByRole('dialog', { name: 'A new key in memory' });
    await dialog.getByRole('button', { name: 'Declare' }).click();
    await dialog.getByRole('alert').getByText('It takes 1 to').waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await dialog.getByLabel('Title').fill('Quarry');
    await dialog.getByText('Expressions call it quarry').waitFor();
    await page.keyboard.press('Enter');
    await page
      .getByRole('button', { name: 'key of remember, on entry of Stand: quarry. Choose' })
      .click();
    await page.getByRole('menuitem', { name: 'Declare a new one …' }).click();
    await dialog.getByLabel('Title').fill('intruder');
    await page.keyboard.press('Enter');
    await page
      .getByRole('button', { name: 'key of remember, on entry of Stand: intruder. Choose' })
      .waitFor();
    expect(await page.getByText('There is no', { exact: false }).count()).toBe(0);
    await untilSaved(page);
  });
});

describe('the findings of the latest edit', () => {
  it('are opened from the header of every place, and each leads to where it is mended', async () => {
    const where = await app.newNight();
    const page = await app.open(`${where}?state=rounds`);
    await untilReady(page);
    await writeExpression(page, 'guard of transition 2 of Rounds', 'attention.strenght > 0.3');
    const pill = page.getByRole('button', { name: /has 1 error/ });
    await pill.waitFor();
    await page.getByRole('link', { name: 'Cast' }).click();
    await page.getByRole('navigation', { name: 'Cast' }).waitFor();
    await pill.click();
    const list = page.getByRole('dialog', { name: 'Findings of the latest edit' });
    expect(await seriousFaults(page)).toEqual([]);
    await list.getByRole('link', { name: /Did you mean “attention.strength”/ }).click();
    await page.waitForURL(/minds\/warden\?.*state=rounds/);
    await page
      .getByRole('button', { name: /^guard of transition 2 of Rounds: attention.strenght/ })
      .waitFor();
    expect(await list.count()).toBe(0);
  });
});
