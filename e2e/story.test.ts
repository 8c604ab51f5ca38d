import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import {
  isLit,
  untilLit,
  untilRunning,
  untilSaved,
  writeExpression,
} from './testing/minds-page.fixture.ts';
import { fromTheBeginning, hold, placeOf, runAround, type Leg } from './testing/playing.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** Around the orchard, corner by corner. */
const LEGS: Leg[] = [
  ['ArrowDown', ({ y }) => y > 28.2],
  ['ArrowLeft', ({ x }) => x < 0.8],
  ['ArrowUp', ({ y }) => y < 0.8],
  ['ArrowRight', ({ x }) => x > 23.2],
];

it(
  'the first night: seen, chased, away, one number changed, and the change is kept',
  { timeout: 240_000 },
  async () => {
    // Opens the application, and the orchard runs.
    const page = await app.open('/');
    await page.getByRole('link', { name: 'Night Watch' }).click();
    await untilRunning(page);
    // A plainer night, in which a lone gleaner can outrun a lone warden.
    const night = await app.newNight();
    await page.goto(app.address + night);
    await untilRunning(page);
    await page.getByRole('button', { name: 'Warden 2', exact: true }).first().click();
    await untilLit(page, 'rounds');

    // Walks the gleaner into a warden's way with the arrow keys, until it is chased.
    await fromTheBeginning(page);
    await hold(page, ['ArrowUp'], async () => (await placeOf(page, 'Gleaner')).y < 16);
    await hold(page, ['Shift'], () => isLit(page, 'chase'));

    // Runs away along the edge of the orchard until it is out of sight; the warden gives up and goes back
    // to its rounds.
    await runAround(page, LEGS, () => isLit(page, 'rounds'));
    await page.keyboard.press('p');

    // Changes one number in a guard while it runs, and the warden behaves differently at once.
    await page.locator('[data-state="rounds"]').click();
    await writeExpression(page, 'guard of transition 2 of Rounds', 'attention.strength > -1');
    await untilLit(page, 'peer', 5);
    await page.getByText('running edit 2').waitFor();
    await untilSaved(page);
    // The ledger's marks are announced when the keyboard goes from one to the next.
    await page.keyboard.press('Escape');
    const playhead = page.getByRole('slider', { name: 'Playhead' });
    await playhead.focus();
    await page.keyboard.press('End');
    const said: string[] = [];
    for (let i = 0; i < 12; i++) {
      await page.keyboard.press('ArrowUp');
      said.push((await playhead.getAttribute('aria-valuetext')) ?? '');
      if (said.at(-1)!.includes('edit 2 comes into force')) break;
    }
    expect(said.at(-1)).toMatch(/Warden 2: edit 2 comes into force/);
    await page.keyboard.press('End');
    await page.keyboard.press('p');

    // The change is there after a reload, and after the server was stopped and started.
    await page.reload();
    await untilLit(page, 'peer');
    await app.stopServer();
    await app.startServer();
    await page.goto(`${app.address}${night}?state=rounds`);
    await page
      .getByRole('button', {
        name: 'guard of transition 2 of Rounds: attention.strength > -1. Edit',
      })
      .waitFor();
    await untilLit(page, 'peer');
  },
);
