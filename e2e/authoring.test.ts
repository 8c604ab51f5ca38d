import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startApp, type App } from './testing/app.fixture.ts';
import { faultsInBothThemes, seriousFaults } from './testing/accessibility.fixture.ts';
import {
  pause,
  state,
  tick,
  untilLit,
  untilReady,
  untilResting,
  untilRunning,
  untilSaved,
  writeExpression,
} from './testing/minds-page.fixture.ts';
import { fromTheBeginning, hold, placeOf } from './testing/playing.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('writing a mind from almost nothing', () => {
  it('a keeper that stands, sees the gleaner and comes, made with the pages alone', async () => {
    const page = await app.open('/');
    await page.getByRole('button', { name: 'New project' }).click();
    await page.waitForURL(/untitled-night/);
    await untilLit(page, 'stand');
    await page.getByRole('button', { name: 'Title of the project: Untitled night. Edit' }).click();
    await page.keyboard.type('Small night');
    await page.keyboard.press('Enter');

    await page.getByRole('button', { name: 'More for Stand' }).click();
    await page.getByRole('menuitem', { name: 'New state beside' }).click();
    await page.getByRole('textbox', { name: 'Title' }).waitFor();
    await page.keyboard.type('Come');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Choose what it does while in Come' }).click();
    await page.getByRole('menuitem', { name: 'Move to' }).click();
    await page.getByText('“Come” is never entered').first().waitFor();

    await state(page, 'stand').click();
    await page.getByRole('button', { name: 'Add a transition' }).click();
    await writeExpression(page, 'guard of transition 1 of Stand', 'attention.strength > 0.1');
    await page
      .getByText('None: everything has its place.')
      .or(page.getByText('is never left'))
      .first()
      .waitFor();
    await page.getByRole('button', { name: /^Follow/ }).click();

    await fromTheBeginning(page);
    await hold(page, ['Shift', 'ArrowLeft'], async () => (await placeOf(page, /^gleaner/i)).x < 6);
    const comes = page.locator('[data-active="true"]').getByText('Come');
    await hold(page, ['Shift', 'ArrowUp'], () => comes.isVisible());
    await untilSaved(page);
  });

  it('shows a tree as rows, with what each came to, and takes the remedy of a finding', async () => {
    const page = await app.open(`${await app.newNight()}?agent=warden1&state=comb`);
    await untilRunning(page);
    const rows = page.getByRole('treegrid', { name: 'Rows of Comb the place' }).getByRole('row');
    await expect.poll(() => rows.count()).toBe(9);
    expect(await rows.nth(2).getAttribute('aria-label')).toContain('Move to place within 0.5');
    await page.getByRole('button', { name: 'Remove tree combThePlace while in Comb' }).click();
    await page.getByText('Nothing calls the tree “combThePlace”.').waitFor();
    await page.getByRole('button', { name: 'Choose what it does while in Comb' }).click();
    await page.getByRole('menuitem', { name: 'Tree Look about' }).click();
    const others = page.getByRole('treegrid', { name: 'Rows of Look about' }).getByRole('row');
    await expect.poll(() => others.count()).toBe(3);
    await page.getByRole('button', { name: 'Remove the tree combThePlace' }).click();
    await page.getByText('None: everything has its place.').waitFor();
    await pause(page);
  });

  it('shows a mind that is one tree while it runs', async () => {
    const page = await app.open(
      await app.newNight((document) => {
        const { warden } = document.minds;
        delete warden.machine;
        warden.activity = { tree: 'lookAbout', with: { sweep: 90 } };
        delete warden.trees!.combThePlace;
        delete warden.memory;
      }),
    );
    await page.getByRole('heading', { name: 'Warden', exact: true }).waitFor();
    const rows = page.getByRole('treegrid', { name: 'Rows of Look about' });
    await rows.locator('[data-result="running"]', { hasText: 'Left' }).first().waitFor();
    await rows.locator('[data-result="running"]', { hasText: 'Right' }).first().waitFor();
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('transitions are reordered, retargeted and removed, by keyboard too', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase`);
    await untilRunning(page);
    const guard = (index: number) =>
      page.getByRole('button', { name: new RegExp(`^guard of transition ${index} of Chase:`) });
    await guard(2).focus();
    await page.keyboard.press('Alt+ArrowUp');
    await page
      .getByRole('button', { name: 'guard of transition 1 of Chase: !sees(quarry). Edit' })
      .waitFor();
    await page
      .getByRole('button', { name: 'Target of transition 1 of Chase: Comb. Choose' })
      .click();
    await page.getByRole('menuitem', { name: 'Rounds' }).click();
    await page
      .getByRole('button', { name: 'Target of transition 1 of Chase: Rounds. Choose' })
      .waitFor();
    await page.getByRole('button', { name: 'More for transition 1 of Chase' }).click();
    await page.getByRole('menuitem', { name: 'Remove', exact: true }).click();
    await expect.poll(() => guard(2).count()).toBe(0);
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
    await page
      .getByRole('button', { name: 'guard of transition 2 of Chase: !sees(quarry). Edit' })
      .waitFor();
    await untilSaved(page);
  });

  it('completes names as they are typed', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase`);
    await untilRunning(page);
    await page.getByRole('button', { name: /^guard of transition 2 of Chase:/ }).click();
    await page.getByRole('textbox', { name: 'guard of transition 2 of Chase' }).waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('!see');
    await page.getByRole('option', { name: /sees\(\)/ }).waitFor();
    await page.keyboard.press('Tab');
    await page.keyboard.type('quar');
    await page.getByRole('option', { name: /quarry/ }).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await page
      .getByRole('button', { name: 'guard of transition 2 of Chase: !sees(quarry). Edit' })
      .waitFor();
  });
});

describe('the transport', () => {
  it('does nothing with letters that belong to a field, a menu or a dialog', async () => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`);
    await untilRunning(page);
    await page.keyboard.press('p');
    await untilResting(page);
    const clock = () => page.getByTestId('clock').innerText();
    const before = await clock();
    const letters = 'replay abcdefghijklmnopqrstuvwxyz0123456789,.';
    await page.keyboard.press('Control+k');
    const field = page.getByRole('searchbox', { name: 'Find a command' });
    await field.pressSequentially(letters);
    expect(await field.inputValue()).toBe(letters);
    expect(await clock()).toBe(before);
    // Whatever was typed, Escape closes it.
    await page.keyboard.press('Escape');
    await field.waitFor({ state: 'detached' });
    await page.getByRole('button', { name: /^Speed 1 times/ }).click();
    await page.getByRole('menu').waitFor();
    for (const letter of 'prx.,') await page.keyboard.press(letter);
    expect(await clock()).toBe(before);
    await page.keyboard.press('Escape');
    await page.keyboard.press('.');
    await page.waitForFunction(
      (text) => document.querySelector('[data-testid="clock"]')?.textContent !== text,
      before,
    );
  });

  it('pauses, goes by ticks, restarts, and takes another seed, with keys', async () => {
    const page = await app.open(await app.newNight());
    await untilRunning(page);
    await page.keyboard.press('p');
    await untilResting(page);
    const at = await tick(page);
    await page.keyboard.press('.');
    await expect.poll(() => tick(page)).toBe(at + 1);
    await page.keyboard.press(',');
    await page.keyboard.press(',');
    await expect.poll(() => tick(page)).toBe(at - 1);
    await page.getByText('in the past').waitFor();
    await page.keyboard.press('p');
    await expect.poll(() => tick(page)).toBeGreaterThan(at);
    await page.keyboard.press('r');
    await expect.poll(() => tick(page)).toBeLessThan(at);
    await page.getByRole('button', { name: 'Seed: 7. Edit' }).click();
    await page.keyboard.type('12');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Seed: 12. Edit' }).waitFor();
  });

  it('rewinds by dragging on the lanes', async () => {
    const page = await app.open(`${await app.newNight()}?tick=600`);
    await page.getByTestId('hash').waitFor();
    const box = (await page.getByTestId('lanes').boundingBox())!;
    await page.mouse.move(box.x + 100, box.y + 40);
    await page.mouse.down();
    await page.mouse.move(box.x + 60, box.y + 40);
    await page.mouse.up();
    await expect.poll(() => tick(page)).toBeLessThan(300);
  });

  it('says how far a run has come on its way to a moment, and P rests it there', async () => {
    const page = await app.open(await app.newNight());
    await untilReady(page);
    await page.keyboard.press('j');
    await page.getByRole('textbox', { name: /^A time/ }).fill('tick 200000');
    await page.keyboard.press('Enter');
    const progress = page.getByRole('progressbar', { name: /^Running on to/ });
    await expect
      .poll(async () => Number(await progress.getAttribute('aria-valuenow')))
      .toBeGreaterThan(0);
    await page.keyboard.press('p');
    await untilResting(page);
    expect(await progress.count()).toBe(0);
    expect(await tick(page)).toBeLessThan(200_000);
  });

  it('is named in the command list, with its keys', async () => {
    const page = await app.open(await app.newNight());
    await untilRunning(page);
    await page.keyboard.press('Control+k');
    await page.getByRole('searchbox', { name: 'Find a command' }).fill('speed 4');
    await page.getByRole('menuitem', { name: 'Speed 4×' }).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Speed 4 times. Choose' }).waitFor();
    // What fits the focus comes first, then what was used lately.
    await page.getByRole('application', { name: /^Ground/ }).focus();
    await page.keyboard.press('Control+k');
    const groups = page.getByRole('menu', { name: 'Commands' }).getByRole('group');
    await groups.first().waitFor();
    await page.getByRole('group', { name: 'The running ground' }).waitFor();
    await page
      .getByRole('group', { name: 'Used lately' })
      .getByRole('menuitem', { name: 'Speed 4×' })
      .waitFor();
    const names = await groups.evaluateAll((all) =>
      all.slice(0, 2).map((group) => group.querySelector('header')?.textContent),
    );
    expect(names).toEqual(['The running ground', 'Used lately']);
  });
});

describe('a state inside a room', () => {
  it('says by which ways of the room it is left too, and leads there', async () => {
    const page = await app.open('/projects/night-watch/minds/warden?state=rounds&tick=5');
    const ways = page.getByRole('list', { name: 'Transitions of Calm' });
    await ways.getByText(/^certain: .* → Chase$/).waitFor();
    // What it is worth now, as for its own ways out.
    await ways.getByTestId('live-calm-1').getByText('false').waitFor();
    await page.getByText('it also leaves when').getByRole('button', { name: 'Calm' }).click();
    await page.getByRole('button', { name: /^guard of transition 1 of Calm:/ }).waitFor();
  });
});

describe('for every agent', () => {
  it('finds nothing serious with axe, dark and light', async () => {
    const page = await app.open('/projects/night-watch/minds/warden?state=chase&tick=300');
    await page.getByTestId('hash').waitFor();
    await state(page, 'chase').waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);
    await page.keyboard.press('Control+k');
    await page.getByRole('searchbox', { name: 'Find a command' }).waitFor();
    expect(await seriousFaults(page)).toEqual([]);
    await page.goto(app.address);
    await page.getByRole('link', { name: 'Night Watch' }).first().waitFor();
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('every part can be reached by keyboard, and its focus is seen', async () => {
    const page = await app.open(`${await app.newNight()}?state=chase&tick=60`);
    await page.getByTestId('hash').waitFor();
    await state(page, 'chase').waitFor();
    const reached = new Set<string>();
    for (let i = 0; i < 200; i++) {
      await page.keyboard.press('Tab');
      const focus = await page.evaluate(() => {
        const element = document.activeElement as HTMLElement;
        const style = getComputedStyle(element);
        const ring = element.querySelector('.focus');
        const seen =
          style.outlineStyle !== 'none' ||
          (ring !== null && getComputedStyle(ring).stroke !== 'none');
        return {
          name: (element.getAttribute('aria-label') ?? element.textContent ?? '').trim(),
          seen,
          body: element === document.body,
        };
      });
      if (focus.body) break;
      expect(focus.seen, focus.name).toBe(true);
      reached.add(focus.name);
    }
    for (const name of [
      'Crooked Lantern: all projects',
      'Warden 2',
      'State Chase',
      'guard of transition 1 of Chase',
      'Show sight (1)',
      'Run (P)',
      'Playhead',
      'Add a transition',
    ]) {
      expect(
        [...reached].some((label) => label.startsWith(name)),
        `${name} in ${[...reached].join(' | ')}`,
      ).toBe(true);
    }
  });

  it.each([
    [1920, 1080],
    [1280, 800],
  ])('keeps the plan at one size beside scrollbars, at %i × %i', async (width, height) => {
    const page = await app.open(`${await app.newNightWatch()}/minds/warden`, {
      viewport: { width, height },
    });
    await untilRunning(page);
    await pause(page);
    const plan = page.locator('svg:has(.leaf)');
    await plan.waitFor();
    const sizes = await plan.evaluate(async (svg) => {
      const seen = new Set<string>();
      for (let frame = 0; frame < 30; frame++) {
        await new Promise(requestAnimationFrame);
        const { width: across, height: down } = svg.getBoundingClientRect();
        seen.add(`${across} × ${down}`);
      }
      return [...seen];
    });
    expect(sizes).toHaveLength(1);
  });

  it('holds together at 200 % zoom: nothing runs off to the side', async () => {
    const page = await app.open(await app.newNight(), { viewport: { width: 640, height: 400 } });
    await untilRunning(page);
    await pause(page);
    const { scroll, width } = await page.evaluate(() => ({
      scroll: document.documentElement.scrollWidth,
      width: document.documentElement.clientWidth,
    }));
    expect(scroll).toBeLessThanOrEqual(width);
  });
});
