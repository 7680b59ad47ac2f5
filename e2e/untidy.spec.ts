import { expect, test, type Page } from '@playwright/test';
import { Filum } from './support/filum';

/** Untidy use: leaving in mid-sentence, two tabs, refused saves, undo under a dialog. Nothing is lost, nothing is mixed up. */

/** Refuses what the page writes to the journal while `window.refuse` is set, as a full disk does. */
const refusable = (page: Page) =>
  page.addInitScript(() => {
    const original = IDBObjectStore.prototype.add;
    IDBObjectStore.prototype.add = function (...args) {
      if ((window as { refuse?: boolean }).refuse && this.name === 'journal') throw new DOMException('No room.', 'QuotaExceededError');
      return original.apply(this, args);
    };
  });
const refuse = (page: Page, on: boolean) => page.evaluate((set) => void ((window as { refuse?: boolean }).refuse = set), on);

const addCode = async (page: Page, name: string): Promise<void> => {
  await page.getByRole('button', { name: 'New code', exact: true }).first().click();
  await page.locator('mat-dialog-container input').fill(name);
  await page.keyboard.press('Enter');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
};

const correct = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: 'Text', exact: true }).first().click();
  await page.getByRole('menuitem', { name: 'Correct the text' }).click();
  await expect(page.getByRole('textbox', { name: /Correcting the text/ })).toBeFocused();
};

test('what could not be saved stays in its study: leaving asks, another study gets none of it', async ({ page }) => {
  const filum = new Filum(page);
  await refusable(page);
  await filum.newStudy('First');
  await filum.newStudy('Second');
  await filum.goTo('Codebook');
  await refuse(page, true);
  await addCode(page, 'Not on disk');
  await expect(page.getByRole('alert')).toContainText('not saved: 1 step');
  await page.getByRole('button', { name: 'Filum: all studies' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('The last step is not on disk');
  await expect(dialog).toContainText('made the code Not on disk');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('treeitem', { name: 'Not on disk' })).toBeVisible();
  // by the browser's own way back as well
  await page.goBack();
  await page.goBack();
  await expect(page.getByRole('dialog')).toContainText('not on disk');
  await page.getByRole('dialog').getByRole('button', { name: 'Leave without them' }).click();
  await page.goto('/');
  await page.getByRole('link', { name: 'First' }).click();
  await filum.goTo('Codebook');
  await addCode(page, 'Of the first');
  await filum.saved();
  await page.reload();
  await expect(page.getByRole('treeitem')).toHaveCount(1);
  await expect(page.getByRole('treeitem', { name: 'Of the first' })).toBeVisible();
});

test('keys belong to the field while one writes, and to the dialog while one is open', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.paste('Interview', 'A: Nobody asked us.\n\nB: They held the boat.\n\nA: So?\n\nB: Well.');
  await filum.read('Interview');
  await filum.code('Nobody asked us', 'Asked');
  await correct(page);
  await page.keyboard.type('mm ? Mm ');
  await expect(page.locator('.cm-line').first()).toContainText('mm ? Mm');
  await expect(page.locator('fl-desk, mat-dialog-container')).toHaveCount(0);
  for (let left = 12; left > 0; left--) await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByText('nothing changed yet')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(filum.slips('Asked')).toBeVisible();
  await page.locator('main').focus();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('m');
  await page.keyboard.press('Escape');
  await expect(filum.slips('Asked')).toBeVisible();
  await expect(page.locator('fl-desk')).toHaveCount(0);
});

test('a correction goes over into a text that changed underneath, or is shown beside it; a following tab has the new words', async ({
  context,
}) => {
  const first = new Filum(await context.newPage());
  await first.newStudy('Two hands');
  const lines = [
    'A: Nobody asked us about the bridge at all.',
    'B: They held the boat that night for an hour.',
    'A: So what did you do then, all of you?',
    'B: Well, we waited at the pier in the rain.',
  ];
  await first.paste('Interview', lines.join('\n\n'));
  await first.read('Interview');
  await first.code('They held the boat', 'Held');
  const second = new Filum(await context.newPage());
  await second.page.goto(first.page.url());
  await expect(second.page.getByText('open for work in another tab')).toBeVisible();
  await second.page.locator('.cm-line').first().waitFor();

  await correct(first.page);
  await first.page.keyboard.press('ControlOrMeta+Home');
  await first.page.keyboard.type('Ada: We begin.\n');
  await first.page.keyboard.press('ControlOrMeta+Enter');
  // new places are never shown in the old words
  await expect(second.page.locator('.cm-line').first()).toHaveText('Ada: We begin.');
  await expect(second.page.locator('.thread').first()).toHaveText('They held the boat');

  // typed at the end here, undone at the beginning meanwhile
  await correct(first.page);
  await first.page.keyboard.press('ControlOrMeta+End');
  await first.page.keyboard.type(' And then?');
  await first.page.getByRole('button', { name: 'Undo' }).click();
  await expect(first.page.locator('.cm-line').first()).toContainText('Nobody asked us');
  await expect(first.page.locator('.cm-line').last()).toContainText('in the rain. And then?');
  await first.page.getByRole('button', { name: 'Keep the corrections' }).click();
  await expect(first.page.locator('.cm-content[aria-readonly=true] .cm-line').last()).toContainText('in the rain. And then?');
  await expect(first.page.locator('.thread').first()).toHaveText('They held the boat');

  // the same words changed in both tabs: what was typed is shown beside the text, and in it is only what the other wrote
  await second.page.getByRole('button', { name: 'Work here instead' }).click();
  await correct(second.page);
  await correct(first.page);
  await first.page.keyboard.press('ControlOrMeta+End');
  await first.page.keyboard.type(' Mine');
  await second.page.bringToFront();
  await second.page.keyboard.press('ControlOrMeta+End');
  await second.page.keyboard.type(' Theirs');
  await second.page.keyboard.press('ControlOrMeta+Enter');
  const aside = first.page.getByRole('region', { name: 'Corrections without a place' });
  await expect(aside).toContainText('“ Mine”');
  await expect(first.page.locator('.cm-line').last()).toContainText('And then? Theirs');
  await expect(first.page.locator('.cm-line').last()).not.toContainText('Mine');
  // a refusal (the other tab has the right to write) leaves all as it was typed
  await first.page.bringToFront();
  await first.page.getByRole('textbox', { name: /Correcting/ }).focus();
  await first.page.keyboard.type('x');
  await first.page.getByRole('button', { name: 'Keep the corrections' }).click();
  await expect(first.page.getByRole('alert').filter({ hasText: 'open for work in another tab' })).toBeVisible();
  await expect(aside).toContainText('“ Mine”');
});

test('drafts lie side by side by what they are about, and come back after a reload', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.goTo('Codebook');
  await addCode(page, 'Worry');
  await addCode(page, 'Grief');
  const write = async (code: string, words: string) => {
    await page.getByRole('treeitem', { name: code }).click();
    await page.getByRole('treeitem', { name: code }).focus();
    await page.keyboard.press('m');
    await page.getByRole('textbox', { name: 'Memo' }).click();
    await page.keyboard.type(words);
  };
  await write('Worry', 'Of worry');
  await write('Grief', 'Of grief');
  await page.getByRole('treeitem', { name: 'Worry' }).click();
  await page.locator('fl-code-page').getByLabel('Definition').fill('What is to come');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Memo' })).toContainText('Of grief');
  await page.getByRole('treeitem', { name: 'Worry' }).click();
  await expect(page.locator('fl-code-page').getByLabel('Definition')).toHaveValue('What is to come');
  await filum.goTo('Memos');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('textbox', { name: 'Memo' })).toHaveText('Of worry');
  await page.getByLabel('Title', { exact: true }).fill('On worry');
  await page.keyboard.press('ControlOrMeta+Enter');
  await expect(page.getByRole('article', { name: 'On worry' })).toContainText('Of worry');
});

test('the @ list finds names with blanks, and Escape closes it alone', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await page.keyboard.press('m');
  await page.getByRole('textbox', { name: 'Memo' }).click();
  await page.keyboard.type('See @Interview 12');
  await expect(page.getByRole('option', { name: /Interview 12/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option')).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: 'Memo' })).toContainText('See @Interview 12');
  await page.keyboard.type(' @Interview 1');
  await page
    .getByRole('option', { name: /Interview 1/ })
    .first()
    .waitFor();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Memo' }).locator('a')).toHaveCount(1);
});

test('the same number stands everywhere, also for one coder', async ({ page }) => {
  // so tall that every document is drawn
  await page.setViewportSize({ width: 1280, height: 3_600 });
  const filum = new Filum(page);
  await filum.openDemo();
  const figure = async (): Promise<number> => {
    await filum.goTo('Overview');
    const text = await page.locator('.figures div', { hasText: 'passages' }).locator('dd').textContent();
    return Number(text!.replace(/\D/g, ''));
  };
  /** Expects the numbers in the table to come to a sum. */
  const expectColumn = async (total: number): Promise<void> => {
    await filum.goTo('Material');
    await expect(page.getByRole('columnheader', { name: 'Passages' })).toBeVisible();
    const at = await page
      .getByRole('columnheader')
      .evaluateAll((heads) => heads.findIndex((head) => head.textContent?.includes('Passages')));
    await page.getByRole('columnheader', { name: 'Passages' }).getByRole('button').click();
    await page.getByRole('columnheader', { name: 'Passages' }).getByRole('button').click();
    const cells = page.locator(`fl-document-table [role=rowgroup] [role=row] > :nth-child(${at + 1})`);
    const sum = async () => (await cells.allTextContents()).reduce((all, cell) => all + (Number(cell.replace(/\D/g, '')) || 0), 0);
    await expect.poll(sum).toBe(total);
  };
  await expectColumn(await figure());
  for (const coder of ['Jon', 'Mara']) {
    await page
      .locator('fl-scope-line')
      .getByRole('button', { name: /^(all coders|coded by)/ })
      .click();
    await page.getByRole('menuitem', { name: coder }).click();
    const passages = await figure();
    expect(passages).toBeLessThan(1_173);
    await expectColumn(passages);
    await filum.goTo('Write-up');
    const { bytes } = await filum.download(() => page.getByRole('button', { name: /Export the codings/ }).click());
    const rows = bytes.toString('utf8').trim().split('\r\n');
    expect(rows.slice(1).every((row) => row.includes(coder))).toBe(true);
  }
});

test('with the pointer and the keyboard in the text: no grip in the way, no hidden label, no end in a fold, selected words in tables', async ({
  page,
}) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.paste('Interview', 'A: Nobody asked us about the bridge.\n\nB: They held the boat that night.\n\nA: So?\n\nB: Well.');
  await filum.read('Interview');
  await filum.code('held the boat that night', 'Held');
  // dragging inside what was just coded selects, beginning at its very edge
  const [from, to] = [await filum.rectOf('held'), await filum.rectOf('boat')];
  await page.mouse.move(from.x + 1, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 2, to.y + to.height / 2, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.press('c');
  await page.keyboard.type('Inner');
  await page.keyboard.press('Enter');
  await filum.passages(2);
  await expect(page.locator('blockquote')).toHaveText('held the');
  // three clicks take the line without the speaker's label, also where a bubble about the words below lies over it
  await page.mouse.move(from.x + 4, from.y + from.height / 2);
  await expect(page.locator('.coding-hover')).toBeVisible();
  const line = (await page.locator('.cm-line').first().boundingBox())!;
  await page.mouse.click(line.x + 120, line.y + 12, { clickCount: 3 });
  await page.keyboard.press('c');
  await page.keyboard.type('Whole');
  await page.keyboard.press('Enter');
  await expect(page.locator('blockquote')).toHaveText('Nobody asked us about the bridge.');
  // Caps Lock: the key without Shift gives a capital letter
  await filum.text.evaluate((text) => text.dispatchEvent(new KeyboardEvent('keydown', { key: 'C', bubbles: true, cancelable: true })));
  await expect(filum.picker).toBeVisible();
  await page.keyboard.press('Escape');
  // line by line
  await page.goto(`${page.url().split('?')[0]}?as=lines`);
  const words = page.locator('[data-unit]').filter({ hasText: 'Nobody' });
  await words.click();
  await page.keyboard.press('Home');
  for (let left = 6; left > 0; left--) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Someone');
  await page.keyboard.press('Enter');
  await filum.passages(4);
  await filum.saved();
  await page.goto(page.url().split('?')[0]!);
  await expect(page.locator('.thread', { hasText: /^Nobody$/ })).toBeVisible();
});
