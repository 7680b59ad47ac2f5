import type { Document } from '@core/model/document';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { beginTranscript } from '@core/commands/recordings';
import { correctTexts } from '@core/commands/correct-text';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { SoundWork } from '@core/sound/sound-work';
import { selectData } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { Ways } from '../../../state/ways';
import { SOUND } from '../../../workers/sound-service';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { atHand, recordSound } from '../../../testing/with-sound';
import { until } from '../../../testing/until';
import { Reading } from '../reading';
import { ReadingHere } from '../reading-here';
import { RecordingHere } from './recording-here';

const WORDS = 'Ellen: Well, this.\nI: And now?';

/** Where the reader is sent. */
const sent: string[][] = [];
const PROVIDERS = [
  { provide: SOUND, useValue: () => ({ work: new SoundWork(), halt: () => undefined }) },
  { provide: Ways, useValue: { go: (way: string[]) => void sent.push(way) } },
];

describe('Reading a recording', () => {
  let bench: Bench;
  let recording: Document;
  let transcript: Document;
  let file: Blob;
  let page: Drawn<Reading>;

  const open = async (document: Document): Promise<void> => {
    page = await drawn(Reading, bench, { documentId: document.id }, PROVIDERS, {
      width: 1_200,
      height: 760,
    });
    atHand(recording, file);
    await until(
      () => page.all('fl-sound-line').length > 0,
      () => page.fixture.detectChanges(),
    );
  };
  const state = () => TestBed.inject(Store).selectSignal(selectData)()!;
  const line = (): HTMLElement => page.find('fl-sound-line');
  const here = (): ReadingHere => page.fixture.debugElement.injector.get(ReadingHere);
  const spans = () => {
    const columns = state().passages[recording.id];
    return columns ? unpackPassages(columns).map(({ start, end }) => [start, end]) : [];
  };
  const drag = async (from: number, to: number): Promise<void> => {
    const svg = line().querySelector('svg')!;
    const box = svg.getBoundingClientRect();
    const at = (share: number): PointerEventInit => ({
      clientX: box.left + share * box.width,
      clientY: box.top + 10,
      button: 0,
      bubbles: true,
      pointerId: 1,
    });
    svg.setPointerCapture = () => undefined;
    svg.dispatchEvent(new PointerEvent('pointerdown', at(from)));
    svg.dispatchEvent(new PointerEvent('pointermove', at((from + to) / 2)));
    svg.dispatchEvent(new PointerEvent('pointermove', at(to)));
    svg.dispatchEvent(new PointerEvent('pointerup', at(to)));
    await page.settle();
  };

  beforeEach(async () => {
    localStorage.clear();
    bench = new Bench();
    ({ document: recording, file } = await recordSound(bench, 'Ellen', 5));
    bench.addCode('Queue');
    bench.do(beginTranscript(recording.id, 'Ellen, the words', bench.newId()));
    const text = [...bench.texts.values()][0]!;
    const times = [
      { at: 7, value: 1_000 },
      { at: 18, value: 3_000 },
      { at: 22, value: 6_000 },
    ];
    bench.do(correctTexts([{ text, edits: [{ from: 0, to: 0, insert: WORDS }], heard: { times, speakers: new Set(['Ellen', 'I']) } }]));
    transcript = bench.state.tables.document[text.id]!;
  });

  afterEach(() => {
    page.fixture.destroy();
    TestBed.resetTestingModule();
  });

  it('marks a span by a drag, codes it by a key, and moves its end by keys and by its grip', async () => {
    await open(transcript);
    await drag(0.2, 0.4);
    const { start, end } = here().marked()!;
    expect([Math.round(start / 500), Math.round(end / 500)]).toEqual([4, 8]);
    await page.press(line(), 'x');
    expect(spans()).toEqual([[start, end]]);
    expect(here().marked()).toBeNull();
    await page.press(line(), 'ArrowRight', { altKey: true });
    expect(spans()).toEqual([[start, end + 100]]);
    await page.press(line(), 'ArrowUp', { altKey: true, shiftKey: true });
    expect(spans()).toEqual([[start - 1_000, end + 100]]);
    await drag((end + 100) / 10_000, 0.9);
    expect(Math.abs(spans()[0]![1]! - 9_000)).toBeLessThan(60);
  });

  it('marks a span by keys alone, and Escape lets go of it', async () => {
    await open(recording);
    await page.press(line(), 'ArrowRight');
    await page.press(line(), 'i');
    expect(here().marked()).toBeTruthy();
    await page.press(line(), 'End');
    await page.press(line(), 'o');
    expect(here().marked()?.end).toBe(10_000);
    await page.press(line(), 'Escape');
    expect(here().marked()).toBeNull();
    expect(spans()).toEqual([]);
  });

  it('says by its line where it is and what lies there, and goes by keys', async () => {
    await open(transcript);
    expect(line().getAttribute('role')).toBe('slider');
    expect(line().getAttribute('aria-valuemax')).toBe('10');
    await page.press(line(), 'ArrowRight', { shiftKey: true });
    expect(line().getAttribute('aria-valuetext')).toBe('0:05 of 0:10');
    await page.press(line(), 'Home');
    expect(line().getAttribute('aria-valuenow')).toBe('0');
  });

  it('knows how loud it is, and follows the words that are spoken', async () => {
    await open(transcript);
    const recorded = page.fixture.debugElement.injector.get(RecordingHere);
    await until(() => recorded.loudness() !== null);
    const { values } = recorded.loudness()!;
    expect(values[20]).toBeGreaterThan(150);
    expect(values[150]).toBe(0);
    recorded.player().seek(1_200);
    await page.settle();
    expect(page.texts('.spoken')).toEqual(['Well, this.']);
    recorded.player().seek(6_500);
    await page.settle();
    expect(page.texts('.spoken')).toEqual(['And now?']);
  });

  it('goes to the sound of the words that are clicked, and shows when each turn begins', async () => {
    await open(transcript);
    const recorded = page.fixture.debugElement.injector.get(RecordingHere);
    recorded.goToWords(22);
    expect(recorded.player().time()).toBe(6_000);
    expect(page.all('.cm-line').map((one) => one.dataset['time'])).toEqual(['0:01', '0:06']);
  });

  it('attaches a text that is here, and begins a transcript of its own', async () => {
    const letter = bench.addDocument('Gestures', ['She points at the rail.']);
    await open(recording);
    expect(page.texts('fl-recording-page li a')).toEqual(['Ellen, the words']);
    await page.click(page.button('Attach a text that is here'));
    const select = page.find<HTMLSelectElement>('fl-recording-page select');
    select.value = letter.id;
    page.find('fl-recording-page form').dispatchEvent(new Event('submit', { cancelable: true }));
    await page.settle();
    expect(state().tables.document[letter.id]!.belongsTo).toBe(recording.id);
    page.answers.text = 'A translation';
    await page.click(page.button('Transcribe it'));
    const made = Object.values(state().tables.document).find((one) => one.title === 'A translation')!;
    expect(made.belongsTo).toBe(recording.id);
    expect(sent.at(-1)).toEqual(['reading', made.id]);
  });

  it('says that its file is not here, and goes on with the words', async () => {
    page = await drawn(Reading, bench, { documentId: transcript.id }, PROVIDERS, {
      width: 1_200,
      height: 760,
    });
    await until(
      () => page.all('fl-missing-file').length > 0,
      () => page.fixture.detectChanges(),
    );
    expect(page.find('fl-missing-file').textContent).toContain('The file is not here');
    expect(TestBed.inject(TextCache).peek(transcript.id)!.text).toBe(WORDS);
    expect(page.all('.cm-line').length).toBe(2);
  });
});
