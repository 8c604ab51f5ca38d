import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from 'playwright-core';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilReady, untilSaved } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

const rowsOf = (page: Page, title: string) =>
  page.getByRole('treegrid', { name: `Rows of ${title}` }).getByRole('row');

/** The rows as readers hear them, indented by how deep they stand. */
async function spoken(page: Page, title: string): Promise<string[]> {
  return rowsOf(page, title).evaluateAll((rows) =>
    rows.map(
      (row) =>
        '  '.repeat(Number(row.getAttribute('aria-level')) - 1) + row.getAttribute('aria-label'),
    ),
  );
}

/** Puts in a row by the name typed, from the row that has the focus. */
async function putIn(page: Page, name: string, label = name): Promise<void> {
  await page.keyboard.press('/');
  await page.getByRole('menuitem', { name: 'Sequence' }).waitFor();
  await page.keyboard.type(name);
  await page.getByRole('menuitem', { name: label }).first().waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.locator(`[role="row"]:focus[aria-label^="${label}"]`).waitFor();
}

describe('a tree', () => {
  it('is written row by row with the keys alone', async () => {
    const page = await app.open(
      `${await app.newNight((document) => {
        document.minds.warden.trees!.combThePlace.root = { sequence: [] };
      })}?agent=warden1&state=comb`,
    );
    await rowsOf(page, 'Comb the place').first().waitFor();
    await rowsOf(page, 'Comb the place').first().focus();
    await putIn(page, 'selec', 'Selector');
    await putIn(page, 'move to', 'Move to');
    await putIn(page, 'wait', 'Wait');
    // Out of the selector, then wrapped, then up before it.
    await page.keyboard.press('Shift+Tab');
    await page.keyboard.press('w');
    await page.getByRole('menuitem', { name: 'Timeout' }).waitFor();
    await page.keyboard.type('timeo');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.locator('[role="row"]:focus[aria-label^="Timeout"]').waitFor();
    await page.keyboard.press('Alt+ArrowUp');
    await expect
      .poll(() => spoken(page, 'Comb the place'))
      .toEqual([
        'Sequence, 4 rows inside',
        '  Timeout seconds 5, 1 row inside',
        '    Wait 1',
        '  Selector, 1 row inside',
        '    Move to attention.place',
      ]);
    await page.keyboard.press('g');
    const guard = page.getByRole('textbox', { name: /^guard in row 2/ });
    await guard.waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('known(quarry)');
    await page.keyboard.press('Enter');
    await expect
      .poll(() => spoken(page, 'Comb the place'))
      .toContain('  Timeout seconds 5, if known(quarry) (before), 1 row inside');
    await untilSaved(page);
    await page.reload();
    await expect.poll(async () => (await spoken(page, 'Comb the place')).length).toBe(5);
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('is folded, chosen in several, switched off, duplicated and taken away', async () => {
    const page = await app.open(`${await app.newNight()}?agent=warden1&state=comb`);
    await untilReady(page);
    await rowsOf(page, 'Comb the place').first().waitFor();
    const all = await spoken(page, 'Comb the place');
    await rowsOf(page, 'Comb the place').nth(1).focus();
    await page.keyboard.press('ArrowLeft');
    await expect.poll(async () => (await spoken(page, 'Comb the place')).length).toBeLessThan(9);
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('o');
    await expect
      .poll(async () => (await spoken(page, 'Comb the place'))[1])
      .toContain('switched off');
    await page.keyboard.press('Control+d');
    await expect.poll(async () => (await spoken(page, 'Comb the place')).length).toBe(11);
    await page.keyboard.press('Shift+ArrowUp');
    await page.keyboard.press('Shift+ArrowUp');
    await page.keyboard.press('Delete');
    await expect.poll(async () => (await spoken(page, 'Comb the place')).length).toBe(7);
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
    await expect.poll(() => spoken(page, 'Comb the place')).toEqual(all);
  });

  it('says why a row can’t go where it was sent', async () => {
    const page = await app.open(`${await app.newNight()}?agent=warden1&state=comb`);
    await untilReady(page);
    await rowsOf(page, 'Comb the place').first().focus();
    await page.keyboard.press('Tab');
    await page
      .getByRole('alert')
      .getByText('There is no row above that this one could go into.')
      .waitFor();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Tab');
    await expect.poll(() => page.locator('[role="row"]:focus').count()).toBe(0);
  });

  it('is moved by dragging, and edited where it stands', async () => {
    const page = await app.open(`${await app.newNight()}?agent=warden1&state=comb`);
    await untilReady(page);
    const rows = rowsOf(page, 'Comb the place');
    await rows.first().waitFor();
    const before = await spoken(page, 'Comb the place');
    const dragged = rows.nth(3);
    await dragged.hover();
    const box = (await rows.nth(1).boundingBox())!;
    await dragged.locator('[draggable]').dragTo(rows.nth(1), {
      targetPosition: { x: box.width / 2, y: 2 },
    });
    await expect.poll(() => spoken(page, 'Comb the place')).not.toEqual(before);
    expect((await spoken(page, 'Comb the place'))[1]).toBe(before[3]);
    await page.keyboard.press('Control+z');
    await expect.poll(() => spoken(page, 'Comb the place')).toEqual(before);
    await page.getByRole('button', { name: /^within of moveTo, in row 3/ }).click();
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await spoken(page, 'Comb the place'))[2]).toContain('within 2');
  });
});

describe('what is copied', () => {
  it('is pasted beneath another row, and into another mind with what it needs', async () => {
    const mind = await app.newNightWatch();
    const page = await app.open(`${mind}/minds/warden?sheet=trees.combThePlace`);
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await untilReady(page);
    await rowsOf(page, 'Comb the place').nth(1).focus();
    await page.keyboard.press('Control+c');
    await page.keyboard.press('Control+v');
    await expect.poll(async () => (await spoken(page, 'Comb the place')).length).toBe(11);
    await page.keyboard.press('Control+z');

    // The tree as a whole, into the goose's mind, which knows neither the key nor the tree it calls.
    await page.getByRole('button', { name: 'Copy tree Comb the place' }).click();
    await page.getByText('Copied', { exact: true }).waitFor();
    await page.getByRole('button', { name: /^Goose 2 states/ }).click();
    await page.getByRole('region', { name: 'State Graze' }).waitFor();
    await page.keyboard.press('Control+v');
    const dialog = page.getByRole('dialog', { name: 'Missing references' });
    await dialog.getByText('lookAbout').waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await dialog.getByRole('button', { name: 'Bring them along' }).click();
    await page.waitForURL(/minds\/goose\?.*sheet=trees.combThePlace/);
    await expect.poll(async () => (await spoken(page, 'Comb the place')).length).toBe(9);
    await untilSaved(page);
  });
});
