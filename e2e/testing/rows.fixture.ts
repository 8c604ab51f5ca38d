import type { Page } from 'playwright-core';

/** Rows of trees and rules, as they are written with the keys. */

/** Opens a list by a key, and takes what a few letters find; the row that is made begins with `row`. */
export async function take(page: Page, key: string, letters: string, name: string, row: string) {
  await page.keyboard.press(key);
  await page.getByRole('searchbox').waitFor();
  await page.keyboard.type(letters);
  await page.getByRole('menuitem', { name }).first().waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.locator(`[role="row"]:focus[aria-label^="${row}"]`).waitFor();
}

/** Writes the expression whose field has just been opened. */
export async function write(page: Page, label: RegExp, text: string) {
  await page.getByRole('textbox', { name: label }).waitFor();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
  await page.keyboard.press('Enter');
}

/** Adds a mind of a form, whose first row has the focus then. */
export async function addMind(page: Page, form: string, title: string) {
  await page.getByRole('button', { name: 'Add a mind' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: form }).focus();
  await page.keyboard.press('Enter');
  await page.locator('[role="dialog"] input:focus').waitFor();
  await page.keyboard.type(title);
  await page.keyboard.press('Enter');
  await page.locator('[role="row"]:focus').waitFor();
}
