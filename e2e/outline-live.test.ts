import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { findState, type ProjectDocument } from '@crooked-lantern/core';
import { seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { untilResting, untilRunning } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** A plain night whose wardens, on their rounds, try to leave the ground, then rest and speak; they never get to the last row. */
function withTree(document: ProjectDocument): void {
  const { warden } = document.minds;
  warden.trees = {
    ...warden.trees,
    stand: {
      title: 'Stand',
      root: {
        repeat: {
          sequence: [
            { invert: { do: 'moveTo', to: 'attention.place' } },
            { do: 'wait', seconds: 0.5 },
            { invert: { do: 'wait', seconds: 0.25 } },
            { do: 'say', text: 'Never said' },
          ],
        },
      },
    },
  };
  findState(warden.machine!.states, 'rounds')!.activity = { tree: 'stand' };
}

/** The same with rules, of which two want the legs. */
function withRules(document: ProjectDocument): void {
  const { warden } = document.minds;
  warden.rules = {
    keep: {
      title: 'Keep',
      rows: [
        { when: 'true', do: [{ do: 'followRoute', route: 'self.route' }] },
        { when: 'true', do: [{ do: 'moveTo', to: 'self.place' }] },
      ],
    },
  };
  findState(warden.machine!.states, 'rounds')!.activity = { rules: 'keep' };
}

const rowsOf = (page: Page, title: string) =>
  page.getByRole('treegrid', { name: `Rows of ${title}` }).getByRole('row');

const AT_TICK = '?agent=warden1&state=rounds&tick=600';

describe('rows of a run', () => {
  it('say how often each began, why it failed last, and which were never reached', async () => {
    const page = await app.open(`${await app.newNight(withTree)}${AT_TICK}`);
    await untilResting(page);
    const rows = rowsOf(page, 'Stand');
    const move = rows.filter({ hasText: 'Move to' });
    await move
      .locator('[data-tally]')
      .filter({ hasText: /^1\d× <1 %$/ })
      .waitFor();
    const waits = rows.filter({ hasText: 'Wait' });
    await waits
      .first()
      .locator('[data-tally]')
      .filter({ hasText: /^1\d× 6\d %$/ })
      .waitFor();
    await rows
      .filter({ hasText: 'Never said' })
      .and(page.locator('[data-unreached="true"]'))
      .waitFor();
    expect(await move.getAttribute('data-unreached')).toBe('false');
    await move.focus();
    await page
      .getByText(
        /Begun 1\d times · ran 0\.0 s in all · failed \d\.\d s ago: the place is not known/i,
      )
      .waitFor();
    await rows.filter({ hasText: 'Never said' }).focus();
    await page.getByText('Not reached in this run.').waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    // At an earlier moment it is what was so then.
    await page.keyboard.press('Escape');
    await page.getByRole('slider', { name: 'Playhead' }).focus();
    await page.keyboard.press('Home');
    await expect.poll(() => move.locator('[data-tally]').textContent()).toBe('');
  });

  it('of rules say by which row they were overruled', async () => {
    const page = await app.open(`${await app.newNight(withRules)}${AT_TICK}`);
    await untilResting(page);
    const row = rowsOf(page, 'Keep').filter({ hasText: 'Move to' });
    await row.getByText('⊘ by row 3').waitFor();
    await row.focus();
    await page.getByText(/overruled by row 3 0\.\d s ago/i).waitFor();
  });

  it('can be asked about where they stand: why not, and the answer says by whom', async () => {
    const page = await app.open(`${await app.newNight(withRules)}${AT_TICK}`);
    await untilResting(page);
    await rowsOf(page, 'Keep').filter({ hasText: 'Move to' }).focus();
    await page.keyboard.press('Shift+W');
    await page.waitForURL(/\/watch\?.*ask=notRow%3Akeep%3A5/);
    await page.getByText('what it needs is used by no row above').waitFor();
    await page.getByText('“Follow route self.route” uses it').waitFor();
    // Among many questions one is found by typing.
    await page.getByRole('button', { name: /What is asked/ }).click();
    await page.getByRole('searchbox', { name: 'Find in: What is asked' }).fill('row 3 of Keep');
    await page.keyboard.press('Enter');
    await page.waitForURL(/ask=notRow%3Akeep%3A3/);
    expect(await seriousFaults(page)).toEqual([]);
  });
});

describe('among many rows', () => {
  it('one is found by what it says, also inside folded ones', async () => {
    const page = await app.open(`${await app.newNight(withTree)}?agent=warden1&state=rounds`);
    await untilRunning(page);
    await rowsOf(page, 'Stand').first().focus();
    await page.keyboard.press('ArrowLeft');
    await expect.poll(() => rowsOf(page, 'Stand').count()).toBeLessThan(3);
    await page.keyboard.press('f');
    await page.getByRole('menuitem', { name: /Never said/ }).waitFor();
    await page.keyboard.type('never');
    await expect.poll(() => page.getByRole('menuitem').count()).toBe(1);
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.locator('[role="row"]:focus').filter({ hasText: 'Never said' }).waitFor();
  });

  it('one is linked to, with the moment, and the link opens it', async () => {
    const page = await app.open(`${await app.newNight(withTree)}${AT_TICK}`);
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await untilResting(page);
    const said = rowsOf(page, 'Stand').filter({ hasText: 'Never said' });
    await said.focus();
    await page.keyboard.press('h');
    const link = () => page.evaluate(() => navigator.clipboard.readText());
    await expect.poll(link).toContain('tick=600');
    await page.goto(await link());
    await untilResting(page);
    await page.locator('[role="row"]:focus').filter({ hasText: 'Never said' }).waitFor();
    expect(await page.getByTestId('clock').textContent()).toContain('tick 600');
  });
});
