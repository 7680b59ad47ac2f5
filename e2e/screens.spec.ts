import { expect, test, type Page } from '@playwright/test';
import { Filum } from './support/filum';

const PLACES = ['Overview', 'Material', 'Reading', 'Codebook', 'Memos', 'Queries', 'Patterns', 'Write-up'];

/** Nothing may stand outside the window or be cut off by it. */
async function fits(page: Page): Promise<void> {
  const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
  expect(overflow).toBeLessThanOrEqual(0);
}

/** What is scrolled for long has a ground, by which the browser moves it without the page, and it is that of what it lies on. */
async function grounded(page: Page): Promise<void> {
  const grounds = await page.evaluate(() => {
    const clear = 'rgba(0, 0, 0, 0)';
    const groundOf = (element: Element): string => getComputedStyle(element).backgroundColor;
    return [...document.querySelectorAll('.scroll, cdk-virtual-scroll-viewport, .cm-scroller, fl-number-table .view')].map((one) => {
      let below = one.parentElement!;
      while (groundOf(below) === clear) below = below.parentElement!;
      return { of: one.className, own: groundOf(one), below: groundOf(below), desk: one.closest('fl-desk') !== null };
    });
  });
  // at the desk one writes on a sheet of its own
  expect(grounds.filter(({ own, below, desk }) => (desk ? own === 'rgba(0, 0, 0, 0)' : own !== below))).toEqual([]);
}

/** With every rule in the light theme, and with those about colours in the dark one: all else is the same in both. */
async function accessible(filum: Filum): Promise<void> {
  await filum.accessible();
  await grounded(filum.page);
  await filum.page.emulateMedia({ colorScheme: 'dark' });
  await expect(filum.page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await filum.accessible('colours');
  await filum.page.emulateMedia({ colorScheme: 'light' });
}

test('every screen is accessible, in both themes', async ({ page }) => {
  // nine screens with every rule take a minute where nothing else runs
  test.slow();
  const filum = new Filum(page);
  await page.emulateMedia({ colorScheme: 'light' });
  await page.goto('/');
  await page.getByRole('button', { name: /New study/ }).click();
  await accessible(filum);
  await filum.openDemo();
  for (const place of PLACES) {
    await filum.goTo(place);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    if (place === 'Reading') await expect(page.locator('.slip').first()).toBeVisible();
    await test.step(place, () => accessible(filum));
  }
  await page.goto(`${page.url().replace('write-up', 'log')}`);
  await expect(page.getByRole('heading', { name: 'Log' })).toBeVisible();
  await accessible(filum);
});

test('the picker, the chosen passage and dialogs are accessible, in both themes', async ({ page }) => {
  test.slow();
  const filum = new Filum(page);
  await page.emulateMedia({ colorScheme: 'light' });
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await page.locator('.slip').first().click();
  await accessible(filum);
  await page.locator('.cm-line').nth(3).click();
  await page.keyboard.press('c');
  await page.keyboard.type('help');
  await accessible(filum);
  await page.keyboard.press('Escape');
  await page.keyboard.press('m');
  await expect(page.getByRole('textbox', { name: 'Memo' })).toBeVisible();
  await accessible(filum);
  await page.keyboard.press('Escape');
  await filum.text.focus();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await accessible(filum);
});

test('an empty study teaches in every place', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  const teaches: Record<string, RegExp> = {
    Overview: /No documents where you are looking/,
    Material: /No material yet/,
    Reading: /Nothing to read yet/,
    Codebook: /No codes yet/,
    Memos: /No memos yet/,
    Queries: /Ask for passages/,
    Patterns: /No documents yet/,
    'Write-up': /No study file has been exported/,
  };
  for (const place of PLACES) {
    await filum.goTo(place);
    await expect(page.locator('main')).toContainText(teaches[place]!);
    await filum.accessible();
  }
});

test('every screen fits at 1280 and is not broken at 900 wide', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  for (const width of [1280, 900]) {
    await page.setViewportSize({ width, height: 800 });
    for (const place of PLACES) {
      await filum.goTo(place);
      await fits(page);
    }
  }
  await filum.goTo('Reading');
  await expect(page.locator('.cm-line').first()).toBeVisible();
  expect((await filum.text.boundingBox())!.width).toBeGreaterThan(500);
  await page.getByRole('button', { name: 'Codes', exact: true }).click();
  await expect(page.getByLabel('Find a code')).toBeInViewport();
});

test('nothing is fetched from anywhere else, nothing inline runs, and no place complains', async ({ page, baseURL }) => {
  const elsewhere: string[] = [];
  const complaints: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(baseURL!) && !request.url().startsWith('blob:') && !request.url().startsWith('data:'))
      elsewhere.push(request.url());
  });
  page.on('console', (message) => {
    if (message.type() === 'error' || message.type() === 'warning') complaints.push(message.text());
  });
  page.on('pageerror', (error) => complaints.push(error.message));
  const filum = new Filum(page);
  const response = await page.goto('/');
  const policy = response!.headers()['content-security-policy']!;
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toContain('unsafe');
  await filum.openDemo();
  for (const place of PLACES) await filum.goTo(place);
  await page.waitForLoadState('networkidle');
  expect(elsewhere).toEqual([]);
  expect(complaints).toEqual([]);
});

test('every address reloads to the same place', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  const headings: Record<string, string> = {
    Overview: 'The Last Ferry',
    Material: 'Material',
    Codebook: 'Codebook',
    Memos: 'Memos',
    Queries: 'Queries',
    Patterns: 'Codes by document',
    'Write-up': 'Exports',
  };
  for (const [place, heading] of Object.entries(headings)) {
    await filum.goTo(place);
    await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
    await page.reload();
    await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
  }
});

test('the theme is kept', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Theme: system' }).click();
  await page.getByRole('button', { name: 'Theme: light' }).click();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expect(page.getByRole('button', { name: 'Theme: dark' })).toBeVisible();
});
