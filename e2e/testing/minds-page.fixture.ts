import type { Locator, Page } from 'playwright-core';
import { expect } from 'vitest';

/** What a user sees and does on the Minds page, in the words of the page. */

export const DEMO_MINDS = '/projects/night-watch/minds/warden';

export function state(page: Page, id: string): Locator {
  return page.locator(`[data-state="${id}"]`);
}

export async function isLit(page: Page, id: string): Promise<boolean> {
  return (await state(page, id).getAttribute('data-active')) === 'true';
}

/** Waits until the state is lit on the plan. */
export async function untilLit(page: Page, id: string, seconds = 20): Promise<void> {
  await page
    .locator(`[data-state="${id}"][data-active="true"]`)
    .waitFor({ state: 'attached', timeout: seconds * 1000 });
}

export async function untilRunning(page: Page): Promise<void> {
  await expect.poll(() => tick(page), { timeout: 20_000 }).toBeGreaterThan(5);
}

/** Waits until the page runs, and lets the run rest: what is about writing needs none beside it, which takes time from all that follows. */
export async function untilReady(page: Page): Promise<void> {
  await untilRunning(page);
  await page.keyboard.press('p');
  await page.getByRole('button', { name: 'Run (P)' }).waitFor();
}

export async function tick(page: Page): Promise<number> {
  const text = await page.getByTestId('clock').innerText();
  return Number(/tick (\d+)/.exec(text)?.[1] ?? 0);
}

/** Waits until the run has come to rest and the page shows where. */
export async function untilResting(page: Page): Promise<void> {
  await page.getByTestId('hash').waitFor();
  const playhead = page.getByRole('slider', { name: 'Playhead' });
  await expect
    .poll(async () => Number(await playhead.getAttribute('aria-valuenow')) - (await tick(page)))
    .toBe(0);
}

export async function pause(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Pause (P)' }).click();
  await untilResting(page);
}

/** Replaces the expression of a field that is edited in place and commits it with Enter. */
export async function writeExpression(page: Page, label: string, text: string): Promise<void> {
  // Undo is called after what was written there last, so that its name only has the label further on.
  const beginning = new RegExp(`^${label.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}`);
  await page.getByRole('button', { name: beginning }).click();
  const editor = page.getByRole('textbox', { name: label });
  await editor.waitFor();
  await page.keyboard.press('Control+a');
  // Inserted at once, as from the clipboard, so that no completion opens under the Enter.
  await page.keyboard.insertText(text);
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: `${label}: ${text}. Edit` }).waitFor();
}

export async function untilSaved(page: Page): Promise<void> {
  await page.getByText(/^saved/).waitFor();
}
