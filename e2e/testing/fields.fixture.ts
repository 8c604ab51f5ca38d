import type { Page } from 'playwright-core';

/** Fields that are edited where they stand, as a user does it. */

/** Opens a menu by its button and takes an entry. */
export async function chooseFrom(page: Page, button: string, entry: string): Promise<void> {
  await page.getByRole('button', { name: button }).click();
  await page.getByRole('menuitem', { name: entry, exact: true }).click();
}

/** Opens a field of which one value is chosen, and takes another. */
export async function chooseOption(
  page: Page,
  field: string | RegExp,
  option: string,
): Promise<void> {
  await page.getByRole('button', { name: field }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** Types another number and waits until it stands there. */
export async function setNumber(page: Page, label: string, value: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${label}: .*Edit$`) }).click();
  await page.getByRole('textbox', { name: label }).fill(value);
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: `${label}: ${value}. Edit` }).waitFor();
}
