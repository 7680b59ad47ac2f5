import { Bench } from '../testing/make';
import type { Document, Text } from '../model/document';
import { invert } from '../change/change';
import { applyChange } from '../change/apply';
import { checkStudy } from '../integrity/check-study';
import { correctTexts } from './correct-text';
import { deleteDocuments } from './documents';
import { codePlace } from './passages';
import { beginTranscript, moveTimeMark, setTime, wordsAreRight } from './recordings';
import { joinDocuments, splitDocument } from './split-join';

describe('A transcript', () => {
  let bench: Bench;
  let recording: Document;
  const text = (): Text => [...bench.texts.values()].at(-1)!;
  const document = (): Document => bench.state.tables.document[text().id]!;
  const type = (
    edits: readonly { from: number; to: number; insert: string }[],
    times: readonly [number, number][],
    ...names: string[]
  ): void =>
    void bench.do(
      correctTexts([{ text: text(), edits, heard: { times: times.map(([at, value]) => ({ at, value })), speakers: new Set(names) } }]),
    );

  beforeEach(() => {
    bench = new Bench();
    recording = bench.record('Ellen at the pier', 60_000);
    bench.do(beginTranscript(recording.id, 'Ellen, the words', bench.newId()));
  });

  afterEach(() => expect(checkStudy(bench.state, bench.texts)).toEqual([]));

  it('begins empty and belongs to its recording; nothing else has one', () => {
    expect(document()).toEqual(jasmine.objectContaining({ belongsTo: recording.id, characters: 0, title: 'Ellen, the words' }));
    expect(() => bench.do(beginTranscript(document().id, 'Of a text', bench.newId()))).toThrowError(/is no recording and no picture/);
    expect(() => bench.do(beginTranscript(recording.id, '  ', bench.newId()))).toThrowError(/needs a title/);
  });

  it('takes what is typed with its turns and times, and what is typed later moves them along', () => {
    type(
      [{ from: 0, to: 0, insert: 'I: And on a morning?\nEllen: You looked at the hill.' }],
      [
        [3, 800],
        [28, 2_500],
      ],
      'I',
      'Ellen',
    );
    expect(document().speakers.map((one) => one.name)).toEqual(['I', 'Ellen']);
    expect(document().words).toBe(9);
    expect(text().paragraphs.map((one) => [one.speaker, one.body - one.start])).toEqual([
      [0, 3],
      [1, 7],
    ]);
    const code = bench.addCode('Waiting');
    bench.code(document(), 28, 50, code);
    bench.do(correctTexts([{ text: text(), edits: [{ from: 3, to: 6, insert: 'And now, and' }] }]));
    expect(text().marks).toEqual([
      { at: 3, kind: 'time', value: 800 },
      { at: 37, kind: 'time', value: 2_500 },
    ]);
    const { starts, ends } = bench.state.passages[document().id]!;
    expect(text().text.slice(starts[0], ends[0])).toBe('You looked at the hill');
  });

  it('keeps one time a place, and the case of a speaker whose name stays', () => {
    type(
      [{ from: 0, to: 0, insert: 'Ellen: Standing.\n\n' }],
      [
        [7, 1],
        [7, 900],
      ],
      'Ellen',
    );
    expect(text().marks).toEqual([{ at: 7, kind: 'time', value: 900 }]);
    expect(text().text).toBe('Ellen: Standing.');
    const given = document().speakers.map((one) => ({ ...one, interviewer: true }));
    bench.state = applyChange(bench.state, [{ type: 'document', before: document(), after: { ...document(), speakers: given } }]);
    type([{ from: 16, to: 16, insert: '\nI: Where?' }], [[7, 900]], 'Ellen', 'I');
    expect(document().speakers.map((one) => [one.name, one.interviewer])).toEqual([
      ['Ellen', true],
      ['I', true],
    ]);
  });

  it('lets a time be moved between its neighbours only, set and taken off, and all of it undone', () => {
    type(
      [{ from: 0, to: 0, insert: 'One two three four' }],
      [
        [0, 0],
        [4, 1_000],
        [8, 2_000],
      ],
    );
    const before = text();
    const moved = bench.do(moveTimeMark(text(), 4, 1_400.4))!;
    expect(text().marks[1]).toEqual({ at: 4, kind: 'time', value: 1_400 });
    expect(() => bench.do(moveTimeMark(text(), 4, 2_001))).toThrowError(/between/);
    expect(() => bench.do(moveTimeMark(text(), 5, 900))).toThrowError(/no longer there/);
    expect(bench.do(moveTimeMark(text(), 4, 1_400))).toBeNull();
    bench.do(() => ({ change: invert(moved.change), sentence: 'undid' }));
    expect(text()).toEqual(before);
    bench.do(setTime(text(), 14, 3_000));
    bench.do(setTime(text(), 4, null));
    expect(text().marks.map((mark) => [mark.at, mark.value])).toEqual([
      [0, 0],
      [8, 2_000],
      [14, 3_000],
    ]);
    expect(bench.do(setTime(text(), 4, null))).toBeNull();
  });

  it('stays when its recording goes, and belongs to it again when that comes back', () => {
    type([{ from: 0, to: 0, insert: 'I was there.' }], [[0, 10]]);
    bench.do(codePlace({ documentId: recording.id, place: { start: 0, end: 900 }, codeIds: [bench.addCode('Horn')] }));
    const action = bench.do(deleteDocuments([recording.id], []))!;
    expect(document().belongsTo).toBeUndefined();
    bench.do(() => ({ change: invert(action.change), sentence: 'undid' }));
    expect(document().belongsTo).toBe(recording.id);
    expect(bench.state.passages[recording.id]!.starts.length).toBe(1);
  });

  describe('with words a service was not sure of', () => {
    beforeEach(() => {
      type(
        [{ from: 0, to: 0, insert: 'Ellen: There is a nail there.\nI: For the bored?' }],
        [
          [7, 0],
          [33, 5_000],
        ],
        'Ellen',
        'I',
      );
      const unsure = [
        { start: 18, end: 22, confidence: 0.5 },
        { start: 41, end: 46, confidence: 0.3 },
      ];
      const after = { ...text(), unsure };
      bench.do(() => ({ change: [{ type: 'text', before: text(), after }], sentence: 'made' }));
    });
    const words = (): string[] => (text().unsure ?? []).map(({ start, end }) => text().text.slice(start, end));

    it('keeps them on their words, and what is typed over is decided', () => {
      expect(words()).toEqual(['nail', 'bored']);
      bench.do(correctTexts([{ text: text(), edits: [{ from: 7, to: 12, insert: 'I said there' }] }]));
      expect(words()).toEqual(['nail', 'bored']);
      const at = text().text.indexOf('bored');
      bench.do(correctTexts([{ text: text(), edits: [{ from: at, to: at + 5, insert: 'board' }] }]));
      expect(words()).toEqual(['nail']);
    });

    it('lets them be right as they stand, the last leaving no trace', () => {
      for (const one of [...text().unsure!]) bench.do(wordsAreRight(text(), [one]));
      expect('unsure' in text()).toBeFalse();
      expect(bench.do(wordsAreRight(text(), [{ start: 18, end: 22 }]))).toBeNull();
    });

    it('takes them along when it is divided and put together again', () => {
      bench.do(splitDocument(text(), 35, 'Second part'));
      const [first, second] = [...bench.texts.values()].filter((one) => one.unsure);
      expect([first, second].map((one) => one!.text.slice(one!.unsure![0]!.start, one!.unsure![0]!.end))).toEqual(['nail', 'bored']);
      bench.do(joinDocuments(first!, second!));
      const whole = bench.texts.get(first!.id)!;
      expect(whole.unsure!.map(({ start, end }) => whole.text.slice(start, end))).toEqual(['nail', 'bored']);
    });
  });
});
