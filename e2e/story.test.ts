import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { chooseFrom } from './testing/fields.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import {
  placeOf,
  runAround,
  state,
  untilLit,
  untilRunning,
  untilSaved,
  writeExpression,
  type Leg,
} from './testing/minds-page.fixture.ts';

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
    await chooseFrom(page, 'Speed 1 times. Choose', '2×');

    // Walks the gleaner into a warden's way with the arrow keys, until it is chased.
    await page.getByTestId('ground').click();
    await page.keyboard.down('ArrowUp');
    await expect
      .poll(async () => (await placeOf(page, 'Gleaner')).y, { timeout: 30_000 })
      .toBeLessThan(19.5);
    await page.keyboard.up('ArrowUp');
    await untilLit(page, 'chase', 90);

    // Runs away along the edge of the orchard until it is out of sight; the warden gives up and goes back
    // to its rounds.
    await runAround(
      page,
      LEGS,
      async () => (await state(page, 'rounds').getAttribute('data-active')) === 'true',
    );
    await untilLit(page, 'rounds', 60);

    // Changes one number in a guard while it runs, and the warden behaves differently at once.
    await page.locator('[data-state="rounds"]').click();
    await writeExpression(page, 'guard of transition 2 of Rounds', 'attention.strength > -1');
    await untilLit(page, 'peer', 5);
    await page.getByText('running edit 2').waitFor();
    await untilSaved(page);

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
