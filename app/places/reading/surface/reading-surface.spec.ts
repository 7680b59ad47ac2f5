import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Document } from '@core/model/document';
import type { Passage } from '@core/model/passage';
import { composeText } from '@core/text/draft-text';
import { labelsOf } from '@core/text/speakers';
import { KEY_MAP } from '../../../ui/key-map';
import { openedStudy } from '../../../testing/opened-study';
import { ReadingSurface, SURFACE_KEYS, type SurfaceCommand } from './reading-surface';

const { opened, codes, coderId } = openedStudy(['Help', 'Queue']);
const LINES = ['Interviewer: And the thumb?', 'Shona: Rang the boat. They held her.', 'And then we waited.'];
const { text, speakers } = composeText(
  'd',
  LINES.map((line) => ({ text: line, style: 'body' as const, emphasis: [] })),
  labelsOf(new Set(['Interviewer', 'Shona'])),
);
const DOCUMENT: Document = {
  id: 'd',
  title: 'Interview 03',
  kind: 'interview',
  date: null,
  folderId: null,
  description: '',
  speakers,
  characters: text.text.length,
  words: 12,
  source: null,
  values: {},
  answers: [],
  createdAt: 0,
};

const passage = (id: string, words: string, ...names: string[]): Passage => {
  const start = text.text.indexOf(words);
  return {
    id,
    documentId: 'd',
    start,
    end: start + words.length,
    comment: '',
    coderId,
    createdAt: 0,
    codings: names.map((name) => ({ codeId: codes[name]!, coderId, createdAt: 0 })),
  };
};

describe('the reading surface', () => {
  let fixture: ComponentFixture<ReadingSurface>;
  const host = () => fixture.nativeElement as HTMLElement;

  async function show(passages: readonly Passage[]): Promise<void> {
    fixture.componentRef.setInput('coding', { passages, codes: opened.state.tables.code });
    await fixture.whenStable();
    // slips are laid out in the frame after
    await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 30)));
  }

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(ReadingSurface);
    host().style.height = '500px';
    document.body.append(host());
    fixture.componentRef.setInput('document', DOCUMENT);
    fixture.componentRef.setInput('text', text);
    fixture.componentRef.setInput('memoTitles', new Map([['p1', 'On being held']]));
    fixture.componentRef.setInput('coderName', () => 'Ada');
    await show([]);
  });

  afterEach(() => host().remove());

  it('shows the words, with the names of the speakers beside them and not among them', () => {
    const lines = [...host().querySelectorAll<HTMLElement>('.cm-line')];
    expect(lines.map((line) => line.textContent)).toEqual(['And the thumb?', 'Rang the boat. They held her.', 'And then we waited.']);
    expect(lines.map((line) => line.dataset['speaker'])).toEqual(['I', 'Shona', undefined]);
    expect(lines[0]!.classList).toContain('asks');
  });

  it('says what it is to a screen reader', () => {
    const content = host().querySelector('.cm-content')!;
    expect([content.getAttribute('aria-label'), content.getAttribute('aria-readonly'), content.getAttribute('tabindex')]).toEqual([
      'Text of Interview 03',
      'true',
      '0',
    ]);
  });

  it('draws a thread for each code, and a slip with its comment and memo', async () => {
    await show([{ ...passage('p1', 'They held her.', 'Help', 'Queue'), comment: 'who?' }]);
    const thread = host().querySelector('.thread')!;
    expect(thread.textContent).toBe('They held her.');
    expect(thread.className).toMatch(/\bd2\b.*t0-c\d+ t1-c\d+/);
    expect([...host().querySelectorAll('.slip')].map((slip) => slip.querySelector('.name')?.textContent ?? slip.textContent)).toEqual([
      'Help',
      'Queue',
      'who?',
      'On being held',
    ]);
    await show([]);
    expect(host().querySelectorAll('.thread, .slip').length).toBe(0);
  });

  it('tints the chosen passage and says which one was clicked', async () => {
    await show([passage('p1', 'They held her.', 'Help'), passage('p2', 'we waited', 'Queue')]);
    const chosen: (string | null)[] = [];
    fixture.componentInstance.chosen.subscribe((id) => chosen.push(id));
    host().querySelector<HTMLElement>('.slip-group[data-passage=p2] .slip')!.click();
    expect(chosen).toEqual(['p2']);
    fixture.componentRef.setInput('chosenId', 'p2');
    await fixture.whenStable();
    expect(host().querySelector('.chosen')!.textContent).toBe('we waited');
  });

  it('folds slips that would stand far from their words', async () => {
    await show(Array.from({ length: 9 }, (_, at) => passage(`q${at}`, 'Rang the boat.', 'Help', 'Queue')));
    expect(host().querySelectorAll('.slip-group').length).toBe(9);
    expect(host().querySelectorAll('.slip-group.folded').length).toBeGreaterThan(4);
  });

  it('takes the paragraph where nothing is selected, without the label', () => {
    const place = fixture.componentInstance.selectionOrParagraph(text.text.indexOf('held'))!;
    expect(text.text.slice(place.start, place.end)).toBe('Rang the boat. They held her.');
    expect(fixture.componentInstance.selection()).toBeNull();
  });

  it('asks for what each key stands for, and every key is on the sheet', () => {
    const asked: SurfaceCommand[] = [];
    fixture.componentInstance.asked.subscribe((command) => asked.push(command));
    const onSheet = new Set(KEY_MAP.flatMap((group) => group.entries).map((entry) => entry.keys.join('+')));
    for (const key of Object.keys(SURFACE_KEYS)) {
      host()
        .querySelector('.cm-content')!
        .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      expect(onSheet.has(key.length === 1 ? key.toUpperCase() : key))
        .withContext(key)
        .toBeTrue();
    }
    expect(asked).toEqual(Object.values(SURFACE_KEYS));
  });
});
