import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Document } from '@core/model/document';
import { GlossFinder } from '@core/glosses/find-glosses';
import type { Gloss } from '@core/model/gloss';
import type { Passage } from '@core/model/passage';
import { composeText } from '@core/text/draft-text';
import { labelsOf } from '@core/text/speakers';
import { FIRST_LOOKS } from '../../../state/reader-settings';
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
  ground: { of: 'text' },
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

  /** Slips are laid out in the frame after, and may be measured once more in the next. */
  async function laidOut(): Promise<void> {
    for (let frame = 0; frame < 3; frame++) await new Promise((resolve) => requestAnimationFrame(resolve));
  }

  async function show(passages: readonly Passage[]): Promise<void> {
    fixture.componentRef.setInput('coding', { passages, codes: opened.state.tables.code });
    await fixture.whenStable();
    await laidOut();
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

  it('counts what begins in a crowded paragraph, shows all of it on a click, and folds slips far from their words', async () => {
    await show(Array.from({ length: 9 }, (_, at) => passage(`q${at}`, 'Rang the boat.', 'Help', 'Queue')));
    const groups = () => host().querySelectorAll('.slip-group').length;
    const crowd = () => host().querySelector<HTMLElement>('.crowd')!;
    expect([groups(), crowd().textContent]).toEqual([3, 'and 6 more']);
    crowd().click();
    await laidOut();
    expect([groups(), crowd().textContent]).toEqual([9, 'show fewer']);
    expect(host().querySelectorAll('.slip-group.folded').length).toBeGreaterThan(4);
  });

  it('names only the codes that the margin is to name, and keeps what is not coded yet', async () => {
    fixture.componentRef.setInput('slipsOf', (coding: { codeId: string }) => coding.codeId === codes['Queue']);
    await show([passage('p2', 'Rang', 'Help'), passage('p3', 'They held her.', 'Help', 'Queue'), passage('p4', 'we waited')]);
    expect([...host().querySelectorAll('.slip')].map((slip) => slip.querySelector('.name')?.textContent ?? slip.textContent)).toEqual([
      'Queue',
      'no code yet',
    ]);
    expect(host().querySelectorAll('.thread').length).toBe(2);
  });

  it('folds coded words away, numbers paragraphs and says by its classes what else is on', async () => {
    await show([passage('p2', 'Rang the boat.', 'Help')]);
    fixture.componentRef.setInput('looks', { ...FIRST_LOOKS, coded: 'folded away', numbers: true, dimInterviewer: true, threads: false });
    await fixture.whenStable();
    expect([...host().querySelectorAll('.cm-line')][1]!.textContent).toBe('··· They held her.');
    expect(host().querySelectorAll('.cm-lineNumbers .cm-gutterElement').length).toBeGreaterThan(2);
    expect(host().querySelector('.cm-editor')!.classList).toContain('dim-asks');
    fixture.componentRef.setInput('looks', FIRST_LOOKS);
    await fixture.whenStable();
    expect([...host().querySelectorAll('.cm-line')][1]!.textContent).toBe('Rang the boat. They held her.');
  });

  it('marks defined words, and what was found with ticks beside the text', async () => {
    const gloss: Gloss = { id: 'g', term: 'boat', forms: [], meaning: 'the ferry', coderId, createdAt: 0 };
    fixture.componentRef.setInput('glosses', new GlossFinder([gloss]));
    const at = text.text.indexOf('waited');
    fixture.componentRef.setInput('found', {
      hits: [
        { start: 13, end: 16 },
        { start: at, end: at + 6 },
      ],
      at: 1,
    });
    await fixture.whenStable();
    expect(host().querySelector('.glossed')!.textContent).toBe('boat');
    expect([...host().querySelectorAll('.hit')].map((hit) => hit.classList.contains('hit-here'))).toEqual([false, true]);
    expect(host().querySelectorAll('.hit-ticks i').length).toBe(2);
  });

  it('has grips at the ends of the chosen passage alone', async () => {
    await show([passage('p2', 'Rang the boat.', 'Help'), passage('p3', 'we waited', 'Queue')]);
    expect(host().querySelectorAll('.grip').length).toBe(0);
    fixture.componentRef.setInput('chosenId', 'p3');
    await fixture.whenStable();
    expect(host().querySelectorAll('.grip').length).toBe(2);
    expect(host().querySelectorAll('.cm-line')[2]!.querySelectorAll('.grip').length).toBe(2);
  });

  it('takes the paragraph where nothing is selected, without the label', () => {
    const place = fixture.componentInstance.selectionOrParagraph(text.text.indexOf('held'))!;
    expect(text.text.slice(place.start, place.end)).toBe('Rang the boat. They held her.');
    expect(fixture.componentInstance.selection()).toBeNull();
  });

  it('moves the ends of a passage with Alt and the arrows, and codes by number', () => {
    const asked: SurfaceCommand[] = [];
    fixture.componentInstance.asked.subscribe((command) => asked.push(command));
    const press = (init: KeyboardEventInit) =>
      host()
        .querySelector('.cm-content')!
        .dispatchEvent(new KeyboardEvent('keydown', { bubbles: true, cancelable: true, ...init }));
    press({ key: 'ArrowRight', altKey: true });
    press({ key: 'ArrowUp', altKey: true, shiftKey: true });
    press({ key: '7' });
    press({ key: 'f', ctrlKey: true });
    press({ key: 'c', ctrlKey: true });
    expect(asked).toEqual(['end + word', 'start - sentence', 'number 7', 'search']);
  });

  it('asks for what each key stands for, and every key is on the sheet', async () => {
    // leaving a passage needs one that is chosen
    await show([passage('p2', 'we waited', 'Queue')]);
    fixture.componentRef.setInput('chosenId', 'p2');
    await fixture.whenStable();
    const asked: SurfaceCommand[] = [];
    fixture.componentInstance.asked.subscribe((command) => asked.push(command));
    const onSheet = new Set(KEY_MAP.flatMap((group) => group.entries).map((entry) => entry.keys.join('+')));
    for (const key of Object.keys(SURFACE_KEYS)) {
      host()
        .querySelector('.cm-content')!
        .dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey: /^[A-Z?]$/.test(key), bubbles: true, cancelable: true }));
      expect(onSheet.has(key.length === 1 ? key.toUpperCase() : key.replace('Escape', 'Esc')))
        .withContext(key)
        .toBeTrue();
    }
    expect(asked).toEqual(Object.values(SURFACE_KEYS));
  });
});
