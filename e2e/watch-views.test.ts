import { readFileSync } from 'node:fs';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes, seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, chooseOption } from './testing/fields.fixture.ts';
import { tick, untilResting, untilRunning } from './testing/minds-page.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('beside the ground', () => {
  it('agents stand side by side, with what they know against what is true, at every tick', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/watch/follow?agent=warden2&tick=180`);
    await page.getByTestId('hash').waitFor();
    const followed = page.getByRole('region', { name: 'Followed agents' });
    await followed.getByRole('row', { name: /^state Calm › Rounds/ }).waitFor();
    await chooseOption(page, 'Follow another too', 'Hound');
    await followed.getByRole('row', { name: /^state Calm › Rounds Lie in wait/ }).waitFor();
    await page.waitForURL(/follow=warden2%2Chound/);
    expect(await faultsInBothThemes(page)).toEqual([]);
    await page.locator('body').press('Shift+Comma');
    await expect.poll(() => tick(page)).toBe(170);
    await page.getByRole('button', { name: 'Follow Warden 2 no longer' }).click();
    await followed.getByRole('row', { name: /^state Lie in wait/ }).waitFor();
  });

  it('what flickers is found, with its moments, and put right with one press', async () => {
    const mind = await app.newNight((document) => {
      const [calm] = document.minds.warden.machine!.states;
      const rounds = calm.states!.find(({ id }) => id === 'rounds')!;
      const peer = calm.states!.find(({ id }) => id === 'peer')!;
      rounds.transitions = [{ to: 'peer', when: 'time > 0.5' }];
      peer.transitions = [{ to: 'rounds', after: 0.1 }];
    });
    const page = await app.open(`${mind.replace(/minds.*/, 'watch/observations')}?tick=240`);
    await page.getByTestId('hash').waitFor();
    const observations = page.getByRole('list', { name: 'List of observations' });
    const first = observations.getByRole('listitem').filter({ hasText: /Flickers: .*Warden 1/ });
    await first.getByText(/between Peer and Rounds: “time > 0.5” leads from Rounds/).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    await first
      .getByRole('button', { name: /^To 0:0/ })
      .first()
      .click();
    await expect.poll(() => tick(page)).toBeLessThan(240);
    await page.getByRole('button', { name: 'limits' }).click();
    await page.getByRole('button', { name: /^Flickers of the run/ }).waitFor();
    await first.getByRole('button', { name: 'let it hold for 0.5 s' }).click();
    await page.getByText('edit 2 runs on from here').waitFor();
  });

  it('what never happened is listed, and leads to where it is written', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/watch/coverage?tick=60`);
    await page.getByTestId('hash').waitFor();
    const goose = page.getByRole('region', { name: 'Coverage of Goose' });
    await goose.getByRole('row', { name: /^states entered 1 of 2/ }).waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await goose.getByRole('link', { name: 'Cry', exact: true }).click();
    await page.getByRole('heading', { name: 'Cry' }).waitFor();

    // The same where minds are edited: on the plan, beside rows and on the board.
    const cry = page.getByRole('button', { name: /^State Cry/ });
    await expect.poll(() => cry.getAttribute('aria-label')).toBe('State Cry');
    await page.keyboard.press('Shift+C');
    await expect.poll(() => cry.getAttribute('aria-label')).toBe('State Cry, never entered');
    const graze = page.getByRole('button', { name: /^State Graze/ });
    expect(await graze.getAttribute('aria-label')).not.toContain('never');
    await page.goto(
      `${app.address}${night}/minds/warden?agent=warden1&sheet=trees.combThePlace&tick=60`,
    );
    await page.getByRole('button', { name: /was never done/ }).click();
    await page.getByText('never', { exact: true }).first().waitFor();
    await page.goto(`${app.address}${night}/weigh/warden/collar?tick=60`);
    await page.getByRole('button', { name: /was never done/ }).click();
    await page.getByText('never picked').first().waitFor();
    await page.keyboard.press('Shift+C');
    await expect.poll(() => page.getByText('never picked').count()).toBe(0);
  });
});

it('the whole run can be asked: what ever led to a state, when a key was written', async () => {
  const night = await app.newNightWatch();
  const page = await app.open(`${night}/watch?agent=warden2&tick=300`);
  await page.getByTestId('hash').waitFor();
  await chooseOption(page, /What is asked/, 'what ever led to Rounds');
  const answer = page.getByRole('list', { name: 'The answer' });
  await answer.getByText(/came to be in Rounds/).waitFor();
  await chooseOption(page, /What is asked/, 'who ever told it something');
  await answer.getByText(/was told something/).waitFor();
});

it('what an agent notices and why it moves can be asked, also from who is followed', async () => {
  const night = await app.newNightWatch();
  const page = await app.open(`${night}/watch?agent=warden2&tick=900`);
  await page.getByTestId('hash').waitFor();
  await chooseOption(page, /What is asked/, 'how it notices Gleaner');
  const answer = page.getByRole('list', { name: 'The answer' });
  await answer.getByText('Not so: Warden 2 notices Gleaner').waitFor();
  await answer.getByText(/^Gleaner is [\d.]+ m away, of 11 m it sees$/).waitFor();
  await answer.getByText(/of 3 points of Gleaner are in plain view/).waitFor();
  await page.getByRole('link', { name: 'Follow' }).click();
  await page.getByRole('button', { name: 'does', exact: true }).click();
  await answer.getByText(/^Warden 2 moves at/).waitFor();
  await answer.getByText(/^set out in Rounds/).waitFor();
  expect(await seriousFaults(page)).toEqual([]);
});

it('a recording is exported and looked at again without its project; what is no recording is refused', async () => {
  const night = await app.newNightWatch();
  const page = await app.open(`${night}/watch/branches?tick=300`);
  await page.getByTestId('hash').waitFor();
  await page.getByRole('button', { name: /^export the recording/ }).click();
  const downloading = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export the recording as JSON Lines' }).click();
  const file = await (await downloading).path();
  const text = readFileSync(file, 'utf8');
  expect(text.split('\n')[0]).toContain('"crooked-lantern/recording"');

  await page.goto(`${new URL(page.url()).origin}/recordings`);
  const give = (name: string, content: string) =>
    page.getByTestId('file').setInputFiles({
      name,
      mimeType: 'application/jsonl',
      buffer: Buffer.from(content),
    });
  await give('torn.jsonl', `${text.split('\n')[0]}\n{"type":"entry"`);
  await page
    .getByRole('alert')
    .getByText(/Line 2: this is no JSON object/)
    .waitFor();
  await give('night.jsonl', text);
  await page.getByRole('heading', { name: 'Night Watch' }).waitFor();
  const entries = page.getByRole('group', { name: 'Entries' });
  await entries.getByText('enters rounds').first().waitFor();
  await page.getByRole('slider', { name: 'Playhead' }).press('End');
  await page.getByText('at 0:05.00').waitFor();
  await page.getByLabel('Only entries with these words').fill('says');
  await expect.poll(() => entries.getByText('enters rounds').count()).toBe(0);
  expect(await seriousFaults(page)).toEqual([]);
});

it('a link brings the same moment back in a new page, with what was played until then', async () => {
  const night = await app.newNightWatch();
  const page = await app.open(`${night}/watch?agent=warden2&tick=30`);
  await page.getByTestId('hash').waitFor();
  await page.getByTestId('ground').click();
  await page.keyboard.down('ArrowUp');
  await page.keyboard.press('Shift+Period');
  await page.keyboard.up('ArrowUp');
  await page.keyboard.press('Shift+Period');
  await expect.poll(() => tick(page)).toBe(50);
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.keyboard.press('ControlOrMeta+Shift+L');
  const read = () => page.evaluate(() => navigator.clipboard.readText());
  await expect.poll(read).toContain('keys=');
  const hash = await page.getByTestId('hash').textContent();
  const address = new URL(await read());
  const other = await app.open(`${address.pathname}${address.search}`);
  await expect.poll(() => tick(other)).toBe(50);
  await expect.poll(() => other.getByTestId('hash').textContent()).toBe(hash);
  // Of a run that was begun with a set-up, too.
  await page.locator('body').press('ControlOrMeta+k');
  await page.getByRole('searchbox', { name: 'Find a command' }).fill('In plain view');
  await page.getByRole('menuitem', { name: /In plain view/ }).waitFor();
  await page.keyboard.press('Enter');
  await untilRunning(page);
  await page.locator('body').press('p');
  await untilResting(page);
  await page.locator('body').press('ControlOrMeta+Shift+L');
  await expect.poll(read).toContain('setup=caught');
  const begun = await page.getByTestId('hash').textContent();
  const third = await app.open((await read()).slice(app.address.length));
  await expect.poll(() => third.getByTestId('hash').textContent()).toBe(begun);
  // Played on, it is no longer that moment, nor are those all the keys.
  await other.locator('body').press('p');
  await other.waitForURL((url) => !url.searchParams.has('keys'));
});

it('the ledger is searched, zoomed, and gone through from decision to decision', async () => {
  const mind = await app.newNight((document) => {
    const [calm] = document.minds.warden.machine!.states;
    calm.states!.find(({ id }) => id === 'rounds')!.transitions = [{ to: 'peer', after: 2 }];
  });
  const page = await app.open(`${mind.replace(/minds.*/, 'watch')}?agent=warden2&tick=400`);
  await page.getByTestId('hash').waitFor();
  await page.locator('body').press('Shift+F');
  await page.getByLabel(/^Words:/).fill('enters');
  await page.keyboard.press('Enter');
  const found = page.getByText(/“enters” in \d+ ticks/);
  await found.waitFor();
  await page.getByRole('button', { name: 'To what was found before' }).click();
  await expect.poll(() => tick(page)).toBeLessThan(400);
  await page.getByRole('button', { name: 'Look for it no longer' }).click();
  await expect.poll(() => found.count()).toBe(0);

  const span = page.getByRole('button', { name: /^Shows the last .* Choose$/ });
  const before = await span.textContent();
  await page.getByRole('slider', { name: 'Playhead' }).press('+');
  await expect.poll(() => span.textContent()).not.toBe(before);

  await page.getByRole('slider', { name: 'Playhead' }).press('End');
  await expect.poll(() => tick(page)).toBe(400);
  await page.locator('body').press('Alt+Comma');
  await expect.poll(() => tick(page)).toBeLessThan(400);
  const decided = await tick(page);
  await page.locator('body').press('Alt+Shift+Comma');
  await expect.poll(() => tick(page)).toBeLessThan(decided);
});

it('lanes are narrowed to a squad, one is pinned above them, and their signs are explained', async () => {
  const night = await app.newNightWatch();
  const page = await app.open(`${night}/watch?agent=warden2&tick=200`);
  await page.getByTestId('hash').waitFor();
  const ledger = page.getByRole('region', { name: 'Ledger' });
  const lanes = () => ledger.locator('button[aria-pressed]').allTextContents();
  const all = await lanes();
  expect(all).toContain('Goose');
  await chooseFrom(page, 'Lanes shown: All agents. Choose', 'Squad: East squad');
  await expect.poll(lanes).not.toContain('Goose');
  const squad = await lanes();
  expect(squad.length).toBeGreaterThan(1);

  await page.goto(page.url().replace('agent=warden2', 'agent=goose'));
  await page.getByTestId('hash').waitFor();
  await chooseFrom(page, 'Lanes shown: All agents. Choose', 'Pin Goose on top');
  await expect.poll(async () => (await lanes())[0]).toBe('Goose');
  await chooseFrom(page, 'Lanes shown: All agents. Choose', 'Squad: East squad');
  await expect.poll(lanes).toEqual(['Goose', ...squad]);
  await chooseFrom(page, 'Lanes shown: Squad: East squad. Choose', 'Unpin Goose');
  await expect.poll(lanes).toEqual(squad);

  // A squad is folded into one lane, and unfolded by its name.
  await chooseFrom(page, 'Lanes shown: Squad: East squad. Choose', 'All agents');
  await chooseFrom(page, 'Lanes shown: All agents. Choose', 'Fold East squad');
  const east = ledger.getByRole('button', { name: `Unfold East squad: ${squad.length}` });
  await east.waitFor();
  expect(await lanes()).toEqual(all.filter((name) => !squad.includes(name)));
  const box = (await page.getByTestId('lanes').boundingBox())!;
  const name = (await east.boundingBox())!;
  await page.mouse.move(box.x + 20, name.y + name.height / 2);
  await ledger.getByText(/^0:\d\d\.\d (Warden|Sleeper|Hound)/).waitFor();
  await east.press('Enter');
  await expect.poll(lanes).toEqual(all);

  await page.getByRole('button', { name: 'Signs of the ledger' }).press('Enter');
  const legend = page.getByRole('dialog', { name: 'Signs of the ledger' });
  await legend.getByText('it has heard something').waitFor();
  expect(await seriousFaults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect.poll(() => legend.count()).toBe(0);
});
