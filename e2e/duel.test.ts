import type { ProjectDocument } from '@crooked-lantern/core';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, setNumber } from './testing/fields.fixture.ts';
import { tick, untilReady, untilRunning, untilSaved } from './testing/minds-page.fixture.ts';
import { fromTheBeginning, placeOf } from './testing/playing.fixture.ts';

const DUEL = path.resolve(import.meta.dirname, '../demo/keepers-duel.lantern.json');

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** The duel as a project of its own, changed. */
function newDuel(change: (document: ProjectDocument) => void = () => {}): Promise<string> {
  const duel = JSON.parse(readFileSync(DUEL, 'utf8')) as ProjectDocument;
  change(duel);
  return app.newProject((document) => {
    for (const field of Object.keys(document)) delete document[field as keyof ProjectDocument];
    Object.assign(document, duel);
  });
}

/** What the page says of the keeper: where it is, and in which state. */
async function keeper(page: Page): Promise<string> {
  const list = page.getByRole('list', { name: 'On the ground' });
  return list.getByText(/^Keeper at/).innerText();
}

/** Walks up to the keeper and strikes, ten ticks at a time, until it is `done`. */
async function fightOn(page: Page, done: (keeper: string) => boolean): Promise<void> {
  let held: string[] = [];
  for (let step = 0; !done(await keeper(page)); step++) {
    if (step === 300) throw new Error(`After 50 s: ${await keeper(page)}`);
    const [own, theirs] = [await placeOf(page, /^Gleaner at/), await placeOf(page, /^Keeper at/)];
    const [dx, dy] = [theirs.x - own.x, theirs.y - own.y];
    const isNear = Math.hypot(dx, dy) < 1.5;
    const wanted = [
      ...(Math.abs(dx) > 0.3 ? [dx > 0 ? 'ArrowRight' : 'ArrowLeft'] : []),
      ...(Math.abs(dy) > 0.3 ? [dy > 0 ? 'ArrowDown' : 'ArrowUp'] : []),
    ];
    for (const key of held) if (!wanted.includes(key)) await page.keyboard.up(key);
    for (const key of wanted) if (!held.includes(key)) await page.keyboard.down(key);
    held = wanted;
    if (isNear) await page.keyboard.press('f');
    const from = await tick(page);
    await page.keyboard.press('Shift+Period');
    await expect.poll(() => tick(page), { interval: 10 }).toBe(from + 10);
  }
  for (const key of held) await page.keyboard.up(key);
}

describe('a fight', () => {
  it('goes through all phases, by steps and with keys held, and comes out in figures', async () => {
    const project = await newDuel(({ archetypes, start }) => {
      archetypes.gleaner.health = 2000;
      archetypes.keeper.health = 60;
      start.tier = 'gentle';
    });
    const page = await app.open(`${project}/minds`);
    await untilRunning(page);
    await fromTheBeginning(page);
    for (const phase of ['Warding', 'Pressing', 'Wrath'])
      await fightOn(page, (text) => text.includes(phase));
    await page.getByRole('link', { name: 'Weigh' }).click();
    await page.getByRole('button', { name: 'Figures by move' }).click();
    const row = page.getByRole('row', { name: /^Gleaner \d/ });
    const cells = await row.getByRole('cell').allInnerTexts();
    // Uses, what landed, and what it has dealt.
    expect(Number(cells[0])).toBeGreaterThan(3);
    expect(Number(cells[1])).toBeGreaterThan(3);
    expect(Number(cells[8])).toBeGreaterThan(30);
    await page.getByRole('row', { name: /^Jab \d/ }).waitFor();
    await page.getByRole('img', { name: /^What came of each move/ }).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    // A hit leads to its moment.
    const first = page.getByRole('button', { name: /^To 0:/ }).last();
    const at = /To 0:([\d.]+)/.exec((await first.getAttribute('aria-label'))!)![1];
    await first.click();
    await expect.poll(() => tick(page)).toBe(Math.round(Number(at) * 60));
    // And to why it did what it did.
    await page
      .getByRole('button', { name: /^Why .* landed at 0:/ })
      .first()
      .click();
    const answer = page.getByRole('list', { name: 'The answer' });
    await answer.getByText(/ away from edge to edge, of |^it flew /).waitFor();
    await answer.getByText(/points of damage: /).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
  });
});

describe('tiers', () => {
  it('are switched while the run goes on, which goes on from where it was', async () => {
    const page = await app.open(`${await newDuel()}/cast`);
    await untilReady(page);
    await page.getByRole('button', { name: /^Keeper 1 placed/ }).click();
    const before = await tick(page);
    await page.getByRole('button', { name: /^Tier Steady/ }).waitFor();
    await page.keyboard.press('Shift+T');
    await page.getByRole('button', { name: /^Tier Fierce/ }).waitFor();
    await page.locator('body').press('Shift+Period');
    await expect.poll(() => tick(page)).toBe(before + 10);
    // The numbers that differ say so where they are set, the one in force lit.
    const values = page.getByRole('link', { name: /^Gentle .* · Steady .* · Fierce/ }).first();
    expect(await values.locator('b').innerText()).toMatch(/^Fierce/);
    await chooseFrom(page, 'Tier Fierce. Choose another (Shift+T)', 'Gentle');
    await expect.poll(() => values.locator('b').innerText()).toMatch(/^Gentle/);
    await values.click();
    await page.getByRole('heading', { name: /tier/i }).first().waitFor();
    // A number is found in words, and given a value of its own.
    await page.getByRole('button', { name: 'Add a number' }).click();
    await page.getByRole('searchbox').fill('recovery of overhead');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /^recovery of Overhead of Keeper in Gentle/ }).click();
    await page.keyboard.type('×1.5');
    await page.keyboard.press('Enter');
    await page
      .getByRole('button', { name: /^recovery of Overhead of Keeper in Gentle: ×1.5/ })
      .waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    await untilSaved(page);
  });
});

describe('moves', () => {
  it('are set where the body is, with what they cover and whether a guard answers them', async () => {
    const page = await app.open(`${await newDuel()}/cast`);
    await untilReady(page);
    await page.getByRole('button', { name: /^Keeper 1 placed/ }).click();
    const moves = page.getByRole('region', { name: 'Moves' });
    await moves.getByText('Overhead', { exact: true }).first().click();
    // Any number can be let differ by tier where it is edited.
    await moves
      .getByRole('link', { name: 'Let recovery of Overhead of Keeper differ by tier' })
      .focus();
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /^recovery of Overhead of Keeper in Fierce/ }).waitFor();
    await page.goBack();
    await moves.getByText('Overhead', { exact: true }).first().click();
    await setNumber(page, 'Wind-up of Overhead of Keeper', '1.2');
    await moves.getByRole('img', { name: /wind-up 1\.2 s, active 0\.12 s/i }).waitFor();
    await setNumber(page, 'Active of Overhead of Keeper', '0.001');
    await moves.getByText(/shorter than a tick/).waitFor();
    await setNumber(page, 'Active of Overhead of Keeper', '0.2');
    await moves.getByRole('button', { name: 'Add a move' }).click();
    await page.keyboard.type('Low sweep');
    await page.keyboard.press('Enter');
    await moves.getByText('Low sweep', { exact: true }).first().waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    await untilSaved(page);
  });
});

describe('simple forms', () => {
  it('write a choice from a few sliders, which goes on as any', async () => {
    const page = await app.open(`${await newDuel()}/weigh`);
    await untilReady(page);
    await chooseFrom(page, 'Add a choice', 'For Keeper …');
    await page.getByRole('textbox', { name: 'Title' }).fill('Spar');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Begin with: a few sliders' }).click();
    const near = page.getByRole('slider', { name: 'How near it wants to be' });
    await near.focus();
    await page.keyboard.press('ArrowRight');
    await page
      .getByRole('button', { name: 'How near it wants to be, as a number: 1.7. Edit' })
      .waitFor();
    await page.getByText('What is written').click();
    await page.getByText(/^Charge, if ready\('charge'\)/).waitFor();
    await page.getByRole('button', { name: 'Spacing is far: 0.6, of Close in' }).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    // Changed by hand it is a choice like any other.
    await page.getByRole('button', { name: 'Charge', exact: true }).click();
    await setNumber(page, 'Rank of Charge', '1');
    await page.getByRole('button', { name: 'The choice as a whole' }).click();
    await page.getByText('How it weighs').waitFor();
    expect(await near.count()).toBe(0);
    await untilSaved(page);
  });
});
