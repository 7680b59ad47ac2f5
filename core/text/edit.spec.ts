import fc from 'fast-check';
import { someStretch } from '../testing/make';
import { plainParagraph } from '../formats/plain-text/read-plain-text';
import { composeText } from './draft-text';
import { applyEdits, editText, invertEdits, isDeleted, mapPosition, mapStretch, tidyLineEnds, type TextEdit } from './edit';
import { labelsOf } from './speakers';

const LENGTH = 60;

/** Edits that do not overlap, made from cuts. */
const someEdits = fc
  .array(fc.record({ at: fc.nat(LENGTH), gone: fc.nat(8), insert: fc.constantFrom('', '', 'x', 'new words', 'ß\n') }), { maxLength: 6 })
  .map((raw) => {
    const edits: TextEdit[] = [];
    let free = 0;
    for (const { at, gone, insert } of raw.sort((a, b) => a.at - b.at)) {
      const from = Math.max(at, free);
      const to = Math.min(LENGTH, from + gone);
      if (from > LENGTH || (from === to && !insert)) continue;
      edits.push({ from, to, insert });
      free = to + 1;
    }
    return edits;
  });

/**
 * The model: each character of the new text knows whether it belongs to the stretch. Old characters keep what they
 * had; inserted ones belong if the stretch covered all that they replace or lay within it, or if they stand inside it.
 */
function naive(length: number, { start, end }: { start: number; end: number }, edits: readonly TextEdit[]): boolean[] {
  const belongs: boolean[] = [];
  let at = 0;
  for (const { from, to, insert } of edits) {
    for (; at < from; at++) belongs.push(start <= at && at < end);
    const inside =
      to > from
        ? (start <= from && to <= end) || (from <= start && end <= to && (end - start) * 3 >= to - from)
        : start < from && from < end;
    belongs.push(...Array.from({ length: insert.length }, () => inside));
    at = to;
  }
  for (; at < length; at++) belongs.push(start <= at && at < end);
  return belongs;
}

describe('editing a text', () => {
  it('keeps every stretch on its words, whatever is edited', () => {
    fc.assert(
      fc.property(someStretch(LENGTH), someEdits, (stretch, edits) => {
        const belongs = naive(LENGTH, stretch, edits);
        const moved = mapStretch(stretch, edits);
        const expected = belongs.includes(true) ? { start: belongs.indexOf(true), end: belongs.lastIndexOf(true) + 1 } : null;
        expect(moved).toEqual(expected);
      }),
      { numRuns: 3_000 },
    );
  });

  it('goes back by the inverse edits', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: LENGTH, maxLength: LENGTH }), someEdits, (text, edits) => {
        const cut = edits.filter((edit) => edit.to <= text.length);
        expect(applyEdits(applyEdits(text, cut), invertEdits(text, cut))).toBe(text);
      }),
    );
  });

  it('moves positions past what is inserted before them, and lets the side decide at the very place', () => {
    const edits = [{ from: 4, to: 4, insert: 'ab' }];
    expect([3, 4, 5].map((at) => mapPosition(at, edits, -1, 10))).toEqual([3, 4, 7]);
    expect([3, 4, 5].map((at) => mapPosition(at, edits, 1, 10))).toEqual([3, 6, 7]);
  });

  it('goes to either end of what replaces its surroundings, and is then told to be deleted', () => {
    const edits: TextEdit[] = [{ from: 2, to: 6, insert: 'xyz' }];
    expect([1, 2, 4, 6, 7].map((at) => [mapPosition(at, edits, -1, 10), mapPosition(at, edits, 1, 10), isDeleted(at, edits)])).toEqual([
      [1, 1, false],
      [2, 2, false],
      [2, 5, true],
      [5, 5, false],
      [6, 6, false],
    ]);
  });

  it('is refused outside of the text, as a stretch is that is empty or runs backwards', () => {
    for (const at of [-1, 11, 0.5, NaN]) expect(() => mapPosition(at, [], 1, 10)).toThrowError(RangeError);
    for (const [start, end] of [
      [3, 3],
      [4, 3],
      [-1, 3],
    ] as const)
      expect(() => mapStretch({ start, end }, [])).toThrowError(RangeError);
  });

  it('keeps a coded name coded when it is written otherwise, and loses only what is deleted whole', () => {
    const replace = [{ from: 10, to: 15, insert: 'Mo' }];
    expect(mapStretch({ start: 10, end: 15 }, replace)).toEqual({ start: 10, end: 12 });
    expect(mapStretch({ start: 12, end: 14 }, replace)).toEqual({ start: 10, end: 12 });
    expect(mapStretch({ start: 12, end: 30 }, replace)).toEqual({ start: 12, end: 27 });
    expect(mapStretch({ start: 5, end: 12 }, replace)).toEqual({ start: 5, end: 10 });
    expect(mapStretch({ start: 10, end: 15 }, [{ from: 8, to: 20, insert: '' }])).toBeNull();
  });

  const { text } = composeText(
    'd',
    ['Interviewer: And the thumb?', 'Shona: Rang the boat. They held her.', 'And then we waited.'].map(plainParagraph),
    labelsOf(new Set(['Interviewer', 'Shona'])),
  );
  const edited = (from: string, insert: string, words = from) =>
    editText(text, [{ from: text.text.indexOf(from), to: text.text.indexOf(from) + words.length, insert }]);
  const seen = (one: typeof text) => one.paragraphs.map((each) => [each.speaker, one.text.slice(each.body, each.end)]);

  it('leaves speakers with their words', () => {
    expect(seen(edited('boat', 'ferry'))).toEqual([
      [0, 'And the thumb?'],
      [1, 'Rang the ferry. They held her.'],
      [1, 'And then we waited.'],
    ]);
    expect(seen(edited('Rang', 'I rang', 'Rang'))[1]).toEqual([1, 'I rang the boat. They held her.']);
    expect(seen(edited('Shona: ', 'Anna: '))[1]).toEqual([1, 'Rang the boat. They held her.']);
  });

  it('hides no words as a label: a line typed in front of one has its own words, and the label stays with its line', () => {
    const inFront = (insert: string) => editText(text, [{ from: text.text.indexOf('Shona'), to: text.text.indexOf('Shona'), insert }]);
    const after = inFront('Mara: Well.\n');
    expect(seen(after).slice(1)).toEqual([
      [1, 'Mara: Well.'],
      [1, 'Rang the boat. They held her.'],
      [1, 'And then we waited.'],
    ]);
    expect(seen(inFront('Hm. '))[1]).toEqual([1, 'Hm. Shona: Rang the boat. They held her.']);
  });

  it('divides and joins paragraphs with the line ends', () => {
    expect(seen(edited(' They', '\nThey')).slice(1)).toEqual([
      [1, 'Rang the boat.'],
      [1, 'They held her.'],
      [1, 'And then we waited.'],
    ]);
    expect(seen(edited('\nAnd then', ' And then')).slice(1)).toEqual([[1, 'Rang the boat. They held her. And then we waited.']]);
  });

  it('gives every new text paragraphs that lie in it, one a line', () => {
    fc.assert(
      fc.property(someEdits, (edits) => {
        const after = editText(text, edits);
        expect(after.paragraphs.map((one) => after.text.slice(one.start, one.end)).join('\n')).toBe(after.text);
        for (const one of after.paragraphs) expect(one.start <= one.body && one.body <= one.end).toBeTrue();
      }),
    );
  });

  it('takes empty lines out', () => {
    for (const raw of ['a\n\n b', '\n\na', 'a  \nb', 'a\n \n\nb\n', '  ']) {
      const tidied = applyEdits(raw, tidyLineEnds(raw));
      expect(tidied.split('\n').every((line) => (line === '' ? tidied === '' : line.trimEnd() === line)))
        .withContext(JSON.stringify(raw))
        .toBeTrue();
      expect(tidied.replace(/\s/g, '')).toBe(raw.replace(/\s/g, ''));
    }
  });
});
