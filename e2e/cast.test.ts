import type { ProjectDocument } from '@crooked-lantern/core';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { faultsInBothThemes, seriousFaults } from './testing/accessibility.fixture.ts';
import { startApp, type App } from './testing/app.fixture.ts';
import { chooseFrom, chooseOption, setNumber } from './testing/fields.fixture.ts';
import { pause, untilRunning, untilSaved } from './testing/minds-page.fixture.ts';
import { placeOf } from './testing/playing.fixture.ts';

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());
afterEach(async () => expect(await app.endPages()).toEqual([]));

/** What the server holds, once the page says that it has saved. */
async function stored(page: Page, project: string): Promise<ProjectDocument> {
  await untilSaved(page);
  const response = await fetch(`${app.address}/api${project}`);
  return ((await response.json()) as { document: ProjectDocument }).document;
}

const handle = (page: Page, name: string) => page.getByRole('slider', { name });
const inList = (page: Page, name: string | RegExp) =>
  page.getByRole('navigation', { name: 'Cast' }).getByRole('button', { name });

describe('senses', () => {
  it('are drawn, and changed by handle, by key and by figure, live and with undo', async () => {
    const project = await app.newNightWatch();
    const page = await app.open(`${project}/cast/archetypes/warden`);
    await untilRunning(page);
    const range = handle(page, 'Range of cone 1 of Warden');
    await range.focus();
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Shift+ArrowUp');
    await page.getByRole('button', { name: 'Range of cone 1 of Warden: 12.1. Edit' }).waitFor();

    const edge = (await handle(page, 'Half-angle of cone 1 of Warden').boundingBox())!;
    await page.mouse.move(edge.x + edge.width / 2, edge.y + edge.height / 2);
    await page.mouse.down();
    await page.mouse.move(edge.x + 40, edge.y + 30, { steps: 4 });
    await page.mouse.up();
    const angle = Number(
      await handle(page, 'Half-angle of cone 1 of Warden').getAttribute('aria-valuenow'),
    );
    expect(angle).toBeGreaterThan(17);
    await setNumber(page, 'Gain of cone 1 of Warden', '3');
    await setNumber(page, 'Hearing threshold of Warden', '0.2');
    expect(await handle(page, 'Hearing threshold of Warden').getAttribute('aria-valuenow')).toBe(
      '0.2',
    );
    const { sight, hearing } = (await stored(page, project)).archetypes.warden;
    expect(sight!.cones[0]).toEqual({ range: 12.1, halfAngle: angle, gain: 3 });
    expect(hearing).toEqual({ threshold: 0.2 });
    await page.getByText(/running\s*edit 6\s*· live/).waitFor();

    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'Gain of cone 1 of Warden: 2.6. Edit' }).waitFor();
  });

  it('tell the time to notice where one points, and draw it by distance', async () => {
    const page = await app.open('/projects/night-watch/cast/archetypes/warden');
    const senses = page.getByRole('region', { name: 'Senses of Warden' });
    await senses.locator('.recharts-line').nth(3).waitFor({ state: 'attached' });
    const tip = (await handle(page, 'Range of cone 2 of Warden').boundingBox())!;
    await page.mouse.move(tip.x + 2, tip.y + 30);
    const text = await senses.getByText(/m, \d+° off:/).innerText();
    const [, metres, off] = /([\d.]+) m, (\d+)° off/.exec(text)!;
    expect(Number(off)).toBeLessThan(16);
    const strength = 2.6 * (1 - (Number(metres) / 11) ** 2);
    const [, seconds] = /standing lit ([\d.]+) s/.exec(text)!;
    // The reaction comes on top; the readout is rounded.
    expect(Math.abs(Number(seconds) - (1 / strength + 0.15))).toBeLessThan(0.07);
    await chooseOption(page, 'Noticed means', 'curious (0.3)');
    await page.mouse.move(tip.x + 2, tip.y + 30);
    const sooner = await senses.getByText(/m, \d+° off:/).innerText();
    expect(Number(/standing lit ([\d.]+) s/.exec(sooner)![1])).toBeLessThan(Number(seconds));
  });
});

describe('an archetype and the agents made from it', () => {
  it('are told apart; an agent keeps what is its own and can go back', async () => {
    const project = await app.newNightWatch();
    const page = await app.open(`${project}/cast/archetypes/warden`);
    await page.getByText('5 agents are made from it').waitFor();
    await page
      .getByRole('region', { name: 'Archetype Warden' })
      .getByRole('button', { name: 'Sleeper', exact: true })
      .click();
    await page.getByText('All as in Warden. What you change here is its own.').waitFor();
    await setNumber(page, 'Reaction of Sleeper', '0.5');
    await page.getByText('1 value is its own; the rest follows Warden.').waitFor();
    await inList(page, /^Sleeper 1 own/).waitFor();
    const own = await stored(page, project);
    expect(own.grounds.orchard.agents.sleeper.overrides).toEqual({ reaction: 0.5 });
    expect(own.archetypes.warden.reaction).toBe(0.15);

    // What the archetype gets, the agent has too, but for what is its own.
    await inList(page, /^Warden 5/).click();
    await setNumber(page, 'Reaction of Warden', '0.2');
    await setNumber(page, 'Turn rate of Warden', '200');
    await inList(page, /^Sleeper/).click();
    await page.getByRole('button', { name: 'Turn rate of Sleeper: 200. Edit' }).waitFor();
    await page.getByRole('button', { name: /Warden has 0.2 s. Go back to that/ }).click();
    await page.getByRole('button', { name: 'Reaction of Sleeper: 0.2. Edit' }).waitFor();
    expect((await stored(page, project)).grounds.orchard.agents.sleeper.overrides).toBeUndefined();
  });

  it('come to be: one is added, named, placed on the ground, and stays while it is needed', async () => {
    const project = await app.newNightWatch();
    const page = await app.open(`${project}/cast`);
    await page.getByRole('button', { name: 'Add an archetype' }).click();
    await page
      .getByRole('button', { name: 'Name of Newcomer in the file: newcomer. Edit' })
      .click();
    await page.keyboard.type('Bee keeper');
    await page.getByText(/It takes a lower-case letter/).waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('beekeeper');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Range of cone 1 of Newcomer: 9. Edit' }).waitFor();
    await page.getByRole('button', { name: 'Place one' }).click();
    await page.getByText('Click to place a Newcomer').waitFor();
    const stage = (await page.getByTestId('editor').boundingBox())!;
    // The middle of the orchard is free.
    await page.mouse.click(stage.x + stage.width * 0.5, stage.y + stage.height * 0.52);
    await page.getByRole('link', { name: 'Cast' }).click();
    await inList(page, /^Newcomer 1 placed/).click();
    await page.getByRole('button', { name: 'Remove', exact: true }).click();
    await page.getByText(/“beekeeper” stays: .* is made from it/).waitFor();
    const { archetypes } = await stored(page, project);
    expect(archetypes.beekeeper).toMatchObject({
      faction: 'geese',
      gaits: { walk: { noise: 4 } },
      sight: { cones: [{ range: 9 }] },
    });
  });
});

describe('sides, squads and ways to begin', () => {
  it('stand to each other as the table says, each way on its own', async () => {
    const project = await app.newNightWatch();
    const page = await app.open(`${project}/cast/factions`);
    await chooseFrom(page, 'Geese toward Gleaners: hostile. Choose', 'neutral');
    await page.getByText('they: neutral').waitFor();
    await page.getByRole('button', { name: 'Gleaners toward Geese: hostile. Choose' }).waitFor();
    expect((await stored(page, project)).factions!.geese.toward).toEqual({
      gleaners: 'neutral',
      wardens: 'friendly',
    });
  });

  it('a role is written like any expression, and what is wrong is said there', async () => {
    const project = await app.newNightWatch();
    const page = await app.open(`${project}/cast/squads/west`);
    const label = 'Score of flank of West squad';
    await page.getByRole('button', { name: label }).click();
    await page.getByRole('textbox', { name: label }).waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText('-distanse(attention.place)');
    await page.keyboard.press('Enter');
    await page
      .getByText(/distanse.*distance/)
      .first()
      .waitFor();
    await page.getByText(/1 error/).waitFor();
    await setNumber(page, 'Slots of press of West squad', '2');
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await page.getByText(/running\s*edit \d+\s*· live/).waitFor();
  });

  it('a set-up takes over where all stand, and starts there', async () => {
    const project = await app.newNightWatch();
    const page = await app.open(`${project}/cast`);
    await untilRunning(page);
    await page.getByTestId('ground').focus();
    const start = await placeOf(page, /^gleaner/i);
    await page.keyboard.down('ArrowRight');
    await expect
      .poll(async () => (await placeOf(page, /^gleaner/i)).x, { timeout: 20_000 })
      .toBeGreaterThan(start.x + 1);
    await page.keyboard.up('ArrowRight');
    await pause(page);
    const reached = await placeOf(page, /^gleaner/i);
    await page.getByRole('button', { name: 'Add a set-up' }).click();
    await page.getByRole('button', { name: 'Take over where all stand now' }).click();
    await page.getByRole('button', { name: /^x of Gleaner in New set-up/ }).waitFor();
    await page.getByRole('button', { name: 'Remove', exact: true }).waitFor();
    const { setups } = await stored(page, project);
    expect(setups!.setup.agents!.gleaner.at![0]).toBeCloseTo(reached.x, 0);
    await page.getByRole('button', { name: 'Start it' }).click();
    await untilRunning(page);
    expect(Math.abs((await placeOf(page, /^gleaner/i)).x - reached.x)).toBeLessThan(0.3);
    // A place where no agent can stand is reported, and the run goes on.
    await setNumber(page, 'x of Gleaner in New set-up', '0');
    await page.getByText(/“Gleaner” .* is placed in a wall or off the ground/).waitFor();
    await page.keyboard.press('Shift+Digit2');
    await page.getByText(/Not begun: .*is placed in a wall/).waitFor();
    await page.getByRole('button', { name: 'Pause (P)' }).waitFor();
  });
});

describe('the place', () => {
  it('has nothing axe finds serious, dark and light', async () => {
    const page = await app.open('/projects/night-watch/cast');
    await pause(page);
    for (const part of ['archetypes/warden', 'squads/west', 'factions', 'setups/caught']) {
      await page.goto(`${app.address}/projects/night-watch/cast/${part}?tick=5`);
      await page.getByTestId('hash').waitFor();
      const faults = part.startsWith('archetypes') ? faultsInBothThemes : seriousFaults;
      expect(await faults(page), part).toEqual([]);
    }
  });
});
