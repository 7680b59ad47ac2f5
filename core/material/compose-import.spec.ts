import fc from 'fast-check';
import type { DraftParagraph } from '../text/draft-text';
import { applyEdits, checkEdits } from '../text/edit';
import { diffEdits } from '../text/diff-edits';
import { answersOf, composeImport, speakersAsWritten } from './compose-import';

const lines = (...texts: string[]): DraftParagraph[] => texts.map((text) => ({ text, style: 'body', emphasis: [] }));
const TURNS = lines('Mara: Why?', '[door bell]', 'Shona: Because.', 'Shoana: And so.', 'Note: later');

describe('a text on its way in', () => {
  it('has the speakers that were decided: spellings joined, a case connected, others no speakers', () => {
    const speakers = {
      ...speakersAsWritten(['Mara', 'Shona']),
      Mara: { name: 'Mara', interviewer: true, caseId: null },
      Shoana: { name: 'Shona', interviewer: false, caseId: 'c' },
      Shona: { name: 'Shona', interviewer: false, caseId: 'c' },
    };
    const { text, speakers: made } = composeImport('d', TURNS, { speakers, nobody: [1], markers: null });
    expect(made).toEqual([
      { name: 'Mara', interviewer: true, caseId: null },
      { name: 'Shona', interviewer: false, caseId: 'c' },
    ]);
    expect(text.paragraphs.map((one) => one.speaker)).toEqual([0, -1, 1, 1, 1]);
    expect(text.text).toBe(TURNS.map((one) => one.text).join('\n'));
  });

  it('ties answers to the questions of the study', () => {
    const markers = { question: { kind: 'label', name: 'Mara' }, answer: { kind: 'label', name: 'Shona' } } as const;
    const composed = composeImport('d', TURNS, { speakers: speakersAsWritten(['Mara', 'Shona']), nobody: [], markers });
    const [answer] = answersOf(composed, ['q']);
    expect(composed.text.text.slice(answer!.asked!.start, answer!.asked!.end)).toBe('Why?');
    expect(composed.text.text.slice(answer!.start, answer!.end)).toBe('Because.\nShoana: And so.\nNote: later');
    expect(answersOf(composed, [null])).toEqual([]);
  });
});

describe('the difference of two texts', () => {
  it('makes one of the other, with edits that do not overlap', () => {
    const someText = fc
      .array(fc.constantFrom('We waited.', 'The boat came.', 'nor tomorrow', '', 'é😀'), { maxLength: 8 })
      .map((all) => all.join('\n'));
    fc.assert(
      fc.property(someText, someText, (before, after) => {
        const edits = diffEdits(before, after);
        checkEdits(edits, before.length);
        expect(applyEdits(before, edits)).toBe(after);
      }),
    );
  });

  it('leaves alone what both have', () => {
    expect(diffEdits('One.\nTwo here.\nThree.', 'One.\nTwo there.\nThree.')).toEqual([{ from: 9, to: 9, insert: 't' }]);
    expect(diffEdits('Same.', 'Same.')).toEqual([]);
  });
});
