import { expect, test } from '@playwright/test';
import { Filum } from './support/filum';

let filum: Filum;

test.beforeEach(async ({ page }) => {
  filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Queries');
});

async function choose(part: string, ...codes: string[]): Promise<void> {
  await filum.page.getByRole('button', { name: `Choose codes: ${part}` }).click();
  for (const code of codes) await filum.page.getByRole('dialog', { name: 'Choose codes' }).getByLabel(code).check();
  await filum.page.keyboard.press('Escape');
}

const summary = () => filum.page.locator('[data-summary]');
const count = async () => Number((await summary().textContent())!.match(/\d+/)![0]);

test('any finds more than all, and none takes away', async ({ page }) => {
  await choose('and at least one of', 'Worry', 'Getting help in time');
  // more than either code alone: the answer to both is there
  await expect.poll(count).toBeGreaterThan(100);
  const any = await count();
  await choose('and none of', 'Relief');
  await expect.poll(count).toBeLessThan(any);
  await page.getByRole('button', { name: 'Ask anew' }).click();
  await choose('that carry all of', 'Worry', 'Getting help in time');
  await expect.poll(count).toBeLessThan(10);
});

test('goes to the place in the text and back to the same answer', async ({ page }) => {
  await choose('that carry all of', 'Worry');
  await expect(page.locator('article')).not.toHaveCount(0);
  const words = (await page.locator('article mark').nth(10).textContent())!;
  await page.getByRole('button', { name: 'Read in place' }).nth(10).click();
  await expect(page.locator('blockquote')).toContainText(words.slice(0, 60));
  await expect(page.locator('.chosen').first()).toBeVisible();
  await page.getByRole('button', { name: 'Back to the query' }).click();
  await expect(page.locator('article mark').nth(10)).toHaveText(words);
  await expect(page.locator('article').nth(10)).toBeInViewport();
});

test('says what emptied an answer, and one step brings something back', async ({ page }) => {
  await choose('that carry all of', 'Relief', 'Seals');
  await expect(page.getByText('No passage answers this')).toBeVisible();
  const step = page.getByRole('button', { name: /without asking for “Relief”|without asking for “.*Seals/ }).first();
  await expect(step).toBeVisible();
  await step.click();
  await expect(page.locator('article')).not.toHaveCount(0);
});

test('keeps to chosen documents and to the scope, which is one click from off', async ({ page }) => {
  await choose('that carry all of', 'Worry');
  const all = await count();
  await page.getByRole('button', { name: 'all documents in scope' }).click();
  await page.getByLabel('Interview 03 – Shona Adair').check();
  await page.keyboard.press('Escape');
  await expect(summary()).toContainText('in 1 document');
  await page.getByRole('button', { name: 'Ask anew' }).click();
  await page.getByRole('button', { name: 'all documents', exact: true }).click();
  await page.getByRole('menuitemcheckbox', { name: 'field notes' }).click();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-scope-left]')).toHaveText('4 of 82 documents');
  await choose('that carry all of', 'Worry');
  expect(await count()).toBeLessThan(all);
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect.poll(count).toBe(all);
});

test('counts what is under a category, and codes of overlapping passages, when asked to', async ({ page }) => {
  await page.getByRole('button', { name: 'Choose codes: that carry all of' }).click();
  await page.getByLabel('Find a code').fill('Feelings');
  await page.getByRole('checkbox').first().check();
  await page.keyboard.press('Escape');
  await expect(page.getByText('No passage answers this')).toBeVisible();
  await page.getByRole('button', { name: 'by itself' }).click();
  await expect.poll(count).toBeGreaterThan(50);
  const own = await count();
  await choose('that carry all of', 'Getting help in time');
  await expect.poll(count).toBeLessThan(own);
  const both = await count();
  await page.getByRole('button', { name: 'the passage itself' }).click();
  await expect.poll(count).toBeGreaterThan(both);
});

test('saves a query and asks it again', async ({ page }) => {
  await choose('that carry all of', 'Pride');
  const pride = await count();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Ask anew' }).click();
  await page.getByRole('button', { name: 'Saved queries' }).click();
  await page.getByRole('menuitem', { name: 'Pride', exact: true }).click();
  await expect.poll(count).toBe(pride);
});
