import { sequentialIds } from '../model/ids';
import type { DraftParagraph } from '../text/draft-text';
import { speakersAsWritten } from './compose-import';
import { previewOf } from './preview';
import { changeOfTexts, folderFor } from './store-request';

const PARAGRAPHS: readonly DraftParagraph[] = [
  { text: 'Q: Why?', style: 'body', emphasis: [] },
  {
    text: 'A: The brace.',
    style: 'body',
    emphasis: [{ start: 7, end: 12, emphasis: 'bold' }],
    marks: [{ at: 3, kind: 'time', value: 3_723_000 }],
  },
];
const CHOICES = {
  speakers: speakersAsWritten(['Q', 'A']),
  nobody: [],
  markers: { question: { kind: 'label', name: 'Q' }, answer: { kind: 'label', name: 'A' } },
} as const;

describe('what an import stores', () => {
  it('is the text as the preview showed it, with its questions tied', () => {
    const document = { id: 'd', title: 'Pier', kind: 'interview', date: null, folderId: null, values: {}, source: null } as const;
    const [first, second] = changeOfTexts([{ key: 1, document, choices: CHOICES, questionIds: ['q'] }], () => PARAGRAPHS, 5);
    expect(first!.after).toEqual(
      jasmine.objectContaining({
        words: 3,
        characters: 21,
        answers: [{ questionId: 'q', asked: { start: 3, end: 7 }, start: 11, end: 21 }],
      }),
    );
    expect(second!.after).toEqual(
      jasmine.objectContaining({ text: 'Q: Why?\nA: The brace.', marks: [{ at: 11, kind: 'time', value: 3_723_000 }] }),
    );
    const preview = previewOf(PARAGRAPHS, CHOICES);
    expect(preview.paragraphs.map((one) => [one.speaker, one.part, one.place])).toEqual([
      ['Q', 'question', ''],
      ['A', 'answer', '1:02:03'],
    ]);
    expect(preview.paragraphs[1]!.pieces).toEqual([
      { text: 'The ', look: '' },
      { text: 'brace', look: 'bold' },
      { text: '.', look: '' },
    ]);
    expect([preview.words, preview.questions, preview.unanswered]).toEqual([3, ['Why?'], 0]);
  });

  it('makes folders for subfolders, once each, inside the one that was chosen', () => {
    const newId = sequentialIds(1);
    const known = [{ id: 'top', name: 'Wave 1', parentId: null }];
    const made: { id: string; name: string; parentId: string | null }[] = [];
    const inner = folderFor('Wave 1/Saltpans', null, known, made, newId);
    expect(folderFor('Wave 1/Saltpans', null, known, made, newId)).toBe(inner);
    expect(made).toEqual([{ id: inner!, name: 'Saltpans', parentId: 'top' }]);
    expect(folderFor('', 'top', known, made, newId)).toBe('top');
  });
});
