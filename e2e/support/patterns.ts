import { expect, type Page } from '@playwright/test';
import { Filum } from './filum';

/** A cell of the table on the screen, by what it says of itself: row, column. */
export const cell = (page: Page, row: string, column: string) => page.locator(`[role=gridcell][aria-label^="${row}, ${column}: "]`);
export const behind = (page: Page) => page.getByRole('complementary', { name: 'Evidence' });
export const article = (page: Page) => behind(page).getByRole('article');
/** Chooses another word of the sentence. */
export const change = async (page: Page, from: string, to: string): Promise<void> => {
  await page.locator('.sentence').getByRole('button', { name: from, exact: true }).click();
  await page.getByRole('menuitem', { name: to, exact: true }).click();
  // it is counted anew from the next frame on
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
  await expect(page.locator('.body[aria-busy=true]')).toHaveCount(0);
};

/** Opens the demo study and one of its patterns. */
export async function patterns(page: Page, part?: string): Promise<Filum> {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Patterns');
  if (part) await page.getByRole('link', { name: part, exact: true }).click();
  return filum;
}
