import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import { countedKeys, type CountedKeys } from './testing/counted-keys.fixture.ts';
import { tick } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** So many controls away something may be at most. */
const FARTHEST = 40;

/** Goes on with Tab until what has the focus is called so. */
async function tabTo(page: Page, keys: CountedKeys, name: RegExp): Promise<void> {
  const focused = () =>
    page.evaluate(() => {
      const element = document.activeElement;
      const labels = (element?.getAttribute('aria-labelledby') ?? '').split(' ');
      const words = labels.map((id) => document.getElementById(id)?.textContent ?? '').join(' ');
      return `${element?.getAttribute('aria-label') ?? ''}${words.trim() || (element?.textContent ?? '')}`;
    });
  for (let i = 0; i < FARTHEST; i++) {
    if (name.test(await focused())) return;
    await keys.press('Tab');
  }
  throw new Error(`Nothing called ${name} within ${FARTHEST} controls.`);
}

it('by the keyboard alone: stop, ask why and why not, try the change, compare both runs, and share the moment', async () => {
  const mind = await app.newNight((document) => {
    const [calm] = document.minds.warden.machine!.states;
    const rounds = calm.states!.find(({ id }) => id === 'rounds')!;
    rounds.transitions = [{ to: 'peer', after: 2 }];
  });
  const page = await app.open(`${mind}?agent=warden1&state=peer&tick=10`);
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.getByTestId('hash').waitFor();
  const keys = countedKeys(page);

  // Where it is entered for the first time the run stops.
  await keys.press('Shift+B');
  await page.getByText(/running\s+edit 2/).waitFor();
  await keys.press('n');
  await page.getByText('a state is entered, peer').first().waitFor();
  const stopped = await tick(page);
  await keys.press('Shift+W');
  const answer = page.getByRole('list', { name: 'The answer' });
  await answer.getByText('Warden 1 is in Peer').first().waitFor();

  // Half a second before it was not so yet.
  await keys.press('Shift+Comma', 'Shift+Comma', 'Shift+Comma');
  await expect.poll(() => tick(page)).toBe(stopped - 30);
  await tabTo(page, keys, /What is asked/);
  await keys.press('Enter');
  await page.getByRole('option', { name: 'why it is not in Peer' }).waitFor();
  await keys.type('why it is not in Peer');
  await keys.press('Enter');
  await answer.getByText('Not so: Warden 1 is in Peer').waitFor();

  await tabTo(page, keys, /^Try it/);
  await keys.press('Enter');
  const tried = page.getByRole('region', { name: 'Try it' });
  await tried.getByText(/After of transition 1 of Rounds of .*: 1\.\d+ in place of 2/).waitFor();
  await tabTo(page, keys, /^See both runs/);
  await keys.press('Enter');
  const comparison = page.getByRole('region', { name: 'Comparison' });
  await comparison.getByText(/^The first decision that differs is that of/).waitFor();
  await tabTo(page, keys, /^To where they part/);
  await keys.press('Enter');
  await page.getByTestId('hash').waitFor();
  const parted = await tick(page);
  expect(parted).toBeLessThan(stopped);

  // A user who opens the link sees the same moment.
  await keys.press('ControlOrMeta+Shift+L');
  const read = () => page.evaluate(() => navigator.clipboard.readText());
  await expect.poll(read).toContain(`tick=${parted}`);
  const hash = await page.getByTestId('hash').textContent();
  const address = new URL(await read());
  const other = await app.open(`${address.pathname}${address.search}`);
  await expect.poll(() => tick(other)).toBe(parted);
  await expect.poll(() => other.getByTestId('hash').textContent()).toBe(hash);
  expect(keys.count).toBeLessThan(100);
});
