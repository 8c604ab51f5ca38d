import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes, seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, chooseOption, setNumber } from './testing/fields.fixture.ts';
import {
  isLit,
  pause,
  tick,
  untilLit,
  untilReady,
  untilResting,
  untilRunning,
  untilSaved,
} from './testing/minds-page.fixture.ts';
import { fromTheBeginning, hold, placeOf, runAround, type Leg } from './testing/playing.fixture.ts';
import { stageOf, tool } from './testing/stage.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** Parts in the list, by layer. */
const listed = (page: Page, layer: string) =>
  page
    .getByRole('region', { name: layer, exact: true })
    .getByRole('button')
    .filter({ hasNotText: /^$/ })
    .allInnerTexts();

/** A way around the wall of the yard, at its edge. */
const LEGS: Leg[] = [
  ['ArrowRight', ({ x }) => x > 34.5],
  ['ArrowDown', ({ y }) => y > 22.5],
  ['ArrowLeft', ({ x }) => x < 1.2],
  ['ArrowUp', ({ y }) => y < 1.2],
];

describe('a ground from nothing', () => {
  it(
    'is built with the pages, played, and played again by itself to the same hash',
    { timeout: 240_000 },
    async () => {
      const project = await app.newNightWatch();
      const page = await app.open(`${project}/ground`);
      await untilReady(page);

      // Clears the orchard and makes a small yard of it.
      await page.getByTestId('editor').focus();
      await page.keyboard.press('Control+Shift+a');
      await page.getByRole('application', { name: /Chosen: / }).waitFor();
      await page.keyboard.press('Delete');
      await expect.poll(() => listed(page, 'Agents'), { timeout: 10_000 }).toEqual([]);
      await setNumber(page, 'Width of the ground', '36');
      await setNumber(page, 'Depth of the ground', '24');
      await setNumber(page, 'Light everywhere of the ground', '0.7');
      const stage = await stageOf(page, 36, 24);

      // A wall to hide behind, low cover, a lamp, a basket and a round to walk.
      await tool(page, 'Wall');
      await stage.drag(13, 4, 13.8, 20);
      await tool(page, 'Low cover');
      await stage.drag(20, 16, 23, 16.5);
      await tool(page, 'Lamp');
      await stage.click(6, 3);
      await tool(page, 'Basket');
      await stage.click(15.6, 12.4);
      await tool(page, 'Route');
      await stage.click(5, 8);
      await stage.click(10, 8);
      await stage.click(10, 4);
      await page.keyboard.press('Enter');

      // A warden on that round; not where the wall is, which turns red and says so.
      await chooseFrom(page, 'Body: Gleaner. Choose', 'Warden');
      await tool(page, 'Agent');
      await stage.click(13.4, 8);
      await page.getByRole('alert').getByText('there is a wall in the way').waitFor();
      await stage.click(5, 8);
      await chooseOption(page, 'Route of warden', 'round');
      await chooseFrom(page, 'Body: Warden. Choose', 'Gleaner');
      await stage.click(15, 16);
      await page.getByRole('button', { name: 'Played by you: gleaner' }).click();
      await page.getByText('Every place can be reached').waitFor();
      expect(await listed(page, 'Agents')).toHaveLength(2);
      await untilSaved(page);
      await page.getByText(/running\s+edit \d+\s+· live/).waitFor();

      // Takes the basket, is seen, hides behind the wall, and is searched for.
      await page.keyboard.press('p');
      await page.getByRole('link', { name: 'Minds' }).click();
      await page.getByRole('button', { name: /^Warden \d+ states/ }).click();
      await untilLit(page, 'rounds');
      await fromTheBeginning(page);
      const gleaner = () => placeOf(page, 'gleaner');
      await hold(page, ['ArrowUp'], async () => (await gleaner()).y < 13);
      await page.keyboard.press('e');
      await hold(page, ['ArrowUp'], async () => (await gleaner()).y < 2.2);
      await hold(page, ['Shift', 'ArrowLeft'], () => isLit(page, 'chase'));
      const leg = await runAround(page, LEGS, () => isLit(page, 'comb'));

      // Throws the basket away, and keeps low until the search is given up.
      const aimed = await tick(page);
      await hold(page, ['t'], async () => (await tick(page)) >= aimed + 40);
      const isFar = async () => {
        const [me, warden] = [await gleaner(), await placeOf(page, 'warden')];
        return Math.hypot(me.x - warden.x, me.y - warden.y) > 17;
      };
      await runAround(page, LEGS, isFar, leg);
      await page.keyboard.press('c');
      await chooseFrom(page, 'Speed 1 times. Choose', '8×');
      await page.keyboard.press('p');
      await untilLit(page, 'rounds', 90);

      // What was done is done again by itself, and comes to the same.
      await pause(page);
      const at = await tick(page);
      const hash = await page.getByTestId('hash').innerText();
      await page.keyboard.press('Control+k');
      await page.getByRole('searchbox', { name: 'Find a command' }).fill('replay the input');
      await page.keyboard.press('ArrowDown');
      await page.keyboard.press('Enter');
      await expect.poll(() => tick(page), { timeout: 30_000 }).toBe(at);
      await untilResting(page);
      expect(await page.getByTestId('hash').innerText()).toBe(hash);
    },
  );
});

describe('editing a ground', () => {
  it('moves by drag, keys and numbers, copies, removes, and takes each step back', async () => {
    const page = await app.open(`${await app.newNightWatch()}/ground`);
    await untilRunning(page);
    const stage = await stageOf(page, 24, 29);
    const place = (text: string) =>
      page.getByRole('navigation', { name: 'Parts of the ground' }).getByText(text);
    await stage.click(9.2, 25.4);
    await page.getByRole('heading', { name: 'Gleaner' }).waitFor();
    await stage.drag(9.2, 25.4, 12.2, 25.4);
    await place('12.2, 25.4').waitFor();
    await page.keyboard.press('ArrowDown');
    await place('12.2, 25.5').waitFor();
    await page.keyboard.press('Shift+ArrowLeft');
    await place('11.2, 25.5').waitFor();
    await setNumber(page, 'x of Gleaner', '13');
    await place('13, 25.5').waitFor();
    await page.keyboard.press('Control+z');
    await place('11.2, 25.5').waitFor();

    await page.getByRole('button', { name: 'Warden 1', exact: false }).first().click();
    await page.keyboard.press('Control+d');
    await page.getByRole('heading', { name: 'Warden 5' }).waitFor();
    expect(await listed(page, 'Agents')).toHaveLength(9);
    await page.getByRole('button', { name: 'Remove (Delete)' }).click();
    expect(await listed(page, 'Agents')).toHaveLength(8);
  });

  it('keeps what can’t be from happening, with the reason', async () => {
    const page = await app.open(`${await app.newNightWatch()}/ground`);
    await untilRunning(page);
    await page
      .getByRole('button', { name: /^Warden 1/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'x of Warden 1: 3.4. Edit' }).click();
    await page.getByRole('textbox', { name: 'x of Warden 1' }).fill('1.3');
    await page.getByRole('textbox', { name: 'x of Warden 1' }).press('Enter');
    await setNumber(page, 'y of Warden 1', '12');
    await page.getByRole('button', { name: 'y of Warden 1: 12. Edit' }).click();
    await page.getByRole('textbox', { name: 'y of Warden 1' }).fill('13.1');
    await page.getByRole('textbox', { name: 'y of Warden 1' }).press('Enter');
    await page.getByRole('alert').getByText('there is a wall in the way').waitFor();
    await page.getByRole('button', { name: 'y of Warden 1: 12. Edit' }).waitFor();
  });

  it('lets no click through to what is locked, and draws nothing that is hidden', async () => {
    const page = await app.open(`${await app.newNightWatch()}/ground`);
    await untilRunning(page);
    const stage = await stageOf(page, 24, 29);
    await page.getByRole('button', { name: 'Lock Agents' }).click();
    await stage.click(9.2, 25.4);
    await page.getByRole('heading', { name: 'Saltglass Orchard' }).waitFor();
    await page.getByRole('button', { name: 'Unlock Agents' }).click();
    // A lamp shines on the sleeper; the click takes the sleeper.
    await stage.click(22.6, 25.6);
    await page.getByRole('heading', { name: 'Sleeper' }).waitFor();
  });

  it('names what is cut off for the body that is looked at', async () => {
    const page = await app.open(
      `${await app.newNightWatch((document) => {
        const { orchard } = document.grounds;
        orchard.walls.push(
          { at: [18, 5.6], size: [3, 0.2] },
          { at: [18, 8], size: [3, 0.2] },
          { at: [18, 5.6], size: [0.2, 2.6] },
          { at: [20.8, 5.6], size: [0.2, 2.6] },
        );
      })}/ground`,
    );
    await page.getByText(/cut off 1: \d+\.\d m² around 19\.5, 6\.9/).waitFor();
  });

  it('has nothing serious for axe, dark and light', async () => {
    const page = await app.open(`${await app.newNightWatch()}/ground`);
    await untilRunning(page);
    await pause(page);
    await page
      .getByRole('button', { name: /^Warden 1/ })
      .first()
      .click();
    expect(await faultsInBothThemes(page)).toEqual([]);
  });
});

describe('playing', () => {
  it('starts set-ups by key, and takes over an agent that is watched', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden?agent=warden1`);
    await untilRunning(page);
    await page.keyboard.press('Shift+Digit1');
    await expect.poll(async () => (await placeOf(page, 'Gleaner')).x).toBeGreaterThan(14);
    await page.keyboard.press('x');
    // The keys that are shown are those of the warden's own moves.
    await page.getByText(/press G, to play the Warden 1|Arrows walk · F Cudgel/).waitFor();
    const { x } = await placeOf(page, 'Warden 1');
    await page.keyboard.down('ArrowRight');
    await expect
      .poll(async () => (await placeOf(page, 'Warden 1')).x, { timeout: 20_000 })
      .toBeGreaterThan(x + 1);
    await page.keyboard.up('ArrowRight');
  });

  it('shows who was there before an edit when one goes back, and goes on under the edit', async () => {
    const page = await app.open(`${await app.newNightWatch()}/ground`);
    await untilRunning(page);
    await page.getByRole('button', { name: 'Warden 1', exact: false }).first().click();
    await page.getByRole('button', { name: 'Remove (Delete)' }).click();
    await page.getByText(/running\s+edit 2\s+· live/).waitFor();
    await page.getByRole('link', { name: 'Minds' }).click();
    const ground = page.getByRole('list', { name: 'On the ground' });
    await ground.getByText('Warden 2 at').waitFor({ state: 'attached' });
    expect(await ground.getByText('Warden 1 at').count()).toBe(0);
    await fromTheBeginning(page);
    await page.getByText(/ran under\s+edit 1\s+· edit 2 runs on from here/).waitFor();
    await ground.getByText('Warden 1 at').waitFor({ state: 'attached' });
    await page.keyboard.press('p');
    await page.getByText(/running\s+edit 2\s+· live/).waitFor();
    await ground.getByText('Warden 1 at').waitFor({ state: 'detached' });
  });
});

it('parts are placed by the keyboard alone', async () => {
  const page = await app.open(`${await app.newNightWatch()}/ground`);
  await untilReady(page);
  const editor = page.getByTestId('editor');
  const use = async (name: string) => {
    await tool(page, name);
    await editor.focus();
  };
  const count = async (group: string) => (await listed(page, group)).length;
  const [lamps, walls, routes] = [
    await count('Lamps'),
    await count('Walls, hedges and cover'),
    await count('Routes'),
  ];
  // To the empty strip along the right edge.
  const goToEdge = async () => {
    for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowUp');
    await page.keyboard.press('Shift+ArrowDown');
  };
  await use('Lamp');
  await goToEdge();
  await page.keyboard.press('Space');
  await expect.poll(() => count('Lamps')).toBe(lamps + 1);
  await use('Low cover');
  await goToEdge();
  await page.keyboard.press('Space');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await expect.poll(() => count('Walls, hedges and cover')).toBe(walls + 1);
  await use('Route');
  await goToEdge();
  // Below the cover.
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Space');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Space');
  await page.keyboard.press('Enter');
  await expect.poll(() => count('Routes')).toBe(routes + 1);
  await page.keyboard.press('Escape');
  expect(await seriousFaults(page)).toEqual([]);
});
