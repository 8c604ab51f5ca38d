import type { Page } from 'playwright-core';
import { expect } from 'vitest';
import { pause, tick, untilResting } from './minds-page.fixture.ts';

/**
 * Plays with the ground's keys while the run rests and goes on by steps. What happens then hangs on the
 * keys and the ticks alone, and comes out the same on a machine of any speed.
 */

export interface Place {
  x: number;
  y: number;
}

/** Where an agent is by the ground's list, in metres. */
export async function placeOf(page: Page, title: string | RegExp): Promise<Place> {
  const text = await page
    .getByRole('list', { name: 'On the ground' })
    .getByText(typeof title === 'string' ? `${title} at` : title)
    .innerText();
  const [, x, y] = /at ([\d.-]+), ([\d.-]+) m/.exec(text)!;
  return { x: Number(x), y: Number(y) };
}

/** Rewinds to the first tick, and gives the keys to the ground. */
export async function fromTheBeginning(page: Page): Promise<void> {
  await pause(page);
  await page.getByRole('slider', { name: 'Playhead' }).focus();
  await page.keyboard.press('Home');
  await expect.poll(() => tick(page)).toBe(0);
  await untilResting(page);
  await page.keyboard.press('g');
}

/** Goes ten ticks on: in one step while Shift is held, which also lets the player run. */
async function tenOn(page: Page, isRunning: boolean): Promise<void> {
  const from = await tick(page);
  for (let i = 0; i < (isRunning ? 1 : 10); i++) await page.keyboard.press('Period');
  await expect.poll(() => tick(page), { interval: 10, timeout: 10_000 }).toBe(from + 10);
}

/** Goes on with the keys held until it is `done`; fails after 40 s of the run. */
export async function hold(
  page: Page,
  keys: readonly string[],
  done: () => Promise<boolean>,
): Promise<void> {
  for (const key of keys) await page.keyboard.down(key);
  for (let i = 0; !(await done()); i++) {
    if (i === 240) throw new Error(`Held ${keys.join('+')} for 40 s, and it did not come about.`);
    await tenOn(page, keys.includes('Shift'));
  }
  for (const key of keys) await page.keyboard.up(key);
}

/** A key to hold, and how to tell that it has been held long enough. */
export type Leg = [key: string, arrived: (place: Place) => boolean];

/** Runs the gleaner along the legs, over and over, until it is `away`; returns the leg it was on, to go on from. */
export async function runAround(
  page: Page,
  legs: readonly Leg[],
  away: () => Promise<boolean>,
  from = 0,
): Promise<number> {
  for (let leg = from; leg < from + 3 * legs.length; leg++) {
    const [key, arrived] = legs[leg % legs.length];
    await hold(
      page,
      ['Shift', key],
      async () => (await away()) || arrived(await placeOf(page, /^gleaner/i)),
    );
    if (await away()) return leg % legs.length;
  }
  throw new Error('Ran around three times and did not get away.');
}
