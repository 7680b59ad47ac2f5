import axe from 'axe-core';
import { expect, type Locator, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

/** What a researcher does in Filum, in words. The tests say what should come of it. */
export class Filum {
  constructor(readonly page: Page) {}

  /** Goes where studies are, if the page is not there. */
  private async start(): Promise<void> {
    if (!this.page.url().endsWith('/')) await this.page.goto('/');
  }

  async openDemo(): Promise<void> {
    await this.start();
    await this.page.getByRole('button', { name: /Open the demo study/ }).click();
    await expect(this.page.getByRole('heading', { name: 'The Last Ferry' })).toBeVisible();
  }

  async newStudy(title = 'Pier talk', coder = 'Ada'): Promise<void> {
    await this.start();
    await this.page.getByRole('button', { name: /New study/ }).click();
    await this.page.getByLabel('Title of the study').fill(title);
    await this.page.getByLabel('Your name').fill(coder);
    await this.page.getByRole('button', { name: 'Make the study' }).click();
    await expect(this.page.getByRole('heading', { name: 'Material' })).toBeVisible();
  }

  async goTo(place: string): Promise<void> {
    const way = this.page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place, exact: true });
    await way.click();
    // until then the place that is left can be pressed on
    await expect(way).toHaveAttribute('aria-current', 'page');
  }

  /** Pastes a text as a document of its own. */
  async paste(title: string, text: string): Promise<void> {
    await this.goTo('Material');
    await this.page.getByRole('link', { name: 'Bring in' }).first().click();
    await this.page.getByRole('button', { name: 'Paste a text' }).click();
    await this.page.getByLabel('Title', { exact: true }).fill(title);
    await this.page.getByLabel('Text', { exact: true }).fill(text);
    await this.page.getByRole('button', { name: 'Show the preview' }).click();
    await this.page.getByRole('button', { name: 'Bring in this document' }).click();
    await expect(this.page.getByRole('link', { name: title })).toBeVisible();
  }

  async read(title: string): Promise<void> {
    await this.goTo('Material');
    await this.page.getByRole('link', { name: title, exact: true }).click();
    await expect(this.text).toBeVisible();
    await expect(this.page.locator('.cm-line').first()).toBeVisible();
  }

  /** The text being read. */
  get text(): Locator {
    return this.page.locator('.cm-content');
  }

  /** Selects words as a reader would with the keyboard: from where they begin, by Shift and arrows. */
  async select(words: string): Promise<void> {
    await this.caretAt(words);
    let left = words.length;
    while (left-- > 0) await this.page.keyboard.press('Shift+ArrowRight');
  }

  /** Puts the caret in front of words that are on the screen, by clicking there. */
  async caretAt(words: string): Promise<void> {
    const place = await this.rectOf(words);
    await this.page.mouse.click(place.x + 0.5, place.y + place.height / 2);
    const before = await this.page.evaluate(() => {
      const selection = getSelection()!;
      return selection.focusNode?.textContent?.slice(selection.focusOffset) ?? '';
    });
    expect(`${before.slice(0, 3)}…`, 'the caret stands in front of the words').toBe(before === '' ? '…' : `${words.slice(0, 3)}…`);
  }

  /** Where words are on the screen, scrolled into view. */
  async rectOf(words: string): Promise<{ x: number; y: number; width: number; height: number }> {
    const line = this.page.locator('.cm-line', { hasText: words }).first();
    await expect(line).toBeVisible();
    // in one step: the surface may draw its lines anew between two, and once more when a line comes into view
    const look = () =>
      line.evaluate((element, wanted) => {
        const box = element.getBoundingClientRect();
        if (box.top < 60 || box.bottom > innerHeight - 60) element.scrollIntoView({ block: 'center' });
        const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
        const start = (element.textContent ?? '').indexOf(wanted);
        const end = start + wanted.length;
        const range = document.createRange();
        let at = 0;
        for (let node = walker.nextNode(); node; node = walker.nextNode()) {
          const length = node.textContent!.length;
          if (at <= start && start < at + length) range.setStart(node, start - at);
          if (at < end && end <= at + length) range.setEnd(node, end - at);
          at += length;
        }
        const rect = range.getClientRects()[0];
        return rect ? { x: rect.x, y: rect.y, width: rect.width, height: rect.height } : null;
      }, words);
    let rect = await look();
    for (let tries = 0; !rect && tries < 20; tries++) {
      await this.page.waitForTimeout(100);
      rect = await look();
    }
    expect(rect, `“${words}” is on the screen`).not.toBeNull();
    return rect!;
  }

  /** Selects words and codes them by the picker, all by keyboard. */
  async code(words: string, ...codes: string[]): Promise<void> {
    await this.select(words);
    await this.page.keyboard.press('c');
    await expect(this.picker).toBeVisible();
    for (const [at, code] of codes.entries()) {
      await this.page.keyboard.type(code);
      await this.page.keyboard.press(at < codes.length - 1 ? 'Shift+Enter' : 'Enter');
    }
    await expect(this.picker).toBeHidden();
  }

  get picker(): Locator {
    return this.page.getByRole('dialog', { name: 'Code the passage' });
  }

  /** Slips in the margin that name a code. */
  slips(name: string): Locator {
    return this.page.locator('.slip').filter({ hasText: name });
  }

  async saved(): Promise<void> {
    await expect(this.page.locator('[data-save]')).toHaveAttribute('data-save', 'saved');
  }

  /** What the foot says of the number of passages. */
  async passages(count: number): Promise<void> {
    await expect(this.page.locator('[data-passages]')).toHaveText(count === 1 ? '1 passage' : `${count} passages`);
  }

  /** @param name what the file is called, where an action or the one before it saves several */
  async download(action: () => Promise<void>, name = /./): Promise<{ name: string; bytes: Buffer; path: string }> {
    const waiting = this.page.waitForEvent('download', (one) => name.test(one.suggestedFilename()));
    await action();
    const download = await waiting;
    const path = await download.path();
    return { name: download.suggestedFilename(), bytes: readFileSync(path), path };
  }

  /** No faults that axe can find against WCAG 2.2 A and AA. @param what only the colours: all else is the same in both themes */
  async accessible(what: 'all' | 'colours' = 'all'): Promise<void> {
    // what is still fading in has not its colours yet
    await this.page.evaluate(() => Promise.all(document.getAnimations().map((one) => one.finished.catch(() => null))));
    // the rules run in the page itself, which has no frames, and what passes is not listed: that takes a fifth of the time
    if (!(await this.page.evaluate(() => 'axe' in globalThis))) await this.page.evaluate(axe.source);
    const { violations } = await this.page.evaluate(
      (runOnly) => (globalThis as unknown as { axe: typeof axe }).axe.run(document, { runOnly, resultTypes: ['violations'] }),
      what === 'colours'
        ? { type: 'rule' as const, values: ['color-contrast'] }
        : { type: 'tag' as const, values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] },
    );
    expect(
      violations.map(
        (violation) =>
          `${violation.id}: ${violation.nodes
            .map((node) => `${node.target.join(' ')} — ${node.failureSummary?.split('\n')[1] ?? ''}`)
            .slice(0, 4)
            .join(' | ')}`,
      ),
    ).toEqual([]);
  }
}
