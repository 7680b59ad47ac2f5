import { chromium, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { createApp } from '../server/app';
import { Filum } from '../e2e/support/filum';
import { chromiumHere } from './browser.cjs';

/** Makes the pictures in docs/screenshots from the demo study, each named after its place. Needs a build. */
const server = createApp('dist/app/browser').listen(0, '127.0.0.1');
await new Promise((resolve) => server.once('listening', resolve));
const baseURL = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const browser = await chromium.launch({
  executablePath: chromiumHere(),
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
  // what is not stored waits in this place, and would come in with the next file
  const waiting = page.getByRole('button', { name: /^Leave out/ });
  for (let left = await waiting.count(); left > 0; left--) {
    await waiting.first().click();
    await waiting.nth(left - 1).waitFor({ state: 'detached' });
  }
}

/** The recording with its words, transcribing it, a picture with its areas, and a page of a PDF beside its text. */
async function recordings(filum: Filum): Promise<void> {
  const { page } = filum;
  await filum.read('At the pier – Ellen');
  const play = page.getByRole('button', { name: 'Play', exact: true });
  await play.waitFor();
  await page.waitForTimeout(2500);
  const line = page.getByRole('slider', { name: 'The recording as a line' });
  const box = (await line.boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.575, box.y + 60);
  await page.mouse.move(600, 300);
  await shoot(page, 'recording');
  await filum.caretAt('I suppose');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Transcribe on from here' }).click();
  await page.keyboard.type('Well. ');
  await page.keyboard.press('Control+.');
  await page.getByRole('button', { name: 'a part larger' }).click();
  await page.waitForTimeout(800);
  await shoot(page, 'transcribing');
  await page.keyboard.press('Escape');
  await page
    .getByRole('button', { name: 'Drop', exact: true })
    .click()
    .catch(() => undefined);
  await page.getByRole('dialog').getByRole('button', { name: 'Drop them' }).click();
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'Notice of the last sailing' }).click();
  await page.waitForTimeout(1500);
  await page
    .getByRole('button', { name: /Holding out/ })
    .first()
    .click();
  await shoot(page, 'picture');
  await pdfPage(filum);
}

/** A newsletter of the demo study as it would be printed, brought in and coded. */
async function pdfPage(filum: Filum): Promise<void> {
  const { page } = filum;
  const words = readFileSync('demo/marked/22-newsletter-editorial.txt', 'utf8')
    .replace(/^#.*\n/gm, '')
    .replace(/<[^>]*>/g, '')
    .trim();
  const printing = await browser.newPage();
  const style =
    'body{font:11pt/1.45 serif;margin:0}h1{font-size:26pt;border-bottom:2pt solid;padding-bottom:6pt}div{columns:2;column-gap:8mm;text-align:justify}';
  const paragraphs = words.split(/\n{2,}/).map((one) => `<p>${one.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</p>`);
  await printing.setContent(`<style>${style}</style><h1>The Tamsay Newsletter</h1><div>${paragraphs.join('')}</div>`);
  const buffer = await printing.pdf({ format: 'A4', margin: { top: '18mm', bottom: '18mm', left: '18mm', right: '18mm' } });
  await printing.close();
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'Bring in' }).first().click();
  await page.getByLabel('Files to bring in').setInputFiles([{ name: 'Newsletter in print.pdf', mimeType: '', buffer }]);
  await page.getByRole('textbox', { name: 'Title' }).fill('Newsletter in print');
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'Newsletter in print' }).click();
  await page.getByRole('button', { name: 'Page', exact: true }).click();
  await page.getByText(/page 1 of/).waitFor();
  await page.waitForTimeout(1500);
  await filum.text.focus();
  for (const code of ['pride', 'trust']) {
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('s');
    await page.keyboard.press('c');
    await page.keyboard.type(code);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Escape');
  const box = (await page.getByRole('application').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.3);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.7, box.y + box.height * 0.4);
  await page.mouse.move(box.x + box.width * 0.8, box.y + box.height * 0.45);
  await page.mouse.up();
  await page.keyboard.press('c');
  await page.keyboard.type('falling');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await shoot(page, 'pdf-page');
  for (let steps = 0; steps < 4; steps++) await page.getByRole('button', { name: 'Undo' }).click();
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
  await page.locator('.slip').nth(4).click();
  await filum.text.focus();
  await page.keyboard.press('m');
  await page.getByLabel('Title', { exact: true }).fill('What kind of help?');
  await page.getByRole('button', { name: 'quote the passage' }).click();
  await page.keyboard.type('Is this the same **help** as the night boat, or is it @worr');
  await page.getByRole('option', { name: /Worry/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  await recordings(filum);
  await filum.goTo('Codebook');
  await page.getByRole('treeitem', { name: 'Getting help in time' }).click();
  await shoot(page, 'codebook');
  await page.getByRole('tab', { name: 'Where it is' }).click();
  await page.waitForTimeout(800);
  await shoot(page, 'codebook-page');
  await page.getByRole('tab', { name: 'Meaning' }).click();
  await page.getByLabel('Definition').fill('Reaching urgent help, or not reaching it in time: night calls, the helicopter, births.');
  await page.getByLabel('Definition').blur();
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
  const add = async (what: string, ...codes: string[]): Promise<void> => {
    await page.getByRole('button', { name: 'and', exact: true }).last().click();
    await page.getByRole('menuitem', { name: what }).click();
    for (const code of codes) await page.getByLabel(code).check();
    await page.keyboard.press('Escape');
  };
  await page.getByRole('button', { name: 'Choose codes' }).click();
  await page.getByLabel('Getting help in time').check();
  await page.getByLabel('Worry').check();
  await page.keyboard.press('Escape');
  await add('overlap, lie near or beside others', 'Relief');
  await add('are spoken by');
  await page.getByRole('button', { name: 'narrow', exact: true }).click();
  const panel = page.getByRole('dialog', { name: 'What is looked at' });
  await panel.getByRole('button', { name: 'narrow to' }).click();
  await page.getByRole('menuitem', { name: 'are of a participant with an attribute' }).click();
  await panel.getByRole('button', { name: 'choose an attribute' }).click();
  await page.getByRole('menuitem', { name: 'home' }).click();
  await panel.getByRole('button', { name: 'is known' }).click();
  await page.getByRole('menuitem', { name: 'is', exact: true }).click();
  await panel.getByRole('button', { name: /^Find a value/ }).click();
  await page.getByRole('dialog', { name: 'Find a value' }).getByRole('checkbox', { name: 'Saltpans' }).check();
  await page.keyboard.press('Escape');
  await panel.getByRole('button', { name: 'and', exact: true }).click();
  await page.getByRole('menuitem', { name: 'are spoken by' }).click();
  await panel.locator('.count').nth(5).waitFor();
  await shoot(page, 'queries');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'look at all' }).click();
  await page.getByRole('link', { name: 'Words', exact: true }).click();
  await page.getByLabel('Words to look for').fill('boat within 5 of (late or night or last)');
  await page.waitForTimeout(1000);
  await shoot(page, 'queries-words');
  await filum.goTo('Patterns');
  await page.locator('[role=gridcell][aria-label^="Getting help in time, Interview 03"]').click();
  await page.locator('fl-evidence-side article').first().waitFor();
  await shoot(page, 'patterns');
  await page.getByRole('link', { name: 'Weave', exact: true }).click();
  await page.getByRole('button', { name: /^Find a document/ }).click();
  await page.locator('fl-choose-several input').first().fill('Parents');
  await page.locator('fl-choose-several li input').first().check();
  await page.locator('fl-choose-several input').first().fill('Council');
  await page.locator('fl-choose-several li input').first().uncheck();
  await page.keyboard.press('Escape');
  await page.locator('.said').first().waitFor();
  await shoot(page, 'patterns-weave');
  await filum.goTo('Write-up');
  await shoot(page, 'write-up');
}
await browser.close();
server.close();
