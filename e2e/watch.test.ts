import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes, seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, chooseOption } from './testing/fields.fixture.ts';
import { pause, tick, untilReady } from './testing/minds-page.fixture.ts';
import { cornerOf, OPTIONS } from './testing/weighing.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('asking why', () => {
  it('gives the chain of causes with the values of then, each a way to its moment and its place', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/minds/warden?agent=warden2&tick=200`);
    await page.getByTestId('hash').waitFor();
    await page.keyboard.press('Shift+W');
    const answer = page.getByRole('list', { name: 'The answer' });
    await answer.getByText('Warden 2 is in Rounds').waitFor();
    await answer.getByText('the run began there').waitFor();
    // What was drawn on another place is drawn here too, though the run rests.
    const isDrawn = () =>
      page.getByTestId('lanes').evaluate((canvas: HTMLCanvasElement) => {
        const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
        return data.some((value) => value > 0);
      });
    await expect.poll(isDrawn).toBe(true);
    await chooseOption(page, /What is asked/, 'why it is not in Chase');
    await answer.getByText('Not so: Warden 2 is in Chase').waitFor();
    await answer
      .getByText(/^awareness\(attention\.of\) = /)
      .first()
      .waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);

    const since = answer.getByRole('button', { name: /^To 0:00/ }).first();
    await since.click();
    await expect.poll(() => tick(page)).toBeLessThan(200);
    await answer.getByText(/Warden 2 is in Chase/).waitFor();
    await page.getByRole('button', { name: 'back to 0:03.33' }).click();
    await expect.poll(() => tick(page)).toBe(200);

    await page.waitForURL(/tick=200/);
    // The question stands in the address, and is asked again where that is opened.
    await page.reload();
    await answer.getByText('Not so: Warden 2 is in Chase').waitFor();
    expect(await tick(page)).toBe(200);
    // Another agent, with another mind.
    await chooseOption(page, /Agent/, 'Goose');
    await answer.getByText('Goose is in Graze').waitFor();
    await answer.getByRole('link', { name: 'Edit Graze in Minds' }).click();
    await page.getByRole('heading', { name: 'Graze' }).waitFor();
  });

  it('starts from a lane, at the moment that is pressed, and from the playhead', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/minds/goose?agent=goose&tick=300`);
    await page.getByTestId('hash').waitFor();
    await page.getByRole('slider', { name: 'Playhead' }).press('Enter');
    const answer = page.getByRole('list', { name: 'The answer' });
    await answer.getByText('Goose is in Graze').waitFor();
    expect(await tick(page)).toBe(300);
    // The window begins with ten seconds: half of it is five.
    const box = (await page.getByTestId('lanes').boundingBox())!;
    const lane = (await page.getByRole('button', { name: 'Warden 1', exact: true }).boundingBox())!;
    await page.mouse.dblclick(box.x + box.width / 4, lane.y + lane.height / 2);
    await answer.getByText('Warden 1 is in Rounds').waitFor();
    await expect.poll(() => tick(page)).toBe(150);
  });

  it('starts from a state and from an option too', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/minds/warden?agent=warden2&state=comb&tick=120`);
    await page.getByTestId('hash').waitFor();
    await page.getByRole('button', { name: 'More for Comb', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Why is it here, or not' }).click();
    await page.getByText('Not so: Warden 2 is in Comb').waitFor();

    const corner = await app.open(`${await app.newProject(cornerOf(OPTIONS))}/weigh`);
    await untilReady(corner);
    await corner.locator('body').press('Shift+Period');
    await corner.locator('body').press('Shift+Period');
    await chooseFrom(corner, 'More on Watch it', 'Why this, or why not');
    const answer = corner.getByRole('list', { name: 'The answer' });
    await answer.getByText(/^Not so: .*Watch it/).waitFor();
    await corner.goBack();
    await chooseFrom(corner, 'More on Close in', 'Why this, or why not');
    await answer
      .getByText(/it picked Close in/)
      .first()
      .waitFor();
    // A pick can be stopped at, where it is weighed.
    await corner.goBack();
    await chooseFrom(corner, 'More on Close in', 'Stop when it is picked');
    await corner.getByText(/running\s+edit 2/).waitFor();
    await corner.locator('body').press('r');
    await corner
      .getByText(/an option is picked, \w+ closeIn/)
      .first()
      .waitFor();
  });
});

describe('breakpoints', () => {
  it('are set with a key, stop the run at the very tick with the reason, and are kept', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/minds/warden?agent=warden2&state=tend&tick=10`);
    await page.getByTestId('hash').waitFor();
    await page.locator('body').press('Shift+B');
    await page.getByText(/running\s+edit 2/).waitFor();
    await page.locator('body').press('n');
    await page.getByText('a state is entered, tend').first().waitFor();
    const stopped = await tick(page);
    expect(stopped).toBeGreaterThan(10);

    // From the beginning it comes to the same tick, at its own pace too; nothing of that is another run.
    const hash = await page.getByTestId('hash').textContent();
    await page.locator('body').press('r');
    await expect.poll(() => tick(page)).toBeLessThan(stopped);
    await expect.poll(() => tick(page)).toBe(stopped);
    await page.getByText('a state is entered, tend').first().waitFor();
    expect(await page.getByTestId('hash').textContent()).toBe(hash);

    // Further on one can go back to it.
    await page.locator('body').press('Shift+Period');
    await expect.poll(() => tick(page)).toBe(stopped + 10);
    await page.locator('body').press('Shift+N');
    await expect.poll(() => tick(page)).toBe(stopped);
    await page.locator('body').press('Shift+N');
    await page.getByText('No breakpoint was met before this moment').waitFor();

    await page.getByRole('link', { name: 'Watch' }).click();
    await page.getByRole('tab', { name: 'Breakpoints (1)' }).click();
    await page.getByRole('button', { name: 'Stop when a state is entered, tend' }).waitFor();
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('are written as conditions over what an agent knows, switched off, and taken away', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/watch?agent=warden2&tick=10`);
    await page.getByTestId('hash').waitFor();
    await page.getByRole('tab', { name: 'Breakpoints' }).click();
    const panel = page.getByRole('region', { name: 'Breakpoints' });
    await panel.getByRole('button', { name: 'New breakpoint' }).click();
    await chooseOption(page, /When: /, 'a condition comes true');
    await panel.getByText('A condition is missing').waitFor();
    const write = async (condition: string) => {
      await panel.getByRole('button', { name: /^Condition of/ }).click();
      await panel.getByRole('textbox', { name: /^Condition of/ }).waitFor();
      await page.keyboard.press('ControlOrMeta+A');
      await page.keyboard.type(condition);
      await page.keyboard.press('Enter');
    };
    await write('attention.strenth > 0.4');
    await panel
      .getByRole('alert')
      .getByText(/strenth/)
      .waitFor();
    await write('attention.strength > 0.4');
    await expect.poll(() => panel.getByRole('alert').count()).toBe(0);
    await panel.getByRole('button', { name: /^Back to where a breakpoint was met last/ }).click();
    await panel.getByText('No breakpoint was met before this moment').waitFor();
    await panel.getByRole('button', { name: 'Run on to the next breakpoint (N)' }).click();
    await page
      .getByText(/Warden 2: attention\.strength > 0\.4: 0\.\d+ > 0\.4$/)
      .first()
      .waitFor();
    const stopped = await tick(page);

    await panel.getByRole('button', { name: /^Stop when/ }).click();
    await page.locator('body').press('r');
    await expect.poll(() => tick(page), { timeout: 30_000 }).toBeGreaterThan(stopped + 5);
    await panel.getByRole('button', { name: /^Remove the breakpoint/ }).click();
    await panel.getByText('The run stops by itself at what is listed here').waitFor();
  });
});

describe('trying a change', () => {
  it('finds the number that would have had an option picked', async () => {
    const mind = await app.newNight((document) => {
      const { warden } = document.minds;
      const rounds = warden.machine!.states[0].states!.find(({ id }) => id === 'rounds')!;
      rounds.activity = { choice: 'pause' };
      const waiting = (id: string, worth: string) => ({
        id,
        title: id,
        considerations: [{ input: worth }],
        does: { do: 'wait', seconds: 60 },
      });
      warden.choices = {
        ...warden.choices,
        pause: { options: [waiting('stand', '0.5'), waiting('yawn', '0.48')] },
      };
    });
    const page = await app.open(
      `${mind.replace(/minds.*/, 'watch')}?agent=warden1&ask=notOption:pause:yawn&tick=30`,
    );
    const answer = page.getByRole('list', { name: 'The answer' });
    await answer.getByText('Not so: Warden 1 picks yawn').waitFor();
    const tried = page.getByRole('region', { name: 'Try it' });
    await tried.getByRole('button', { name: /^Try it/ }).click();
    await tried.getByText(/^Input of .* in place of 0\.(48|5)/).waitFor();
  });

  it('finds the one number that would have changed the answer, shows both runs, and makes it', async () => {
    const mind = await app.newNight((document) => {
      const [calm] = document.minds.warden.machine!.states;
      const rounds = calm.states!.find(({ id }) => id === 'rounds')!;
      // In two seconds it would have looked; it is asked after one and a half.
      rounds.transitions = [{ to: 'peer', after: 2 }];
    });
    const page = await app.open(
      `${mind.replace(/minds.*/, 'watch')}?agent=warden1&ask=notState:peer&tick=90`,
    );
    const answer = page.getByRole('list', { name: 'The answer' });
    await answer.getByText('Not so: Warden 1 is in Peer').waitFor();
    const tried = page.getByRole('region', { name: 'Try it' });
    await tried.getByRole('button', { name: /^Try it/ }).click();
    await tried.getByText(/After of transition 1 of Rounds of .*: 1\.\d+ in place of 2/).waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    // Run as a branch, it is compared with how it was; nothing of the project changes by it.
    await tried.getByRole('button', { name: /^See both runs/ }).click();
    const comparison = page.getByRole('region', { name: 'Comparison' });
    await comparison.getByText(/They were given: edit 1 here, tried change 1 there/).waitFor();
    await comparison.getByText(/^The first decision that differs is that of/).waitFor();
    await comparison.getByRole('list', { name: 'Differences' }).waitFor();
    await page.getByText(/running\s+edit 1/).waitFor();
    await page.goBack();
    await tried.getByRole('button', { name: /^Try it/ }).click();
    await tried.getByRole('button', { name: /^Make the change, and run on from 0:00/ }).click();
    await page.getByText(/running\s+edit 2/).waitFor();
    await expect.poll(() => tick(page)).toBeGreaterThan(95);
    await pause(page);
    await chooseOption(page, /What is asked/, 'why it does what it does');
    await answer.getByText(/^transition 1 of Rounds/).waitFor();
  });

  it('is ended when the question is another, or by hand', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/watch?agent=warden2&ask=notState:collar&tick=300`);
    const tried = page.getByRole('region', { name: 'Try it' });
    await tried.getByRole('button', { name: /^Try it/ }).click();
    await tried.getByText(/^run \d+ of \d+ at most$/).waitFor();
    await tried.getByRole('button', { name: 'Cancel' }).click();
    await tried.getByText('The search was ended.').waitFor();
    await tried.getByRole('button', { name: /^Try it/ }).click();
    await tried.getByText(/^run \d+ of \d+ at most$/).waitFor();
    await chooseOption(page, /What is asked/, 'why it is not in Chase');
    await page.getByText('Not so: Warden 2 is in Chase').waitFor();
    await tried.getByRole('button', { name: /^Try it/ }).waitFor();
  });
});

describe('a moment', () => {
  it('is gone to by its time or its tick, typed', async () => {
    const night = await app.newNightWatch();
    const page = await app.open(`${night}/watch?tick=300`);
    await page.getByTestId('hash').waitFor();
    const goTo = async (text: string) => {
      await page.locator('body').press('j');
      const field = page.getByRole('textbox', { name: /^A time/ });
      await field.fill(text);
      await field.press('Enter');
    };
    await goTo('0:02.5');
    await expect.poll(() => tick(page)).toBe(150);
    await goTo('tick 299');
    await expect.poll(() => tick(page)).toBe(299);
    await goTo('soon');
    await page.getByText('Write a time as 1:23.5 or 83.5, or a tick as tick 400.').waitFor();
    await page.keyboard.press('Escape');
    // Past what was run it runs on to there.
    await page.getByTestId('clock').click();
    await page.getByRole('textbox', { name: /^A time/ }).fill('20');
    await page.keyboard.press('Enter');
    await expect.poll(() => tick(page)).toBe(1200);
  });
});
