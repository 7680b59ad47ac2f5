import { expect, type ElementHandle, type Page } from '@playwright/test';

/** Kinds of field in which anything can be written; dates and numbers take only what they are. */
const WRITTEN =
  'input:not([type=checkbox], [type=radio], [type=file], [type=date], [type=number], [type=range]), textarea, [contenteditable=true]:not([aria-readonly=true])';

/** Letters, capitals, digits, signs and accented letters: every key that is a command somewhere is among them. */
const BURSTS = [
  'abcdefghijklmnopqrstuvwxyz ',
  'ABCDEFGHIJKLMNOPQRSTUVWXYZ ',
  "1234567890 -=[];',./",
  '!$%&()*#^ _+{}:"<>?|~',
  'äöüßéñçøåżł Ωя',
];
const KEYS = BURSTS.join('');

/** Types as fast hands do: the next key goes down before the last is up. No key comes twice in a burst, which would make it a held one. */
async function typeFast(page: Page): Promise<void> {
  for (const burst of BURSTS) await Promise.all(Array.from(burst, (key) => page.keyboard.type(key)));
}

/** What a field must leave alone while somebody writes in it. */
async function surroundings(page: Page): Promise<unknown> {
  return page.evaluate(() => ({
    address: location.pathname,
    dialogs: document.querySelectorAll('[role=dialog], mat-dialog-container, .mat-mdc-menu-panel').length,
    desk: document.querySelectorAll('fl-desk').length,
    steps: document.querySelector('[data-through]')?.getAttribute('data-through') ?? null,
    undo: (document.querySelector('[aria-label=Undo]') as HTMLButtonElement | null)?.disabled ?? null,
    notice: document.querySelector('.notice-area')?.textContent?.trim() ?? '',
  }));
}

const valueOf = (field: ElementHandle<HTMLElement>): Promise<string> =>
  field.evaluate((element) =>
    element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement
      ? element.value
      : (element as HTMLElement).innerText.replace(/\n+$/, ''),
  );

/**
 * Finds every field on the screen and writes in it as people do: all keys, an accent being composed, pasted lines, and
 * the keys that undo. Exactly what was written must arrive, and nothing else may happen.
 * @param within looks only there, for what lies over a place
 * @returns names of the fields that were written in
 */
export async function writeEverywhere(page: Page, within = 'body'): Promise<string[]> {
  const written: string[] = [];
  const fields = page.locator(within).locator(WRITTEN);
  await expect(fields.filter({ visible: true }).first(), `there is something to write in at ${page.url()}`).toBeVisible();
  // as they are now: a field must not go, nor another come in its place, because somebody writes in one
  for (const handle of await fields.elementHandles()) {
    const field = handle as ElementHandle<HTMLElement>;
    if (!(await field.isVisible()) || !(await field.isEnabled())) continue;
    const name = await nameOf(field);
    written.push(name);
    await writeIn(page, field, name);
    expect(await field.evaluate((element) => element.isConnected), `“${name}” is still there`).toBe(true);
  }
  return written;
}

const nameOf = (field: ElementHandle<HTMLElement>): Promise<string> =>
  field.evaluate(
    (element) =>
      element.getAttribute('aria-label') ??
      element.closest('label')?.textContent?.replace(/\s+/g, ' ').trim() ??
      element.getAttribute('placeholder') ??
      element.outerHTML.slice(0, 80),
  );

async function writeIn(page: Page, field: ElementHandle<HTMLElement>, name: string): Promise<void> {
  const before = await valueOf(field);
  const most = Number((await field.getAttribute('maxlength')) ?? Infinity);
  const isLine = await field.evaluate((element) => element instanceof HTMLInputElement);
  await field.focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.press('Delete');
  const around = await surroundings(page);
  await typeFast(page);
  expect(await valueOf(field), `what is typed in “${name}” arrives`).toBe(KEYS.slice(0, most));
  expect(await surroundings(page), `typing in “${name}” does nothing else`).toEqual(around);

  // a composed character: the Enter that ends it is no Enter
  await field.evaluate((element) => {
    const init = { key: 'Enter', code: 'Enter', bubbles: true, cancelable: true, isComposing: true, keyCode: 229 };
    element.dispatchEvent(new CompositionEvent('compositionstart', { bubbles: true }));
    element.dispatchEvent(new KeyboardEvent('keydown', init));
    element.dispatchEvent(new CompositionEvent('compositionend', { bubbles: true, data: '' }));
  });
  expect(await surroundings(page), `an Enter that ends a composition in “${name}” does nothing else`).toEqual(around);
  expect(await valueOf(field)).toBe(KEYS.slice(0, most));

  // what undoes in a field undoes in the field alone
  for (const keys of ['ControlOrMeta+z', 'ControlOrMeta+Shift+z', 'ControlOrMeta+y']) await page.keyboard.press(keys);
  expect(await surroundings(page), `undoing in “${name}” is its own`).toEqual(around);

  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.press('Delete');
  await page.evaluate(() => navigator.clipboard.writeText('one m ?\ntwo / three'));
  await page.keyboard.press('ControlOrMeta+v');
  const pasted = await valueOf(field);
  expect(pasted.replace(/\s+/g, ' '), `pasted lines arrive in “${name}”`).toBe(
    (isLine ? pasted.replace(/\s+/g, ' ') : 'one m ? two / three').slice(0, most),
  );
  if (isLine)
    expect('one m ? two / three'.replace(/ /g, '').slice(0, most)).toContain(pasted.replace(/\s/g, '').slice(0, Math.min(most, 5)));
  expect(await surroundings(page), `pasting in “${name}” does nothing else`).toEqual(around);

  // as it was, so that leaving it changes nothing
  if (await field.evaluate((element) => (element as HTMLElement).isContentEditable)) {
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.press('Delete');
    if (before) await page.keyboard.insertText(before);
  } else await field.fill(before);
}
