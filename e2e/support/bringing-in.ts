import type { Locator, Page } from '@playwright/test';

/** A file as it is chosen. */
export const file = (name: string, content: string | Uint8Array) => ({ name, mimeType: '', buffer: Buffer.from(content as string) });

/** Goes to where files are brought in. */
export async function bringIn(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Bring in' }).first().click();
}

/** The text of the file that is shown. */
export const preview = (page: Page): Locator => page.getByRole('region', { name: 'Text of the preview' });

/** The files that were chosen. */
export const files = (page: Page): Locator => page.getByRole('list', { name: 'Files' }).getByRole('listitem');
