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
 * Adds a copy of the demo whose wardens have one tree for a mind, and gives the address of that mind.
 * @param {string} address
 */
async function addTreeNight(address) {
  const demo = path.join(ROOT, 'demo/night-watch.lantern.json');
  const document = JSON.parse(readFileSync(demo, 'utf8'));
  const { warden } = document.minds;
  document.title = 'Night Watch by a tree';
  delete warden.machine;
  warden.activity = { tree: 'watch' };
  warden.trees.watch = {
    title: 'Watch',
    root: {
      selector: [
        {
          title: 'Go after it',
          when: 'attention.strength > 0.5',
          holds: true,
          preempts: true,
          sequence: [
            { do: 'remember', key: 'quarry', value: 'attention.of' },
            { do: 'setGait', gait: 'run' },
            { timeout: { do: 'moveTo', to: 'quarry', within: 0.9 }, seconds: 20 },
          ],
        },
        {
          title: 'Comb where it was lost',
          when: 'known(quarry)',
          tree: 'combThePlace',
          with: { place: 'lastSeen(quarry)' },
        },
        {
          title: 'Walk the rounds',
          sequence: [
            { do: 'setGait', gait: 'walk' },
            { timeout: { do: 'followRoute', route: 'self.route' }, seconds: 6 },
          ],
        },
      ],
    },
  };
  return `${await addProject(address, document)}/minds/warden`;
}

/**
 * Adds a copy of the demo whose goose has rules for a mind, and gives the address of that mind.
 * @param {string} address
 */
async function addRulesNight(address) {
  const demo = path.join(ROOT, 'demo/night-watch.lantern.json');
  const document = JSON.parse(readFileSync(demo, 'utf8'));
  document.title = 'Night Watch by rules';
  document.minds.goose = {
    title: 'Goose',
    activity: { rules: 'manners' },
    rules: {
      manners: {
        title: 'Manners',
        note: 'What comes first has the say over what comes after it.',
        rows: [
          {
            title: 'Hark',
            when: 'attention.strength > 0.2',
            do: [{ do: 'face', toward: 'attention.place' }],
            rows: [
              {
                when: 'attention.strength > 0.6',
                edge: true,
                do: [
                  { do: 'say', text: 'Honk!' },
                  { do: 'makeNoise', kind: 'honk', reach: 12 },
                ],
              },
            ],
            else: [{ do: 'wander', around: 'self.post' }],
          },
          { when: 'time > 600', off: true, do: [{ do: 'returnToPost' }] },
        ],
      },
    },
  };
  return `${await addProject(address, document)}/minds/goose`;
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
    file: 'questions.png',
    where: `${MIND}?agent=warden2&state=rounds&tick=300`,
    async act(page) {
      await page.getByRole('button', { name: /^guard of transition 1 of Rounds/ }).click();
      await page.getByRole('textbox', { name: /^guard of transition 1/ }).waitFor();
      await page.keyboard.press('F2');
      const dialog = page.getByRole('dialog', { name: 'What do you want to ask?' });
      await dialog.getByRole('button', { name: /^metres to the last known/ }).click();
    },
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
    file: 'chase.png',
    where: `${MIND}?agent=warden2&state=chase`,
    async act(page) {
      await beChased(page);
      await page.getByRole('button', { name: 'Close view (0)' }).click();
      for (const overlay of ['known (5)', 'forces (8)'])
        await page.getByRole('button', { name: `Show ${overlay}` }).click();
      await page.waitForTimeout(400);
    },
  },
  {
    file: 'minds-day.png',
    where: `${MIND}?agent=warden2&state=comb&tick=900`,
    scheme: 'light',
    act: async (page) => void (await page.locator('[data-state="comb"]').waitFor()),
  },
  {
    file: 'minds-tree.png',
    where: '?agent=warden2&tick=330',
    add: addTreeNight,
    act: (page) => page.getByTestId('hash').waitFor(),
  },
  {
    file: 'minds-editing.png',
    where: `${MIND}?agent=warden2&state=chase`,
    async act(page) {
      await beChased(page);
      await page.getByRole('button', { name: 'Close view (0)' }).click();
      await page.getByRole('button', { name: /^guard of transition 1 of Chase/ }).click();
      await page.getByRole('textbox', { name: 'guard of transition 1 of Chase' }).waitFor();
      await page.keyboard.press('Control+a');
      await page.keyboard.type('sees(quarry) && dist', { delay: 30 });
      await page
        .getByRole('option', { name: /distance/ })
        .first()
        .waitFor();
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
  {
    file: 'minds-rules.png',
    where: '?agent=goose&sheet=rules.manners',
    add: addRulesNight,
    async act(page) {
      await page.getByRole('treegrid', { name: 'Rows of Manners' }).waitFor();
      await page.waitForTimeout(2500);
    },
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

// Takes the pictures the README shows, from the demo, on a database of its own.
await runScript(async () => {
  checkNode();
  ensurePackages();
  const target = path.join(ROOT, 'docs/screenshots');
  mkdirSync(target, { recursive: true });
  await withApplication(async ({ address, browser }) => {
    for (const { file, where, add, scheme, act } of SHOTS) {
      const page = await browser.newPage({
        viewport: { width: 1280, height: 800 },
        colorScheme: scheme ?? 'dark',
      });
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
