import fc from 'fast-check';
import { plainParagraph } from '../formats/plain-text/read-plain-text';
import type { Passage } from '../model/passage';
import { inReadingOrder } from './columns';
import { somePassages } from '../testing/make';
import { composeText } from '../text/draft-text';
import { labelsOf } from '../text/speakers';
import { stretchFrom, uncodedStretches } from './gaps';

const compose = (lines: string[]) => composeText('t', lines.map(plainParagraph), labelsOf(new Set(['Moira']))).text;
const at = (start: number, end: number) => ({ start, end }) as Passage;

describe('what lies in no passage', () => {
  it('is told paragraph by paragraph, without labels, ends and bare punctuation', () => {
    const text = compose(['Moira: I sold the boat.', 'Then I left.']);
    const start = text.text.indexOf('sold');
    const words = (passages: Passage[]) => uncodedStretches(text, passages).map((gap) => text.text.slice(gap.start, gap.end));
    expect(words([])).toEqual(['I sold the boat.', 'Then I left.']);
    expect(words([at(start, start + 4)])).toEqual(['I', 'the boat.', 'Then I left.']);
    expect(words([at(7, start + 13)])).toEqual(['Then I left.']);
    expect(words([at(0, text.text.length)])).toEqual([]);
  });

  it('is stepped through in both directions', () => {
    const gaps = [at(2, 4), at(8, 9)];
    expect([stretchFrom(gaps, 2, 1)?.start, stretchFrom(gaps, 8, -1)?.start, stretchFrom(gaps, 8, 1)]).toEqual([8, 2, undefined]);
  });

  it('never touches a passage, and leaves no letter out', () => {
    const text = compose(['Moira: One two three four five.', 'Six seven eight nine ten, and more of it.']);
    fc.assert(
      fc.property(somePassages('t', text.text.length), (some) => {
        const passages = some.sort(inReadingOrder);
        const gaps = uncodedStretches(text, passages);
        const inAny = (stretches: readonly { start: number; end: number }[], place: number) =>
          stretches.some((one) => one.start <= place && place < one.end);
        for (const { body, end } of text.paragraphs)
          for (let place = body; place < end; place++)
            if (/\p{L}/u.test(text.text[place]!)) expect(inAny(gaps, place)).toBe(!inAny(passages, place));
      }),
    );
  });
});
