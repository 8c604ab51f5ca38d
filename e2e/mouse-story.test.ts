import type { ProjectDocument } from '@crooked-lantern/core';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import {
  state,
  tick,
  untilLit,
  untilSaved,
  writeExpression,
} from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** Opens a list by its button, and takes an entry. */
async function take(page: Page, button: string | RegExp, ...entries: string[]): Promise<void> {
  await page.getByRole('button', { name: button }).first().click();
  for (const entry of entries)
    // After the name there may be its key.
    await page.getByRole('menuitem', { name: new RegExp(`^${entry}( \\S+)?$`) }).click();
}

/** Writes the title a dialog asks for. */
async function name(page: Page, title: string): Promise<void> {
  await page.locator('[role="dialog"] input').first().fill(title);
  await page.locator('[role="dialog"]').getByRole('button').last().click();
}

/** A new state beside the one that is shown, which is shown then. */
async function beside(page: Page, of: string, title: string): Promise<void> {
  await take(page, `More for ${of}`, 'New state beside');
  await name(page, title);
  await page.getByRole('region', { name: `State ${title}` }).waitFor();
}

/** A way out of the state that is shown, to another, with its guard. */
async function leave(page: Page, from: string, number: number, to: string, guard: string) {
  await page.getByRole('button', { name: 'Add a transition' }).click();
  await take(page, new RegExp(`^Target of transition ${number} of ${from}:`), to);
  await writeExpression(page, `guard of transition ${number} of ${from}`, guard);
}

/** Drags a state of the plan onto the edge of a room, where the states stand after all edits before. */
async function dragInto(page: Page, id: string, room: string): Promise<void> {
  await page.locator('[aria-label="State plan"][aria-busy="false"]').waitFor();
  const from = (await state(page, id).boundingBox())!;
  const to = (await state(page, room).boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 12, to.y + 5, { steps: 6 });
  await page.mouse.up();
}

describe('with the mouse, from nothing', () => {
  it('a warden that patrols, gets curious, chases, loses, searches and returns', async () => {
    const page = await app.open('/');
    await page.getByRole('button', { name: 'New project' }).click();
    await untilLit(page, 'stand');
    // It rests while it is written, and what is clicked is where it was.
    await page.getByRole('button', { name: 'Pause (P)' }).click();

    // Patrols.
    await state(page, 'stand').click();
    await take(page, 'More for Stand', 'Title');
    await name(page, 'Rounds');
    await take(page, 'Choose what it does while in Rounds', 'Wander');

    // Gets curious, chases the agent it remembers, loses it and searches where it was.
    await beside(page, 'Rounds', 'Peer');
    await take(page, 'Choose what it does while in Peer', 'Face');
    await beside(page, 'Peer', 'Chase');
    await take(page, 'Add an action on entry of Chase', 'Remember');
    await name(page, 'prey');
    await take(page, 'Choose what it does while in Chase', 'Move to');
    await beside(page, 'Chase', 'Comb');
    await take(page, 'Add an action on entry of Comb', 'Add to list');
    await name(page, 'spots');

    // A tree of its own, whose rows are dragged into their order.
    await page.getByRole('button', { name: 'Add a tree' }).click();
    await name(page, 'Comb about');
    const rows = page.getByRole('treegrid', { name: 'Rows of Comb about' }).getByRole('row');
    for (const [typed, row] of [
      ['forget', 'Forget'],
      ['search', 'Search'],
    ]) {
      await rows.first().click();
      await page.getByRole('button', { name: 'Add a row to Comb about' }).click();
      await page.keyboard.type(typed);
      await page.getByRole('menuitem', { name: row }).first().click();
      await rows.filter({ hasText: row }).waitFor();
    }
    const [search, forget] = ['Search', 'Forget'].map((text) => rows.filter({ hasText: text }));
    const order = () =>
      rows.evaluateAll((all) => all.map((row) => row.getAttribute('aria-label')!.split(' ')[0]));
    expect(await order()).toEqual(['Sequence,', 'Search', 'Forget']);
    await search.hover();
    const { width, height } = (await forget.boundingBox())!;
    await search
      .locator('[draggable]')
      .dragTo(forget, { targetPosition: { x: width / 2, y: height - 3 } });
    await expect.poll(order).toEqual(['Sequence,', 'Forget', 'Search']);
    await page.keyboard.press('Control+z');
    await expect.poll(order).toEqual(['Sequence,', 'Search', 'Forget']);
    await page.getByRole('button', { name: 'Back to the states' }).click();
    await state(page, 'comb').click();
    await take(page, 'Choose what it does while in Comb', 'Tree Comb about');

    // The ways from one to the next, and back.
    await leave(page, 'Comb', 1, 'Rounds', 'time > 9');
    await state(page, 'chase').click();
    await leave(page, 'Chase', 1, 'Comb', '!sees(prey)');
    await state(page, 'peer').click();
    await leave(page, 'Peer', 1, 'Rounds', 'attention.strength < 0.1');
    await leave(page, 'Peer', 2, 'Chase', 'attention.strength > 0.6');
    await state(page, 'stand').click();
    await leave(page, 'Rounds', 1, 'Peer', 'attention.strength > 0.2');

    // A calm room and a roused one, into which the others are dragged.
    await take(page, 'More for Rounds', 'New state around it');
    await name(page, 'Calm');
    await state(page, 'chase').click();
    await take(page, 'More for Chase', 'New state around it');
    await name(page, 'Roused');
    await state(page, 'roused').waitFor();
    await dragInto(page, 'comb', 'roused');
    await expect
      .poll(() => page.getByRole('region', { name: /^State Comb/ }).innerText())
      .toContain('in Roused');
    await dragInto(page, 'peer', 'calm');
    await expect
      .poll(() => page.getByRole('region', { name: /^State Peer/ }).innerText())
      .toContain('in Calm');
    // What is done on entry of one is moved to another, and taken back.
    await state(page, 'chase').click();
    const remembers = () => page.getByRole('button', { name: /^More for remember on/ });
    await remembers().first().click();
    await page.getByRole('menuitem', { name: 'Move to' }).click();
    await page.getByRole('menuitem', { name: 'Chase, on exit' }).click();
    await page.getByRole('button', { name: 'More for remember on exit of Chase' }).waitFor();
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'More for remember on entry of Chase' }).waitFor();

    await untilSaved(page);
    const id = /projects\/([^/]+)/.exec(page.url())![1];
    const answer = await page.request.get(`${app.address}/api/projects/${id}`);
    const { document } = (await answer.json()) as { document: ProjectDocument };
    const { machine, memory, trees } = document.minds.keeper;
    const inside = Object.fromEntries(
      machine!.states.map(({ id: room, states }) => [room, states?.map((each) => each.id)]),
    );
    expect(inside).toEqual({ calm: ['stand', 'peer'], roused: ['chase', 'comb'] });
    expect(Object.keys(memory!).sort()).toEqual(['prey', 'spots']);
    expect(Object.keys(trees!)).toEqual(['combAbout']);
    // Nothing of it is wrong, and it runs.
    await expect.poll(() => page.getByText(/^running edit/).innerText()).not.toMatch(/error/);
    const before = await tick(page);
    await page.getByRole('button', { name: 'Run (P)' }).click();
    await expect.poll(() => tick(page)).toBeGreaterThan(before);
    await untilLit(page, 'stand');
  });
});
