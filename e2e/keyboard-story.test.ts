import type { ProjectDocument } from '@crooked-lantern/core';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import { countedKeys, type CountedKeys } from './testing/counted-keys.fixture.ts';
import { untilLit, untilSaved } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** What a user sees before pressing the next key. */
const see = {
  state: (page: Page, id: string) => page.locator(`[data-state="${id}"]:focus`).waitFor(),
  choice: (page: Page, name: string) =>
    page.getByRole('menuitem', { name, exact: false }).first().waitFor(),
  title: (page: Page) => page.locator('[role="dialog"] input:focus').waitFor(),
  guard: (page: Page) => page.getByRole('textbox', { name: /^guard of transition/ }).waitFor(),
};

/** Opens a list by a key, and takes what a few letters of its name find. */
async function take(page: Page, keys: CountedKeys, key: string, letters: string, name: string) {
  await keys.press(key);
  await page
    .getByRole('searchbox')
    .or(page.getByRole('textbox', { name: /./ }))
    .first()
    .waitFor();
  await keys.type(letters);
  await see.choice(page, name);
  await keys.press('ArrowDown', 'Enter');
}

/** A new state that the one with the focus leads to, with the guard that opens left as it is, or written. */
async function leadToNew(page: Page, keys: CountedKeys, title: string, guard?: string) {
  await take(page, keys, 'l', 'new', 'New state …');
  await see.title(page);
  await keys.type(title);
  await keys.press('Enter');
  await writeGuard(page, keys, guard);
  // It is walked to on the plan, which is laid out with it by then.
  await page.locator(`[data-state="${title.toLowerCase()}"]`).waitFor();
}

async function leadTo(
  page: Page,
  keys: CountedKeys,
  letters: string,
  name: string,
  guard?: string,
) {
  await take(page, keys, 'l', letters, name);
  await writeGuard(page, keys, guard);
}

async function writeGuard(page: Page, keys: CountedKeys, guard?: string) {
  await see.guard(page);
  // The text is chosen when the guard opens: what is typed takes its place.
  if (guard !== undefined) await keys.type(guard);
  await keys.press('Enter', 'Escape');
}

describe('with the keys alone, from nothing', () => {
  it('a warden that patrols, gets curious, chases, loses, searches and returns', async () => {
    const page = await app.open('/');
    const keys = countedKeys(page);
    await page.getByRole('button', { name: 'New project' }).waitFor();
    while (
      !(await page
        .getByRole('button', { name: 'New project' })
        .evaluate((button) => button.matches(':focus')))
    )
      await keys.press('Tab');
    await keys.press('Enter');
    await untilLit(page, 'stand');
    await keys.press('F6', 'F6');
    await see.state(page, 'stand');

    // Patrols.
    await keys.press('t');
    await see.title(page);
    await keys.type('Rounds');
    await keys.press('Enter');
    await see.state(page, 'stand');
    await take(page, keys, 'd', 'wan', 'Wander');
    await see.state(page, 'stand');

    // Gets curious, and goes back.
    await leadToNew(page, keys, 'Peer', 'attention.strength>0.2');
    await see.state(page, 'stand');
    await keys.press('1');
    await see.state(page, 'peer');
    await take(page, keys, 'd', 'face', 'Face');
    await see.state(page, 'peer');
    await leadTo(page, keys, 'rou', 'Rounds', 'attention.strength<0.1');
    await see.state(page, 'peer');

    // Chases the agent it remembers.
    await leadToNew(page, keys, 'Chase');
    await see.state(page, 'peer');
    await keys.press('2');
    await see.state(page, 'chase');
    await take(page, keys, 'e', 'remem', 'Remember');
    await see.title(page);
    await keys.type('prey');
    await keys.press('Enter');
    await see.state(page, 'chase');
    await take(page, keys, 'd', 'move', 'Move to');
    await see.state(page, 'chase');

    // Loses, and searches where it was.
    await leadToNew(page, keys, 'Comb', '!sees(prey)');
    await see.state(page, 'chase');
    await keys.press('1');
    await see.state(page, 'comb');
    await take(page, keys, 'e', 'add', 'Add');
    await see.title(page);
    await keys.type('spots');
    await keys.press('Enter');
    await see.state(page, 'comb');
    await take(page, keys, 'd', 'new', 'New tree …');
    await see.title(page);
    await keys.press('Enter');
    await page.getByRole('treegrid', { name: 'Rows of Comb' }).waitFor();
    await page.locator('[role="row"]:focus').waitFor();
    await take(page, keys, '/', 'sear', 'Search');
    await page.locator('[role="row"]:focus[aria-label^="Search"]').waitFor();
    await take(page, keys, '/', 'forg', 'Forget');
    await page.locator('[role="row"]:focus[aria-label^="Forget prey"]').waitFor();
    // Out of the rows, and back to the states.
    await keys.press('Escape', 'Escape');
    await see.state(page, 'comb');

    // Returns; two rooms, a calm one and a roused one, are put around.
    await leadTo(page, keys, 'rou', 'Rounds', 'time>9');
    await see.state(page, 'comb');
    await keys.press('1');
    await see.state(page, 'stand');
    await wrap(page, keys, 'Calm', 'calm');
    await keys.press('ArrowDown');
    await see.state(page, 'stand');
    await keys.press('1');
    await see.state(page, 'peer');
    await keys.press('2');
    await see.state(page, 'chase');
    await wrap(page, keys, 'Roused', 'roused');
    await keys.press('ArrowDown');
    await see.state(page, 'chase');
    await keys.press('1');
    await see.state(page, 'comb');
    await take(page, keys, 'm', 'rous', 'Roused');
    await see.state(page, 'comb');
    expect(keys.count).toBeLessThan(250);
    await untilSaved(page);

    const id = /projects\/([^/]+)/.exec(page.url())![1];
    const answer = await page.request.get(`${app.address}/api/projects/${id}`);
    const { document } = (await answer.json()) as { document: ProjectDocument };
    const { machine, memory, trees } = document.minds.keeper;
    expect(machine!.states.map((each) => each.id).sort()).toEqual(['calm', 'peer', 'roused']);
    expect(Object.keys(memory!).sort()).toEqual(['prey', 'spots']);
    expect(Object.keys(trees!)).toEqual(['comb']);
    // Nothing of it is wrong, and it runs.
    await expect.poll(() => page.getByText(/^running edit/).innerText()).not.toMatch(/error/);
    await untilLit(page, 'stand');
  });
});

/** Puts a new room around the state that has the focus. */
async function wrap(page: Page, keys: CountedKeys, title: string, id: string) {
  await keys.press('w');
  await see.title(page);
  await keys.type(title);
  await keys.press('Enter');
  await see.state(page, id);
}
