import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { bringIn, file } from './support/bringing-in';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

const picture = (page: Page) => page.getByRole('application');
const areas = (page: Page) => page.getByRole('list', { name: 'Areas' }).getByRole('listitem');

/** Draws over a part of the picture, in shares of the room it is shown in. */
async function drag(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const box = (await picture(page).boundingBox())!;
  const at = ([x, y]: readonly [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]));
  await page.mouse.move(...at(to));
  await page.mouse.up();
}

/** Brings a picture into a new study. */
async function withPicture(page: Page): Promise<Filum> {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await page.getByLabel('Files to bring in').setInputFiles('demo/media/the-bot.jpg');
  await expect(page.getByText('1,400 × 1,000 pixels')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'the-bot' }).click();
  await expect(picture(page)).toBeVisible();
  return filum;
}

test('areas are drawn and coded by the pointer and by keys, chosen from their list, moved, and all of it undone', async ({ page }) => {
  const filum = await withPicture(page);
  await drag(page, [0.3, 0.35], [0.6, 0.6]);
  await page.keyboard.press('c');
  await page.keyboard.type('Faces');
  await page.keyboard.press('Enter');
  await expect(areas(page)).toHaveCount(1);
  await expect(picture(page)).toBeFocused();
  await page.keyboard.press('Escape');
  // by keys alone
  await page.keyboard.press('i');
  await page.keyboard.press('Alt+Shift+ArrowRight');
  await page.keyboard.press('.');
  await expect(areas(page)).toHaveCount(2);
  await filum.accessible();
  const second = page.getByRole('button', { name: /^Faces, at/ }).nth(1);
  const before = await second.getAttribute('aria-label');
  await second.click();
  await picture(page).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('button', { name: before!, exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: before!, exact: true })).toBeVisible();
  await picture(page).focus();
  await page.keyboard.press('Delete');
  await expect(areas(page)).toHaveCount(1);
});

test('a picture is turned, mirrored, cut and made smaller without losing what is coded of it', async ({ page }) => {
  await withPicture(page);
  await drag(page, [0.4, 0.4], [0.5, 0.5]);
  await page.keyboard.press('c');
  await page.keyboard.type('Window');
  await page.keyboard.press('Enter');
  const label = await page.getByRole('button', { name: /^Window, at/ }).getAttribute('aria-label');
  await page.getByRole('button', { name: 'turn', exact: true }).click();
  await page.getByRole('button', { name: 'mirror', exact: true }).click();
  await expect(page.getByRole('button', { name: label!, exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'cut to this' }).click();
  await expect(page.locator('[data-coverage]')).toHaveText('100 % coded');
  await page.getByRole('button', { name: 'show all of it' }).click();
  await page.getByRole('button', { name: 'size', exact: true }).click();
  await page.getByLabel('Width in pixels').fill('none');
  await page.getByRole('button', { name: 'Make it so' }).click();
  await expect(page.getByText('Write a whole number of pixels')).toBeVisible();
  await page.getByLabel('Width in pixels').fill('700');
  await page.getByRole('button', { name: 'Make it so' }).click();
  await expect(page.getByText('Now 700 × 500 pixels; 1 area went along.')).toBeVisible();
  await page.reload();
  await expect(picture(page)).toBeVisible();
  await expect(page.getByText('Find it')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: label!, exact: true })).toBeVisible();
});

test('pictures are seen at a glance, described, and a hostile or broken one does no harm', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Material');
  await page.getByRole('link', { name: /^Pictures/ }).click();
  await expect(page.getByRole('img', { name: 'Notice of the last sailing' })).toBeVisible();
  await filum.accessible();
  await page.getByRole('link', { name: /The bot, by Mattie/ }).click();
  await page.getByRole('link', { name: 'The bot, by Mattie (6), described' }).click();
  await expect(filum.text).toContainText('A red ferry');
  await expect(picture(page)).toBeVisible();
  const dialogs: string[] = [];
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  await filum.goTo('Material');
  await bringIn(page);
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400" onload="alert(1)"><script>alert(2)</script><rect width="300" height="200" fill="teal"/></svg>';
  await page
    .getByLabel('Files to bring in')
    .setInputFiles([
      file('pier.svg', svg),
      file('cut.jpg', readFileSync('demo/media/the-bot.jpg').subarray(0, 400)),
      file('letter.png', 'Dear Sir'),
    ]);
  await expect(page.getByText('2 parts left out that could have run or fetched something')).toBeVisible();
  await expect(page.getByText('cannot be read')).toHaveCount(2);
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'pier', exact: true }).click();
  await expect(picture(page)).toBeVisible();
  expect(dialogs).toEqual([]);
});

test('a page of a PDF is seen beside its text, an area of it coded, and the page is a document only then', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await page.getByLabel('Files to bring in').setInputFiles('core/formats/fixtures/columns.pdf');
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'What the boat was for' }).click();
  await page.getByRole('button', { name: 'Page', exact: true }).click();
  await expect(page.getByText('page 1 of 1')).toBeVisible();
  await expect(picture(page)).toBeVisible();
  await filum.accessible();
  await filum.goTo('Material');
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.getByRole('link', { name: 'What the boat was for' }).click();
  await expect(page.getByText('page 1 of 1')).toBeVisible();
  await drag(page, [0.3, 0.3], [0.6, 0.5]);
  await page.keyboard.press('c');
  await page.keyboard.type('Layout');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Passage', exact: true })).toBeVisible();
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'What the boat was for, page 1' }).click();
  await expect(areas(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await filum.goTo('Material');
  await expect(page.getByRole('link', { name: 'What the boat was for, page 1' })).toHaveCount(0);
});
