import type { ProjectDocument } from '@crooked-lantern/core';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilReady, untilSaved } from './testing/minds-page.fixture.ts';
import { addMind, take, write } from './testing/rows.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

async function saved(page: Page): Promise<ProjectDocument> {
  await untilSaved(page);
  const id = /projects\/([^/]+)/.exec(page.url())![1];
  const answer = await page.request.get(`${app.address}/api/projects/${id}`);
  return ((await answer.json()) as { document: ProjectDocument }).document;
}

describe('with the keys alone, a mind that is', () => {
  it('a behaviour tree, with guards that hold and preempt', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await addMind(page, 'A behaviour tree', 'Heron');
    await take(page, '/', 'selec', 'Selector', 'Selector');
    // The last is put in first: each comes to stand right beneath.
    await take(page, '/', 'wander', 'Wander', 'Wander');
    await page.keyboard.press('ArrowUp');
    await take(page, '/', 'face', 'Face', 'Face');
    await page.keyboard.press('g');
    await write(page, /^guard in row/, 'attention.strength > 0.3');
    await page.keyboard.press('Escape');
    await page.locator('[role="row"]:focus[aria-label^="Face"]').waitFor();
    await page.getByRole('button', { name: /when the guard is looked at, in row 3/ }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('option', { name: 'holds, preempts' }).focus();
    await page.keyboard.press('Enter');
    await page.locator('[role="row"][aria-label*="(both)"]').waitFor();
    const { minds } = await saved(page);
    expect(minds.heron.trees!.main.root).toMatchObject({
      sequence: [
        {
          selector: [
            { do: 'face', when: 'attention.strength > 0.3', holds: true, preempts: true },
            { do: 'wander' },
          ],
        },
      ],
    });
    expect(minds.heron.activity).toEqual({ tree: 'main' });
  });

  it('rules, with one that depends on another and an else', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await addMind(page, 'A set of rules', 'Goose');
    await take(page, '/', 'rule', 'Rule', 'While');
    await page.keyboard.press('Enter');
    await write(page, /^test in row 2/, 'time > 1');
    await page.keyboard.press('Escape');
    await page.locator('[role="row"]:focus').waitFor();
    await take(page, '/', 'say', 'Say', 'Say');
    await take(page, '/', 'rule', 'Rule', 'While attention');
    await page.keyboard.press('Tab');
    await page.locator('[role="row"]:focus[aria-level="3"]').waitFor();
    await page.keyboard.press('l');
    await page.locator('[role="row"][aria-label^="Else"]').waitFor();
    const { minds } = await saved(page);
    expect(minds.goose.rules!.main.rows).toMatchObject([
      {
        when: 'time > 1',
        do: [{ do: 'say' }],
        rows: [{ when: 'attention.strength > 0.5', else: [{ do: 'say' }] }],
      },
    ]);
    expect(await seriousFaults(page)).toEqual([]);
  });
});

describe('a pattern', () => {
  it('asks for its numbers, shows what it will add, and becomes ordinary states', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await page.getByRole('button', { name: 'Add a mind' }).click();
    await page.getByRole('menuitem', { name: 'From a pattern' }).click();
    const dialog = page.getByRole('dialog', { name: 'A mind from a pattern' });
    await dialog.getByRole('button', { name: 'Flee and come back' }).click();
    await dialog.getByText('states: Graze, Flee, Wait').waitFor();
    await dialog.getByRole('button', { name: /^Runs until: Flee/ }).click();
    await page.keyboard.type('15');
    await page.keyboard.press('Enter');
    expect(await seriousFaults(page)).toEqual([]);
    await dialog.getByRole('button', { name: 'Add the mind' }).click();
    await page.locator('[data-state="graze"]').waitFor();
    const { minds } = await saved(page);
    expect(minds.shy.machine!.states[1].activity).toMatchObject({ do: 'flee', until: 15 });
  });

  it('asks for what it needs, and gives it with the mind', async () => {
    const page = await app.open(
      await app.newNight((document) => {
        delete document.archetypes.gleaner.sight;
      }),
    );
    await untilReady(page);
    await page.getByRole('button', { name: 'Add a mind' }).click();
    await page.getByRole('menuitem', { name: 'From a pattern' }).click();
    const dialog = page.getByRole('dialog', { name: 'A mind from a pattern' });
    await dialog.getByRole('button', { name: 'Call for help' }).click();
    await dialog.getByText('An archetype with this mind needs sight and a squad.').waitFor();
    await dialog.getByRole('button', { name: /For of Call for help/ }).click();
    await page.getByRole('option', { name: 'Gleaner' }).click();
    await dialog.getByRole('button', { name: 'Give it sight: Gleaner' }).waitFor();
    await dialog.getByRole('button', { name: 'Make a squad for it: Gleaner' }).click();
    await dialog.getByRole('button', { name: 'Add the mind' }).click();
    await page.locator('[data-state="call"]').waitFor();
    const { archetypes } = await saved(page);
    expect(archetypes.gleaner).toMatchObject({ mind: 'caller', sight: { cones: [{}] } });
    expect(archetypes.gleaner.squad, 'left out by hand').toBeUndefined();
  });
});
