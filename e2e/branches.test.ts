import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { tick } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

it('another way from the past keeps the old one, and both are compared: where they part, why, in figures', async () => {
  const night = await app.newNightWatch();
  const page = await app.open(`${night}/watch/branches?agent=warden2&tick=240`);
  await page.getByTestId('hash').waitFor();
  await page.getByText('There is one branch so far').waitFor();
  // Back, another key, and on.
  await page.locator('body').press('j');
  await page.getByLabel(/^A time/).fill('tick 60');
  await page.keyboard.press('Enter');
  await expect.poll(() => tick(page)).toBe(60);
  await page.getByTestId('ground').click();
  await page.keyboard.down('ArrowUp');
  await page.keyboard.press('Shift+Period');
  await page.keyboard.up('ArrowUp');
  await expect.poll(() => tick(page)).toBe(70);
  const branches = page.getByRole('list', { name: 'Branches' });
  await branches.getByText(/^parted from Branch 1 at 0:01.00, by other keys/).waitFor();

  await page.getByRole('button', { name: 'Compare with Branch 1' }).click();
  const comparison = page.getByRole('region', { name: 'Comparison' });
  await comparison.getByText(/They part at/).waitFor();
  await comparison.getByText('Gleaner', { exact: true }).first().waitFor();
  await comparison.getByText('They were given: what players did, from 0:01.02 on.').waitFor();
  await comparison.getByRole('row', { name: /^Gleaner/ }).waitFor();
  expect(await faultsInBothThemes(page)).toEqual([]);
  await comparison.getByRole('button', { name: /^To where they part/ }).click();
  await expect.poll(() => tick(page)).toBe(61);

  // Named, gone back to, and let go.
  await page.getByRole('button', { name: 'Name Branch 1' }).click();
  await page.getByLabel(/^Name; named/).fill('Quiet');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Go on with Quiet' }).click();
  await branches.getByRole('listitem').first().getByText('Quiet').waitFor();
  await page.getByRole('button', { name: 'Delete Branch 2' }).click();
  await page.getByText('There is one branch so far').waitFor();

  // The same keys with another seed, beside this run.
  await page.getByRole('button', { name: /^with seed/ }).click();
  await branches.getByText(/with another seed/).waitFor();
  await comparison.getByText(/They were given: seed \d+ here, \d+ there/).waitFor();
});
