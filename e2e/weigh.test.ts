import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, chooseOption, setNumber } from './testing/fields.fixture.ts';
import { untilReady, untilSaved } from './testing/minds-page.fixture.ts';
import { cornerOf, OPTIONS } from './testing/weighing.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** The option whose row is lit. */
async function lit(page: Page): Promise<string | null> {
  const row = page.locator('tr[data-option][data-runs="true"]');
  return (await row.count()) === 1 ? row.getAttribute('data-option') : null;
}

const said = (page: Page) => page.getByTestId('board-said');

async function openCorner(options: typeof OPTIONS | null, path: string): Promise<Page> {
  const page = await app.open(`${await app.newProject(cornerOf(options))}/${path}`);
  await untilReady(page);
  return page;
}

async function addOption(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Add an option' }).click();
  await page.getByRole('textbox', { name: 'Title' }).fill(title);
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: title, exact: true }).waitFor();
}

/** Goes ten ticks on. */
async function goOn(page: Page): Promise<void> {
  await page.locator('body').press('Shift+Period');
}

describe('a choice made from nothing', () => {
  it('is weighed as soon as a state does it; a tie is told, and broken', async () => {
    const page = await openCorner(null, 'weigh');
    await page.getByRole('heading', { name: 'No choice yet' }).waitFor();
    await chooseFrom(page, 'Add a choice', 'For Keeper …');
    await page.getByRole('textbox', { name: 'Title' }).fill('What now?');
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Keeper: What now?' }).waitFor();
    await addOption(page, 'Brace');
    await addOption(page, 'Step aside');
    await said(page).getByText('No agent weighs this now').waitFor();

    await page.getByRole('link', { name: 'Minds', exact: true }).click();
    await page.getByRole('button', { name: 'Keeper 1 state' }).click();
    await chooseFrom(page, 'Choose what it does while in Stand', 'Choice What now?');
    await page.getByRole('link', { name: 'Weigh' }).click();
    await goOn(page);
    await said(page).getByText('Tie: Brace and Step aside all score 1.00').waitFor();

    await page.getByRole('button', { name: 'Step aside', exact: true }).click();
    await setNumber(page, 'Weight of Step aside', '2');
    await goOn(page);
    await expect.poll(() => lit(page)).toBe('stepAside');
    expect(await said(page).innerText()).toBe('');
    await page.getByRole('button', { name: 'Brace', exact: true }).click();
    await setNumber(page, 'Rank of Brace', '1');
    await goOn(page);
    await expect.poll(() => lit(page)).toBe('brace');
    await page.locator('tr[data-option="stepAside"]').getByText('outranked').waitFor();
    await untilSaved(page);
  });
});

describe('the board', () => {
  it('shows what each consideration is worth; a curve is dragged, and the keeper does something else', async () => {
    const page = await openCorner(OPTIONS, 'weigh');
    await goOn(page);
    await goOn(page);
    await expect.poll(() => lit(page)).toBe('closeIn');
    const cell = page.getByRole('button', { name: 'Reach of Close in' });
    await expect.poll(() => cell.innerText()).toBe('.80');
    await cell.click();
    const end = page.getByRole('button', { name: /^End: 10, worth \.80/ });
    const box = (await end.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + 300, { steps: 4 });
    await page.mouse.up();
    // From 0.8 at hand to nothing at 10 m: what is 7 m away is worth little.
    await page.getByRole('button', { name: /^End: 10, worth \.00/ }).waitFor();
    await goOn(page);
    await expect.poll(() => lit(page)).toBe('watch');
    // The same by the keyboard.
    const begin = page.getByRole('button', { name: /^Beginning: 0, worth \.80/ });
    await begin.focus();
    await page.keyboard.press('ArrowDown');
    await page.getByRole('button', { name: /^Beginning: 0, worth \.79/ }).waitFor();
    await chooseOption(page, /Curve of Reach/, 'step');
    await page.getByRole('button', { name: /^Step: 5, worth \.50/ }).waitFor();
    await page.getByText(/\d+ % fell where the curve is flat/).waitFor();
    await untilSaved(page);
    expect(await faultsInBothThemes(page)).toEqual([]);
  });

  it('takes columns and options apart and puts them together', async () => {
    const page = await openCorner(OPTIONS, 'weigh');
    await page.getByRole('button', { name: 'Consider Sure of it for Get away' }).click();
    await page.getByRole('heading', { name: /Sure of it/ }).waitFor();
    await page.getByRole('button', { name: 'Sure of it of Get away' }).waitFor();
    await page.getByRole('button', { name: 'More on Reach' }).click();
    await page.getByRole('menuitem', { name: 'Copy to all other options' }).click();
    await page.getByRole('button', { name: 'Reach of Watch it' }).waitFor();
    await chooseFrom(page, 'More on Watch it', 'Duplicate');
    await page.getByRole('button', { name: 'Watch it 2', exact: true }).waitFor();
    await chooseFrom(page, 'More on Watch it 2', 'Move up');
    const order = () =>
      page.locator('tr[data-option]').evaluateAll((rows) => rows.map((row) => row.dataset.option));
    await expect.poll(order).toEqual(['closeIn', 'watchIt2', 'watch', 'hide']);
    await chooseFrom(page, 'More on Watch it 2', 'Remove');
    await expect.poll(order).toEqual(['closeIn', 'watch', 'hide']);
    // What a new one looks at is written with all that expressions have to help, and is refused in its place.
    await page.getByRole('button', { name: 'Add a consideration to all' }).click();
    const asked = page.getByRole('dialog', { name: 'A new consideration' });
    await asked.getByRole('textbox', { name: 'What it looks at' }).waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText('self.helth');
    await asked.getByText('Nothing is called “self.helth” here. Did you mean').waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText('self.health');
    await page.keyboard.press('Enter');
    await asked.getByRole('button', { name: 'Add it' }).click();
    await page.getByRole('button', { name: 'self.health of Close in' }).waitFor();
    // From cell to cell by the arrows.
    await page.getByRole('button', { name: 'Reach of Close in' }).focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowRight');
    await page.locator('button[aria-label="Sure of it of Watch it"]:focus').waitFor();
    await untilSaved(page);
  });

  it('unfolds what an option is weighed for, and says what it would pick elsewhere', async () => {
    const page = await openCorner(OPTIONS, 'weigh');
    await goOn(page);
    await page.getByRole('button', { name: 'Unfold the candidates of Get away' }).click();
    // Of six places some lie outside of the ground.
    await expect.poll(() => page.locator('tr[data-candidate="hide"]').count()).toBeGreaterThan(3);
    await page.getByRole('button', { name: 'Get away', exact: true }).click();
    await page.getByRole('button', { name: 'Show its worth over the ground' }).click();
    const ground = page.getByRole('application', { name: /drag a point/ });
    await ground.focus();
    await page.keyboard.press('ArrowRight');
    await page.getByText(/^At \(\d+\.\d, \d+\.\d\) it would pick \w+/).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
  });
});

describe('bands', () => {
  it('are made, and what they say is graded by rows', async () => {
    const page = await openCorner(OPTIONS, 'weigh');
    await page.getByRole('button', { name: 'Add bands' }).click();
    await page.getByRole('textbox', { name: 'Title' }).fill('Range');
    await page.keyboard.press('Enter');
    await setNumber(page, 'To of near', '9');
    await page.getByRole('button', { name: 'Back to the choice' }).click();
    await chooseOption(page, /Combine of What now/, 'graded');
    await page.getByRole('alert').getByText('considerations say nothing').first().waitFor();
    for (const [title, row] of [
      ['Close in', 'near'],
      ['Watch it', 'far'],
    ]) {
      await page.getByRole('button', { name: title, exact: true }).click();
      await page.getByRole('button', { name: 'Add a row' }).first().click();
      if (row === 'far') await chooseOption(page, `Band of range in row 1 of ${title}`, 'far');
      await setNumber(page, `Strength of row 1 of ${title}`, '0.9');
    }
    for (const column of ['Reach', 'Sure of it'])
      await chooseFrom(page, `More on ${column}`, 'Remove from all options');
    await goOn(page);
    await expect.poll(() => lit(page)).not.toBeNull();
    await untilSaved(page);
    expect(await faultsInBothThemes(page)).toEqual([]);
  });
});
