import type { Page } from 'playwright-core';

/** The editor's stage, with metres turned into places on the page. */
export async function stageOf(page: Page, width: number, height: number) {
  const box = (await page.getByTestId('editor').boundingBox())!;
  const scale = Math.min((box.width - 24) / width, (box.height - 24) / height);
  const left = box.x + (box.width - width * scale) / 2;
  const top = box.y + (box.height - height * scale) / 2;
  const at = (x: number, y: number) => [left + x * scale, top + y * scale] as const;
  return {
    click: (x: number, y: number) => page.mouse.click(...at(x, y)),
    hover: (x: number, y: number) => page.mouse.move(...at(x, y)),
    async drag(x0: number, y0: number, x1: number, y1: number) {
      await page.mouse.move(...at(x0, y0));
      await page.mouse.down();
      await page.mouse.move(...at((x0 + x1) / 2, (y0 + y1) / 2));
      await page.mouse.move(...at(x1, y1));
      await page.mouse.up();
    },
  };
}

/** Takes a tool of the ground’s editor. */
export const tool = (page: Page, name: string) =>
  page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name, exact: true }).click();
