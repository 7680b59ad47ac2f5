import { chromium, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { createApp } from '../server/app';
import { Filum } from '../e2e/support/filum';

/** Makes the pictures in docs/screenshots from the demo study, each named after its place. Needs a build. */
const server = createApp('dist/app/browser').listen(0, '127.0.0.1');
await new Promise((resolve) => server.once('listening', resolve));
const baseURL = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const browser = await chromium.launch({
  executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

const shoot = async (page: Page, name: string): Promise<void> => {
  await page.waitForTimeout(500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};

async function reading(filum: Filum, name: string): Promise<void> {
  const { page } = filum;
  await filum.read('Interview 03 – Shona Adair');
  await filum.caretAt('night. Last boat');
  for (let at = 0; at < 17; at++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('c');
  await page.keyboard.type('help');
  await shoot(page, name);
  await page.keyboard.press('Escape');
}

/** Codes on a table, some in groups. */
async function sorting(filum: Filum): Promise<void> {
  const { page } = filum;
  await page.getByRole('navigation', { name: 'Parts of the codebook' }).getByRole('link', { name: 'Sorting' }).click();
  await page.getByRole('button', { name: 'Sort all codes' }).click();
  await page.getByRole('button', { name: 'Lay them out' }).click();
  for (const [at, [name, codes]] of (
    [
      ['The boat and the clock', ['The queue', 'Planning', 'No boat', 'Counting']],
      ['Who is counted in', ['Making room', 'Doors', 'Young', 'Water']],
      ['What is lost', ['Grief', 'Falling out']],
    ] as const
  ).entries()) {
    await page.getByRole('button', { name: 'New group' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByRole('button', { name: 'Make the group' }).click();
    // the closed dialog gives the focus back first
    await page.waitForTimeout(500);
    for (const code of codes) {
      await page.locator('.tray .slip', { hasText: code }).focus();
      await page.keyboard.press(String(at + 1));
      await page.waitForTimeout(120);
    }
  }
  await page
    .locator('.tray .slip', { hasText: 'Worry' })
    .dragTo(page.getByRole('group', { name: 'Sorting table' }), { targetPosition: { x: 430, y: 360 } });
  await page.getByRole('button', { name: 'Tidy' }).click();
  await shoot(page, 'codebook-sorting');
}

/** Files of the demo study, written less carefully: a name misspelt, words saved as Windows once did, a title above a table. */
async function bringingIn(page: Page): Promise<void> {
  const file = (name: string, content: string, encoding: BufferEncoding = 'utf8') => ({
    name,
    mimeType: '',
    buffer: Buffer.from(content, encoding),
  });
  let turns = 0;
  const interview = readFileSync('demo/marked/06-tomasz-wilk.txt', 'utf8')
    .replace(/^#.*\n/gm, '')
    .replace(/<[^>]*>/g, '')
    .replace(/^Tomasz:/gm, (name) => (++turns === 4 ? 'Tomsaz:' : name))
    .replace(/"([^"\n]*)"/g, '\u0093$1\u0094');
  await page
    .getByLabel('Files to bring in')
    .setInputFiles([
      file('Tomasz once more.txt', interview.trimStart(), 'latin1'),
      file('Survey of the pier.csv', `Survey of the pier,,\nwave 1,,\n\n${readFileSync('demo/survey.csv', 'utf8')}`),
    ]);
  const files = page.getByRole('list', { name: 'Files' });
  await page.waitForTimeout(3000);
  await files
    .getByRole('button', { name: /Tomasz once more/ })
    .first()
    .click();
  await page.waitForTimeout(500);
  await shoot(page, 'import');
  await files
    .getByRole('button', { name: /Survey of the pier/ })
    .first()
    .click();
  await page.waitForTimeout(1500);
  await shoot(page, 'import-table');
}

for (const theme of ['light', 'dark'] as const) {
  const page = await (await browser.newContext({ baseURL, colorScheme: theme, viewport: { width: 1280, height: 800 } })).newPage();
  const filum = new Filum(page);
  await page.goto('/');
  await filum.openDemo();
  if (theme === 'dark') {
    await reading(filum, 'reading-dark');
    break;
  }
  await shoot(page, 'overview');
  await filum.goTo('Material');
  await shoot(page, 'material');
  await page.getByRole('link', { name: /^Participants/ }).click();
  await page.getByRole('button', { name: 'All that belongs to Ana Duarte' }).click();
  await shoot(page, 'material-cases');
  await page.getByRole('link', { name: 'Bring in' }).click();
  await bringingIn(page);
  await reading(filum, 'reading');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Correct the text' }).click();
  await page.keyboard.type('Well. ');
  await shoot(page, 'reading-correct');
  await page.keyboard.press('Escape');
  await page.getByRole('dialog').getByRole('button', { name: 'Drop them' }).click();
  await page.locator('.slip').nth(4).click();
  await filum.text.focus();
  await page.keyboard.press('m');
  await page.getByLabel('Title', { exact: true }).fill('What kind of help?');
  await page.getByRole('button', { name: 'quote the passage' }).click();
  await page.keyboard.type('Is this the same **help** as the night boat, or is it @worr');
  await page.getByRole('option', { name: /Worry/ }).waitFor();
  await shoot(page, 'memos-writing');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Read line by line' }).click();
  await page.getByRole('combobox', { name: 'Codes of turn 3', exact: true }).click();
  await page.keyboard.type('help');
  await shoot(page, 'reading-lines');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Read by question' }).click();
  await page.getByLabel('Question').selectOption('What should the council do first?');
  await page.locator('article fl-code-cell input').nth(1).click();
  await page.keyboard.type('trust');
  await shoot(page, 'reading-question');
  await filum.goTo('Codebook');
  await page.getByRole('treeitem', { name: 'Getting help in time' }).click();
  await shoot(page, 'codebook');
  await page.getByRole('tab', { name: 'Where it is' }).click();
  await page.waitForTimeout(800);
  await shoot(page, 'codebook-page');
  await page.getByRole('tab', { name: 'Meaning' }).click();
  await page.getByLabel('Definition').fill('Reaching urgent help, or not reaching it in time: night calls, the helicopter, births.');
  await page.getByLabel('Definition').blur();
  await sorting(filum);
  await page.getByRole('navigation', { name: 'Parts of the codebook' }).getByRole('link', { name: 'Then and now' }).click();
  await page.waitForTimeout(800);
  await shoot(page, 'codebook-versions');
  await filum.goTo('Memos');
  await page.getByRole('button', { name: /^Safe and belonging in one breath/ }).click();
  await shoot(page, 'memos');
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByRole('button', { name: 'Own entry' }).click();
  await page.getByLabel(/What was decided/).fill('Met with Jon. “Worry” is kept for what is still to come; what has happened is “Grief”.');
  await page.getByLabel('Tags, with commas between').fill('decision');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await shoot(page, 'log');
  await filum.goTo('Queries');
  await page.getByRole('button', { name: 'Choose codes: that carry all of' }).click();
  await page.getByLabel('Getting help in time').check();
  await page.getByLabel('Worry').check();
  await page.keyboard.press('Escape');
  await shoot(page, 'queries');
  await filum.goTo('Write-up');
  await shoot(page, 'write-up');
}
await browser.close();
server.close();
