import { mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { ensurePackages } from './install.mjs';
import { checkNode, ROOT, runScript, say } from './project.mjs';
import { addProject, withApplication } from './with-application.mjs';

/** @typedef {import('playwright-core').Page} Page */

const MIND = '/projects/night-watch/minds/warden';

/** @param {Page} page @param {string} state */
const untilLit = (page, state) =>
  page
    .locator(`[data-state="${state}"][data-active="true"]`)
    .waitFor({ state: 'attached', timeout: 60_000 });

/**
 * Starts the gleaner in plain view of the second warden, runs it away, and stops while it is chased.
 * @param {Page} page
 */
async function beChased(page) {
  await untilLit(page, 'rounds');
  await page.getByTestId('ground').click();
  await page.keyboard.press('Shift+Digit1');
  await page.waitForTimeout(700);
  await page.keyboard.down('Shift');
  await page.keyboard.down('ArrowRight');
  await untilLit(page, 'chase');
  await page.waitForTimeout(300);
  await page.keyboard.up('ArrowRight');
  await page.keyboard.up('Shift');
  await page.keyboard.press('p');
  await page.getByTestId('hash').waitFor();
}

/**
 * Adds a copy of the demo, with other ways out of the state in which wardens walk their rounds.
 * @param {string} address
 * @param {string} title
 * @param {unknown[]} transitions
 */
async function addNightWithRounds(address, title, transitions) {
  const document = JSON.parse(
    readFileSync(path.join(ROOT, 'demo/night-watch.lantern.json'), 'utf8'),
  );
  document.title = title;
  const [calm] = document.minds.warden.machine.states;
  const rounds = calm.states.find((/** @type {{ id: string }} */ { id }) => id === 'rounds');
  rounds.transitions = transitions;
  return addProject(address, document);
}

/**
 * Walks up to the keeper of the duel and strikes so often, then lets the run rest.
 * @param {Page} page @param {number} times
 */
async function spar(page, times) {
  await page.getByTestId('ground').click();
  await page.keyboard.press('g');
  for (let i = 0; i < times; i++) {
    await page.keyboard.down('ArrowRight');
    await page.waitForTimeout(350);
    await page.keyboard.up('ArrowRight');
    await page.keyboard.press(i % 3 === 0 ? 'KeyR' : 'KeyF');
    await page.waitForTimeout(500);
    await page.keyboard.down('KeyV');
    await page.waitForTimeout(500);
    await page.keyboard.up('KeyV');
  }
  await page.keyboard.press('p');
  await page.getByTestId('hash').waitFor();
}

/** Goes on tick by tick until the keeper makes a move. @param {Page} page */
async function untilStriking(page) {
  for (let i = 0; i < 200; i++) {
    const said = await page.getByRole('list', { name: 'On the ground' }).innerText();
    if (/Keeper .*winds up/.test(said)) return;
    await page.keyboard.press('Period');
    await page.waitForTimeout(30);
  }
}

/** The board while an option runs. @param {Page} page */
async function duelOnBoard(page) {
  const lit = page.locator('tr[data-option][data-runs="true"]');
  await lit.waitFor({ state: 'attached', timeout: 60_000 });
  await page.keyboard.press('p');
  await page.getByTestId('hash').waitFor();
}

/** @type {{ file: string, where: string, add?: (address: string) => Promise<string>, scheme?: 'light', act: (page: Page) => Promise<void> }[]} */
const SHOTS = [
  {
    file: 'home.png',
    where: '/',
    act: (page) => page.getByRole('link', { name: 'Night Watch' }).waitFor(),
  },
  { file: 'minds.png', where: `${MIND}?agent=warden2`, act: beChased },
  {
    file: 'watch.png',
    where: `${MIND}?agent=warden2`,
    async act(page) {
      await beChased(page);
      await page.keyboard.press('Shift+W');
      await page.getByRole('list', { name: 'The answer' }).waitFor();
    },
  },
  {
    file: 'why-not.png',
    where: '/watch?agent=warden1&ask=notState:peer&tick=90',
    add: (address) =>
      addNightWithRounds(address, 'A patient night', [{ to: 'peer', after: 2, note: 'looks up' }]),
    async act(page) {
      await page.getByRole('button', { name: /^Try it/ }).click();
      await page.getByRole('button', { name: /^See both runs/ }).waitFor();
      await page.getByRole('button', { name: /^See both runs/ }).scrollIntoViewIfNeeded();
    },
  },
  {
    file: 'comparison.png',
    where: `${MIND}?agent=warden2`,
    async act(page) {
      await beChased(page);
      for (let i = 0; i < 15; i++) await page.keyboard.press('Shift+Comma');
      await page.waitForTimeout(300);
      await page.getByTestId('ground').click();
      await page.keyboard.down('ArrowUp');
      await page.keyboard.press('p');
      await page.waitForTimeout(2500);
      await page.keyboard.up('ArrowUp');
      await page.keyboard.press('p');
      await page.getByTestId('hash').waitFor();
      await page.getByRole('link', { name: 'Watch' }).click();
      await page.getByRole('link', { name: 'Branches' }).click();
      await page
        .getByRole('button', { name: /^Compare with/ })
        .first()
        .click();
      await page.getByText(/They part at/).waitFor();
      await page
        .getByText(/They part at/)
        .evaluate((words) => words.scrollIntoView({ block: 'start' }));
    },
  },
  {
    file: 'observations.png',
    where: '/watch/observations?agent=warden1&tick=420',
    scheme: 'light',
    add: (address) =>
      addNightWithRounds(address, 'A nervous night', [
        { to: 'peer', when: 'self.speed > 0.5', note: 'steps out' },
      ]),
    act: (page) =>
      page
        .getByRole('list', { name: 'List of observations' })
        .getByRole('listitem')
        .first()
        .waitFor(),
  },
  {
    file: 'ground.png',
    where: '/projects/night-watch/ground',
    async act(page) {
      await page
        .getByRole('button', { name: /^Warden 2/ })
        .first()
        .click();
      await page.getByRole('heading', { name: 'Warden 2' }).waitFor();
    },
  },
  {
    file: 'cast.png',
    where: '/projects/night-watch/cast/archetypes/warden',
    async act(page) {
      await page.locator('.recharts-line').nth(3).waitFor({ state: 'attached' });
      const place = await page
        .getByRole('slider', { name: 'Range of cone 2 of Warden' })
        .boundingBox();
      if (place) await page.mouse.move(place.x + 12, place.y + 30);
      await page.waitForTimeout(3000);
    },
  },
  {
    file: 'minds-outline.png',
    where: `${MIND}?agent=warden2&state=chase&sheet=trees.runDown`,
    async act(page) {
      await page.getByRole('row').nth(2).focus();
      await page.waitForTimeout(2500);
      await page.keyboard.press('/');
      await page.getByRole('menuitem', { name: 'Sequence' }).waitFor();
      await page.keyboard.type('wa');
    },
  },
  { file: 'weigh.png', where: '/projects/keepers-duel/weigh/keeper/ward', act: duelOnBoard },
  {
    file: 'moves.png',
    where: '/projects/keepers-duel/cast/archetypes/keeper',
    async act(page) {
      const moves = page.getByRole('region', { name: 'Moves' });
      await moves.getByText('Rake sweep').first().click();
      await moves.getByRole('button', { name: /Guard laid over the moves/ }).click();
      await page.getByRole('option', { name: 'Brace high' }).click();
      await moves.evaluate((section) => section.scrollIntoView({ block: 'start' }));
    },
  },
  {
    file: 'duel.png',
    where: '/projects/keepers-duel/minds/keeper',
    async act(page) {
      await spar(page, 6);
      await untilStriking(page);
      await page.getByRole('button', { name: 'Close view (0)' }).click();
      await page.waitForTimeout(400);
    },
  },
  {
    file: 'waves.png',
    where: '/projects/harvest-night/ground?tick=700',
    async act(page) {
      await page.getByTestId('hash').waitFor();
      const wave = page.getByRole('region', { name: 'Wave Beetles west' });
      await wave.evaluate((section) => section.scrollIntoView({ block: 'start' }));
    },
  },
  {
    file: 'harvest-night.png',
    where: '/projects/harvest-night/watch?agent=director&tick=1000',
    act: (page) => page.getByTestId('hash').waitFor(),
  },
  {
    file: 'windfall.png',
    where: '/projects/windfall/minds/referee?agent=director&sheet=rules.weigh&tick=2926',
    async act(page) {
      await page.getByTestId('hash').waitFor();
      await page.getByRole('status').getByText('Lost').waitFor();
    },
  },
  {
    file: 'bell-hours.png',
    where: '/projects/bell-hours/minds/bee?agent=bee1&tick=1250',
    act: (page) => page.getByTestId('hash').waitFor(),
  },
  {
    file: 'hive-day.png',
    where: '/projects/hive-day/watch?agent=keeper1&tick=2400',
    act: (page) => page.getByTestId('hash').waitFor(),
  },
  {
    file: 'memory.png',
    where: `${MIND}?agent=warden2&sheet=memory&tick=900`,
    act: (page) => page.getByTestId('hash').waitFor(),
  },
  {
    file: 'history.png',
    where: `${MIND}?agent=warden2&state=chase&tick=300`,
    async act(page) {
      await page.getByRole('button', { name: /^seconds of for, transition 2 of Chase/ }).click();
      await page.keyboard.type('2.5');
      await page.keyboard.press('Enter');
      await page.getByRole('button', { name: 'More for Chase', exact: true }).click();
      await page.getByRole('menuitem', { name: 'Duplicate' }).click();
      await page.getByText(/^saved/).waitFor();
      await page.keyboard.press('F4');
      await page.getByRole('list', { name: 'Differences' }).waitFor();
      await page.getByRole('button', { name: /What it is compared with/ }).click();
      await page.getByRole('option', { name: 'what it changed' }).click();
    },
  },
];

/** The picture with the card of first steps. */
const FIRST_OPENED = 'watch.png';
/** @type {[string, string]} */
const PUT_AWAY = ['crooked-lantern.first-steps', JSON.stringify({ done: [], isAway: true })];

// Takes the pictures the README shows, from the demo, on a database of its own; only those whose files are named, if any are.
await runScript(async () => {
  checkNode();
  ensurePackages();
  const target = path.join(ROOT, 'docs/screenshots');
  mkdirSync(target, { recursive: true });
  await withApplication(async ({ address, browser }) => {
    const wanted = process.argv.slice(2);
    for (const { file, where, add, scheme, act } of SHOTS) {
      if (wanted.length > 0 && !wanted.includes(file)) continue;
      const page = await browser.newPage({
        viewport: { width: 1280, height: 800 },
        colorScheme: scheme ?? 'dark',
      });
      // The card of first steps is for the pictures of demos as they are opened first.
      if (file !== FIRST_OPENED)
        await page.addInitScript((kept) => localStorage.setItem(...kept), PUT_AWAY);
      const added = add ? await add(address) : '';
      await page.goto(address + added + where);
      await act(page);
      await page.waitForTimeout(300);
      await page.screenshot({ path: path.join(target, file) });
      await page.close();
      say(`docs/screenshots/${file}`);
    }
  });
});
