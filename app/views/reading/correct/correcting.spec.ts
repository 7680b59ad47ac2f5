import type { Document } from '@core/model/document';
import { Bench } from '@core/testing/make';
import { TestBed } from '@angular/core/testing';
import { correctionDrafts } from '../../../state/correction-drafts';
import { TextCache } from '../../../state/text-cache';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { until } from '../../../testing/until';
import { Reading } from '../reading';
import { Correcting } from './correcting';

describe('correcting a text', () => {
  let bench: Bench;
  let document: Document;
  let other: Document;
  let page: Drawn<Reading>;
  const correcting = () => page.fixture.debugElement.injector.get(Correcting);
  const begin = async () => {
    correcting().from.set(0);
    await until(
      () => page.all('fl-correct-surface .cm-content').length > 0,
      () => page.fixture.detectChanges(),
    );
  };
  /** Types as a hand would, at the caret: before the first word. */
  const typeWords = async (words: string) => {
    const content = page.find('fl-correct-surface .cm-content');
    content.focus();
    window.document.execCommand('insertText', false, words);
    await page.settle();
  };
  const stored = () => TestBed.inject(TextCache).peek(document.id)!.text;

  beforeEach(async () => {
    bench = new Bench();
    const worry = bench.addCode('Worry');
    document = bench.addDocument('Interview 03', ['They held the boat.', 'Nobody asked us.']);
    other = bench.addDocument('Interview 04', ['It was dark.']);
    bench.code(document, 0, 4, worry);
    page = await drawn(Reading, bench, { documentId: document.id }, [], { width: 1_100, height: 700 });
  });
  afterEach(() => {
    page.fixture.destroy();
    correctionDrafts.drop(bench.state.study.id, document.id);
  });

  it('keeps what was typed as one step, and passages go with their words', async () => {
    await begin();
    await typeWords('Then ');
    await page.click(page.button('Keep the corrections'));
    expect(stored()).toBe('Then They held the boat.\nNobody asked us.');
    expect(page.session.sentences.length).toBe(1);
    expect(page.all('fl-correct-surface').length).toBe(0);
    expect(correcting().isBegun()).toBeFalse();
  });

  it('is a draft until it is kept: left in mid-sentence it can be gone on with, or dropped', async () => {
    await begin();
    await typeWords('Then ');
    page.fixture.componentRef.setInput('documentId', other.id);
    await page.settle();
    page.fixture.componentRef.setInput('documentId', document.id);
    await page.settle();
    expect(stored()).toBe('They held the boat.\nNobody asked us.');
    expect(page.find('.begun').textContent).toContain('Corrections were begun here and not kept');
    await page.click(page.button('Go on'));
    await until(
      () => page.all('fl-correct-surface .cm-line').length > 0,
      () => page.fixture.detectChanges(),
    );
    expect(page.texts('fl-correct-surface .cm-line')[0]).toBe('Then They held the boat.');
    await page.press('fl-correct-surface .cm-content', 'Escape');
    expect(page.answers.asked).toEqual(['Drop the corrections?']);
    expect(page.all('fl-correct-surface').length).toBe(0);
    expect(page.session.done).toEqual([]);
  });

  it('asks before a passage loses all its words, and does nothing where the answer is no', async () => {
    await begin();
    page.find('fl-correct-surface .cm-content').focus();
    for (let letter = 0; letter < 4; letter++) await page.press('fl-correct-surface .cm-content', 'Delete');
    page.answers.yes = false;
    await page.click(page.button('Keep the corrections'));
    expect(page.answers.asked).toEqual(['A passage loses all its words']);
    expect(page.session.done).toEqual([]);
    page.answers.yes = true;
    await page.click(page.button('Keep the corrections'));
    expect(stored().startsWith(' held the boat.')).toBeTrue();
  });
});
