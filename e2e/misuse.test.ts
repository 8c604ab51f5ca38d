import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import {
  tick,
  untilLit,
  untilReady,
  untilRunning,
  untilSaved,
  writeExpression,
} from './testing/minds-page.fixture.ts';

const DEMO = path.resolve(import.meta.dirname, '../demo/night-watch.lantern.json');
const OLD_DEMO = path.resolve(
  import.meta.dirname,
  '../packages/core/src/testing/version-1/windfall.lantern.json',
);
const GUARD = 'guard of transition 2 of Rounds';
const rounds = async () => `${await app.newNight()}?state=rounds`;

let app: App;
let files: string;
beforeAll(async () => {
  app = await startApp();
  files = mkdtempSync(path.join(os.tmpdir(), 'orchard-'));
});
afterAll(async () => {
  rmSync(files, { recursive: true, force: true });
  await app.close();
});
afterEach(async () => expect(await app.endPages()).toEqual([]));

function file(name: string, content: string): string {
  const full = path.join(files, name);
  writeFileSync(full, content);
  return full;
}

describe('files that are no projects', () => {
  /** What is wrong with it, its text, and what is said. */
  const REFUSED: [string, string, RegExp][] = [
    [
      'malformed',
      '{"format": "crooked-lantern/project",}',
      /This is not JSON: reading stopped at line 1, column 38.*Nothing was opened/,
    ],
    ['foreign', '{"format": "shopping-list"}', /belongs to another program/],
    ['newer', '{"format": "crooked-lantern/project", "version": 9}', /9 is newer/],
    [
      'faulty',
      readFileSync(DEMO, 'utf8').replace('"gait": "walk"', '"gait": 5'),
      /must be text, not 5/,
    ],
    ['20 MB', `"${'x'.repeat(20 * 1_048_576)}"`, /has 21 MB; a project file may have 8 MB/],
  ];

  it('are refused in words, one after the other, and the list stays as it is', async () => {
    const page = await app.open('/');
    await page.getByRole('link', { name: 'Night Watch' }).first().waitFor();
    const projects = page.getByRole('list', { name: 'Projects' }).getByRole('listitem');
    const before = await projects.count();
    for (const [name, content, words] of REFUSED) {
      await page.getByTestId('file').setInputFiles(file(`${name}.lantern.json`, content));
      await page.getByRole('alert').getByText(words).waitFor();
      expect(await projects.count(), name).toBe(before);
    }
  });

  it('a file of version 1 opens, is told apart, and is kept as version 2', async () => {
    const page = await app.open('/');
    await page.getByTestId('file').setInputFiles(OLD_DEMO);
    await page.waitForURL(/windfall/);
    await untilRunning(page);
    const notice = page.getByRole('status').filter({ hasText: 'version 1 of the format' });
    await notice.waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await notice.getByRole('button', { name: 'Dismiss' }).click();
    await notice.waitFor({ state: 'detached' });
    const id = /projects\/([^/]+)/.exec(page.url())![1];
    const kept = await page.request.get(`${app.address}/api/projects/${id}`);
    expect(await kept.json()).toMatchObject({ document: { version: 2 } });
  });

  it('a good file opens, and a project goes away and comes back', async () => {
    const page = await app.open('/');
    await page
      .getByTestId('file')
      .setInputFiles(
        file(
          'copy.lantern.json',
          readFileSync(DEMO, 'utf8').replace('"Night Watch"', '"Second Watch"'),
        ),
      );
    await page.waitForURL(/second-watch/);
    await untilRunning(page);
    await page.getByRole('link', { name: 'Crooked Lantern: all projects' }).click();
    await page.getByRole('button', { name: 'More for Second Watch' }).click();
    await page.getByRole('menuitem', { name: /Delete/ }).click();
    await page.getByText('“Second Watch” was deleted.').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('link', { name: 'Second Watch' }).waitFor();
  });
});

describe('a broken guard', () => {
  it('shows its error where it stands while the good edit runs on, is kept as a draft, and can be undone', async () => {
    const page = await app.open(await rounds());
    await untilLit(page, 'rounds');
    await page.getByRole('button', { name: GUARD }).click();
    await page.getByRole('textbox', { name: GUARD }).waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText('attention.strenght > 0.3');
    // As it is typed.
    await page
      .getByRole('alert')
      .getByText('Nothing is called “attention.strenght” here. Did you mean “attention.strength”?')
      .waitFor();
    await page.keyboard.press('Enter');
    await page.getByText(/has 1 error/).waitFor();
    await page.getByText(/running\s+edit 1\s+· edit 2 has 1 error/).waitFor();
    await page.getByRole('alert').getByText('Did you mean “attention.strength”?').waitFor();
    await untilSaved(page);
    // The agents go on under the good edit.
    await untilLit(page, 'rounds');
    await page.reload();
    // A page that opens with it says so, and the last edit without errors runs.
    await page.getByText(/running\s+edit 1\s+· edit 2 has 1 error/).waitFor();
    const notice = page
      .getByRole('status')
      .filter({ hasText: 'Edit 1, the last without errors, runs until it is mended.' });
    await notice.waitFor();
    await untilRunning(page);
    await untilLit(page, 'rounds');
    expect(await seriousFaults(page)).toEqual([]);
    await page
      .getByRole('list', { name: 'Findings' })
      .getByText('Did you mean “attention.strength”?')
      .waitFor();
    await writeExpression(page, GUARD, 'attention.strength > 0.3');
    await page.getByText(/running\s+edit 3\s+· live/).waitFor();
    await notice.waitFor({ state: 'detached' });
    await untilLit(page, 'rounds');
  });

  it('of a project that never ran says that nothing does, and runs when it is mended', async () => {
    const page = await app.open(
      await app.newNight((document) => {
        const { states } = document.minds.warden.machine!;
        const calm = states.find(({ id }) => id === 'calm')!;
        calm.states!.find(({ id }) => id === 'rounds')!.transitions![1].when = 'nothingLikeIt > 1';
      }),
    );
    await page
      .getByRole('status')
      .getByText('No edit before it runs either, so nothing runs until it is mended.')
      .waitFor();
    await page
      .getByRole('status')
      .getByRole('link', { name: /“nothingLikeIt”/ })
      .click();
    await writeExpression(page, GUARD, 'attention.strength > 0.3');
    await untilRunning(page);
  });

  it('is undone and redone with the keyboard', async () => {
    const page = await app.open(await rounds());
    await untilLit(page, 'rounds');
    await writeExpression(page, GUARD, 'attention.strength > 0.9');
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: `${GUARD}: attention.strength > 0.3. Edit` }).waitFor();
    await page.keyboard.press('Control+Shift+z');
    await page.getByRole('button', { name: `${GUARD}: attention.strength > 0.9. Edit` }).waitFor();
    await page.keyboard.press('Control+z');
    await untilSaved(page);
  });

  it('is undone and redone over a reload, back to the first edit of the project', async () => {
    const page = await app.open(await rounds());
    await untilLit(page, 'rounds');
    const guard = (value: string) =>
      page.getByRole('button', { name: `${GUARD}: attention.strength > ${value}. Edit` });
    for (const value of ['0.5', '0.7', '0.9']) {
      await writeExpression(page, GUARD, `attention.strength > ${value}`);
      await guard(value).waitFor();
    }
    await page.keyboard.press('Control+z');
    await guard('0.7').waitFor();
    await untilSaved(page);
    await page.reload();
    await guard('0.7').waitFor();
    await page
      .getByRole('button', { name: /^Undo guard of transition 2 of Rounds of Warden: / })
      .click();
    await guard('0.5').waitFor();
    await page
      .getByRole('button', { name: /^Undo guard of transition 2 of Rounds of Warden: / })
      .click();
    await guard('0.3').waitFor();
    expect(await page.getByRole('button', { name: 'Undo', exact: true }).isDisabled()).toBe(true);
    for (const value of ['0.5', '0.7', '0.9']) {
      await page.keyboard.press('Control+Shift+z');
      await guard(value).waitFor();
    }
    await untilSaved(page);
  });

  it('refuses a number out of range in words, and keeps the old one', async () => {
    const page = await app.open(await rounds());
    await page
      .getByRole('button', { name: 'seconds of for, transition 2 of Rounds: 0.2. Edit' })
      .click();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('-3');
    await page.getByRole('alert').getByText('It takes a number from 0 to 3600.').waitFor();
    await page.keyboard.press('Escape');
    await page
      .getByRole('button', { name: 'seconds of for, transition 2 of Rounds: 0.2. Edit' })
      .waitFor();
  });
});

/** The page saves nothing until it is let: what is made in two windows at once. */
async function holdSaves(page: Page): Promise<() => Promise<void>> {
  const saves = /\/api\/projects\/[^/]+$/;
  await page.route(saves, (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  return () => page.unroute(saves);
}

/** Two windows on one project, both ready. */
async function twoWindows(): Promise<[Page, Page]> {
  const where = await rounds();
  const [one, two] = [await app.open(where), await app.open(where)];
  await Promise.all([untilReady(one), untilReady(two)]);
  return [one, two];
}

const seconds = (value: string) => `seconds of for, transition 2 of Rounds: ${value}. Edit`;

async function setSeconds(page: Page, from: string, to: string): Promise<void> {
  await page.getByRole('button', { name: seconds(from) }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(to);
  await page.keyboard.press('Enter');
}

describe('two windows', () => {
  it('see at once what the other saved, and an undo takes it back in both', async () => {
    const [one, two] = await twoWindows();
    await writeExpression(one, GUARD, 'attention.strength > 0.4');
    await two.getByRole('button', { name: `${GUARD}: attention.strength > 0.4. Edit` }).waitFor();
    await two
      .getByRole('status')
      .getByText(/Another window saved edit \d+: guard of transition 2 of Rounds/)
      .waitFor();
    await two.getByText(/running\s+edit \d+\s+· live/).waitFor();
    expect(await seriousFaults(two)).toEqual([]);
    await two.getByRole('button', { name: 'Dismiss' }).click();
    await two.keyboard.press('Control+z');
    await one.getByRole('button', { name: `${GUARD}: attention.strength > 0.3. Edit` }).waitFor();
  });

  it('merge by themselves what they changed at once in different parts', async () => {
    const [one, two] = await twoWindows();
    const letGo = await holdSaves(two);
    await setSeconds(two, '0.2', '0.5');
    await two.getByText('not saved', { exact: true }).waitFor();
    await writeExpression(one, GUARD, 'attention.strength > 0.4');
    await untilSaved(one);
    await letGo();
    await untilSaved(two);
    await two.getByRole('status').getByText('It was merged with what you changed here').waitFor();
    for (const page of [one, two]) {
      await page.getByRole('button', { name: seconds('0.5') }).waitFor();
      await page
        .getByRole('button', { name: `${GUARD}: attention.strength > 0.4. Edit` })
        .waitFor();
    }
  });

  it('never overwrite each other; the later one chooses, also after a reload, and loses nothing', async () => {
    const [one, two] = await twoWindows();
    const letGo = await holdSaves(two);
    await writeExpression(two, GUARD, 'attention.strength > 0.6');
    await two.getByText('not saved', { exact: true }).waitFor();
    await writeExpression(one, GUARD, 'attention.strength > 0.4');
    await untilSaved(one);
    await letGo();
    const conflict = two
      .getByRole('alert')
      .getByText(
        /The other saved edit \d+ at [\d:]+; yours was made at [\d:]+, so the other is newer/,
      );
    await conflict.waitFor();
    await two.reload();
    await conflict.waitFor();
    await two.getByRole('button', { name: 'Take the other' }).click();
    await two.getByRole('button', { name: `${GUARD}: attention.strength > 0.4. Edit` }).waitFor();
    // Undo brings one's own back, now on top.
    await two.keyboard.press('Control+z');
    for (const page of [two, one])
      await page
        .getByRole('button', { name: `${GUARD}: attention.strength > 0.6. Edit` })
        .waitFor();
  });

  it('put together part by part what both changed', async () => {
    const [one, two] = await twoWindows();
    const letGo = await holdSaves(two);
    await setSeconds(two, '0.2', '0.5');
    await two.getByText('not saved', { exact: true }).waitFor();
    await writeExpression(one, GUARD, 'attention.strength > 0.4');
    await untilSaved(one);
    await setSeconds(one, '0.2', '0.9');
    await untilSaved(one);
    await letGo();
    await two.getByRole('button', { name: 'Merge by part …' }).click();
    const dialog = two.getByRole('dialog', { name: 'Merge by part' });
    const parts = dialog.getByRole('list', { name: 'Parts that differ' }).getByRole('listitem');
    await expect.poll(() => parts.count()).toBe(2);
    const both = parts.filter({ hasText: 'changed by both' });
    await both.getByText('was 0.2 · here 0.5 · other 0.9').waitFor();
    await parts.filter({ hasText: 'changed in the other window' }).waitFor();
    expect(await seriousFaults(two)).toEqual([]);
    await both.getByRole('button').click();
    await two.getByRole('option', { name: 'as in the other' }).click();
    await dialog.getByRole('button', { name: 'Merge', exact: true }).click();
    await two.getByRole('button', { name: seconds('0.9') }).waitFor();
    await two.getByRole('button', { name: `${GUARD}: attention.strength > 0.4. Edit` }).waitFor();
    await untilSaved(two);
    // What was one's own is an undo away.
    await two.keyboard.press('Control+z');
    await two.getByRole('button', { name: seconds('0.5') }).waitFor();
    await untilSaved(two);
  });

  it('leaving with something unsaved warns', async () => {
    const page = await app.open(await rounds());
    await untilReady(page);
    const letGo = await holdSaves(page);
    await setSeconds(page, '0.2', '0.5');
    await page.getByText('not saved', { exact: true }).waitFor();
    const [warning] = await Promise.all([
      page.waitForEvent('dialog'),
      page.evaluate(() => setTimeout(() => location.reload())),
    ]);
    expect(warning.type()).toBe('beforeunload');
    await warning.dismiss();
    await letGo();
    await untilSaved(page);
  });
});

describe('losing the database', () => {
  it('is said; work goes on, survives closing the page, and is saved when it is back', async () => {
    const where = await rounds();
    const page = await app.open(where);
    await untilLit(page, 'rounds');
    app.database.cut();
    await writeExpression(page, GUARD, 'attention.strength > 0.7');
    await page.getByRole('alert').getByText('The database does not answer').waitFor();
    await page.getByText('not saved', { exact: true }).waitFor();
    await page.getByText(/running\s+edit \d+\s+· live/).waitFor();
    await untilLit(page, 'rounds');
    app.database.mend();
    await untilSaved(page);

    app.database.cut();
    await writeExpression(page, GUARD, 'attention.strength > 0.3');
    await page.getByText('not saved', { exact: true }).waitFor();
    await page.goto('about:blank');
    app.database.mend();
    await page.goto(app.address + where);
    await page.getByRole('button', { name: `${GUARD}: attention.strength > 0.3. Edit` }).waitFor();
    await untilSaved(page);
  });
});

it('a part of the page that can’t be loaded says so in its place, while the run goes on, and comes by itself', async () => {
  const page = await app.open(await rounds());
  const parts = /assets\/(history-dialog|watch-page)/;
  await page.route(parts, (request) => request.abort());
  await untilRunning(page);
  await page.keyboard.press('F4');
  await page.getByRole('alert').getByText('Can’t load the history.').waitFor();
  const before = await tick(page);
  await expect.poll(() => tick(page)).toBeGreaterThan(before);
  // A page of its own leaves the header, which leads back.
  await page.getByRole('link', { name: 'Watch', exact: true }).click();
  await page.getByRole('alert').getByText('Can’t load this page.').waitFor();
  await page.getByRole('link', { name: 'Minds', exact: true }).click();
  await untilLit(page, 'rounds');
  await page.unroute(parts);
  await page.getByRole('dialog', { name: 'History' }).waitFor();
});

it('an address that leads nowhere says so and shows the way back', async () => {
  const page = await app.open('/projects/nobody/minds');
  await page.getByRole('alert').getByText('There is no project “nobody”').waitFor();
  await page.getByRole('link', { name: 'All projects', exact: true }).click();
  await page.getByRole('link', { name: 'Night Watch' }).first().waitFor();
  await page.goto(`${app.address}/nowhere`);
  await page.getByText('There is no page here').waitFor();
});

it('a page that breaks says what went wrong, and the way back leads out of it', async () => {
  const page = await app.open('/');
  // No server gives such a document.
  await page.route('**/api/projects/night-watch', (route) =>
    route.fulfill({ json: { id: 'night-watch', title: 'Night Watch', edit: 1, document: {} } }),
  );
  await page.goto(`${app.address}/projects/night-watch/minds`);
  await page.getByRole('heading', { name: 'This page broke' }).waitFor();
  await page.getByText(/undefined/).waitFor();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('link', { name: 'All projects', exact: true }).click();
  await page.getByRole('heading', { name: 'Projects' }).waitFor();
});
