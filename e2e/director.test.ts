import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseOption, setNumber } from './testing/fields.fixture.ts';
import {
  tick,
  untilLit,
  untilReady,
  untilResting,
  untilSaved,
} from './testing/minds-page.fixture.ts';
import { fromTheBeginning } from './testing/playing.fixture.ts';
import { addMind, take, write } from './testing/rows.fixture.ts';
import { stageOf, tool } from './testing/stage.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

describe('a game from an empty ground', () => {
  it('is made: a wave with a home and a delay, two modes, a score, a referee; played to its end, and changed while it runs', async () => {
    const project = await app.newProject(({ grounds, start, archetypes }) => {
      const { gleaner } = grounds[start.ground].agents;
      grounds[start.ground] = {
        title: 'Yard',
        width: 24,
        height: 14,
        walls: [],
        routes: {},
        agents: { gleaner: { archetype: gleaner.archetype, at: [3, 7] } },
      };
      delete archetypes.warden.sight;
    });
    const page = await app.open(`${project}/ground`);
    await untilReady(page);
    const stage = await stageOf(page, 24, 14);
    await tool(page, 'Zone');
    await stage.drag(14, 5, 17, 9);
    await page.getByRole('heading', { name: 'zone', exact: true }).waitFor();
    await tool(page, 'Spawn place');
    await stage.click(22, 2);
    await page.getByRole('heading', { name: 'spawn', exact: true }).waitFor();

    // The game around them stands with the ground itself.
    await page.getByRole('button', { name: /^Ground, director, waves/ }).click();
    await page.getByRole('button', { name: 'Add a wave' }).click();
    await page.keyboard.press('Enter');
    await page.getByRole('alert').getByText('It takes 1 to').waitFor();
    await page.keyboard.type('late');
    await page.keyboard.press('Enter');
    await page.getByRole('region', { name: 'Wave late' }).waitFor();
    await chooseOption(page, /^Who of late|Who of late/, 'Warden');
    await chooseOption(page, /Home of late/, 'zone');
    await setNumber(page, 'Count of late', '2');
    await setNumber(page, 'Times of late', '3');
    await setNumber(page, 'Delay of late', '2');
    await page
      .getByText('2 × Warden, one every 1 s, from the start; again 2 s after the last has died')
      .waitFor();
    await page.getByRole('img', { name: 'First minute: 2 come from 0 to 1 s' }).waitFor();
    await page.getByRole('button', { name: 'Add mode' }).click();
    await setNumber(page, 'Seconds of mode 1', '4');
    await page.getByRole('button', { name: 'Add mode' }).click();
    await page.getByRole('button', { name: 'Add a score' }).click();
    await page.keyboard.type('touches');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Remove the score touches' }).waitFor();
    expect(await faultsInBothThemes(page)).toEqual([]);

    // A referee of one rule, which is made the director of the ground.
    await page.getByRole('link', { name: 'Minds', exact: true }).first().click();
    await addMind(page, 'A set of rules', 'Referee');
    await take(page, '/', 'rule', 'Rule', 'While');
    await page.getByRole('link', { name: 'Ground', exact: true }).click();
    await chooseOption(page, /Mind of the director/, 'Referee');
    await page.getByRole('link', { name: 'Open Referee' }).click();
    await page
      .getByRole('button', { name: 'rows of Main' })
      .or(page.locator('[role="row"]').first())
      .first()
      .waitFor();
    await page.locator('[role="row"][aria-label^="While"]').focus();
    await page.keyboard.press('Enter');
    await write(page, /^test in row/, "inZone(zone, 'gleaners') > 0");
    await page.keyboard.press('Escape');
    await page.locator('[role="row"]:focus').waitFor();
    await take(page, '/', 'score', 'Add to score', 'Add to score');
    await take(page, '/', 'end', 'End the run', 'End the run');
    await untilSaved(page);
    const live = page.getByRole('region', { name: 'Shown live in' });
    await live.getByRole('button', { name: 'Director', exact: true }).waitFor();

    // Played to its end, and again with one key.
    await page.getByRole('link', { name: 'Watch', exact: true }).click();
    await page.getByRole('button', { name: /^Run \(P\)|Pause/ }).waitFor();
    await page.keyboard.press('p');
    await fromTheBeginning(page);
    const result = page.getByRole('status').getByText('Won');
    await page.keyboard.down('ArrowRight');
    await page.keyboard.press('p');
    await result.waitFor();
    await page.keyboard.up('ArrowRight');
    await untilResting(page);
    const ended = await tick(page);
    await page.keyboard.press('Shift+Period');
    expect(await tick(page)).toBe(ended);
    await page.getByRole('group', { name: 'The game' }).getByText('touches 1').waitFor();
    await page.keyboard.press('r');
    await result.waitFor({ state: 'hidden' });
    await expect.poll(() => tick(page)).toBeLessThan(ended);

    // More are to come, while it runs; what holds them up is said, and another place lets the next one in.
    await page.getByRole('link', { name: 'Ground', exact: true }).click();
    await setNumber(page, 'Count of late', '4');
    await page.getByRole('link', { name: 'Watch', exact: true }).click();
    const game = page.getByRole('group', { name: 'The game' });
    await game.getByText(/^late 1 · 3 to come: there is no room at spawn, for/).waitFor();
    await page.getByRole('link', { name: 'Ground', exact: true }).click();
    await tool(page, 'Spawn place');
    await stage.click(22, 12);
    await page.getByRole('heading', { name: 'spawn2', exact: true }).waitFor();
    await page.getByRole('link', { name: 'Watch', exact: true }).click();
    await game.getByText(/^late 2 · 2 to come/).waitFor();

    // Of the mind of those who have come, one is shown live.
    await page.getByRole('link', { name: 'Minds', exact: true }).first().click();
    await page.getByRole('button', { name: /^Warden \d+ states/ }).click();
    await live.getByRole('button', { name: 'late 1', exact: false }).waitFor();
    await untilLit(page, 'rounds');

    // What minds use is called otherwise: they follow, and a name that is taken is refused.
    await page.getByRole('link', { name: 'Ground', exact: true }).click();
    await page.getByRole('button', { name: /^Name of the score touches in the file/ }).click();
    await page.keyboard.type('Caught');
    await page.getByText('It takes a lower-case letter').waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('caught');
    await page.keyboard.press('Enter');
    await page.getByRole('link', { name: 'Open Referee' }).click();
    await page.locator('[role="row"]', { hasText: 'caught' }).waitFor();
    await untilSaved(page);
  });
});
