import fc from 'fast-check';
import type { PlaceMark, Text } from '../model/document';
import { editText } from './edit';
import { isTimed, positionAt, spanOf, timeAt, wordsSpoken } from './timeline';

const WORDS = 'You looked at the hill. If you could see the sheep you’d go down anyway.';
const textOf = (text: string, ...marks: readonly (readonly [number, number])[]): Text => ({
  id: '00000000-0000-4000-8000-000000000001',
  text,
  paragraphs: [{ start: 0, body: 0, end: text.length, speaker: -1, style: 'body' }],
  emphasis: [],
  marks: marks.map(([at, value]): PlaceMark => ({ at, kind: 'time', value })),
});
const someText = fc
  .array(fc.tuple(fc.nat(WORDS.length), fc.nat(60_000)), { minLength: 1, maxLength: 12 })
  .map((marks) => textOf(WORDS, ...marks.sort((a, b) => a[0] - b[0])));
/** Marks that run forwards, at different places. */
const orderly = fc
  .tuple(fc.uniqueArray(fc.nat(WORDS.length), { minLength: 1, maxLength: 8 }), fc.array(fc.nat(9_000), { minLength: 8, maxLength: 8 }))
  .map(([places, steps]) => {
    let time = 0;
    return textOf(WORDS, ...places.sort((a, b) => a - b).map((at, row) => [at, (time += steps[row]!)] as const));
  });

describe('The time of words', () => {
  it('lies between two marks by the share of the characters between them', () => {
    const text = textOf(WORDS, [0, 1_000], [24, 3_400]);
    expect(timeAt(text, 0)).toBe(1_000);
    expect(timeAt(text, 12)).toBe(2_200);
    expect(timeAt(text, 24)).toBe(3_400);
    // behind the last mark at the pace of what came before: 2,400 ms for 24 characters
    expect(timeAt(text, 34)).toBe(4_400);
    expect(spanOf(text, { start: 4, end: 10 })).toEqual({ start: 1_400, end: 2_000 });
  });

  it('is as it is marked, and never runs backwards', () => {
    fc.assert(
      fc.property(orderly, (text) => {
        for (const { at, value } of text.marks) expect(timeAt(text, at)).toBe(value);
      }),
    );
    fc.assert(
      fc.property(someText, (text) => {
        const times = Array.from({ length: WORDS.length + 1 }, (_, at) => timeAt(text, at));
        expect(times.every((time, at) => time >= 0 && time >= (times[at - 1] ?? 0))).toBeTrue();
      }),
    );
  });

  it('leads to the words and back', () => {
    fc.assert(
      fc.property(someText, fc.nat(90_000), (text, time) => {
        const at = positionAt(text, time);
        if (timeAt(text, 0) <= time) expect(timeAt(text, at)).toBeLessThanOrEqual(time);
        if (at < WORDS.length) expect(timeAt(text, at + 1)).toBeGreaterThan(time);
      }),
    );
    fc.assert(
      fc.property(someText, fc.nat(WORDS.length), (text, position) => {
        const there = positionAt(text, timeAt(text, position));
        expect(there).toBeGreaterThanOrEqual(position);
        expect(timeAt(text, there)).toBe(timeAt(text, position));
      }),
    );
  });

  it('leaves out a mark that runs backwards, and keeps as many others as follow each other', () => {
    const text = textOf(WORDS, [0, 0], [10, 90_000], [24, 4_000], [40, 6_000]);
    expect(timeAt(text, 24)).toBe(4_000);
    expect(timeAt(text, 40)).toBe(6_000);
    expect(timeAt(text, 10)).toBeLessThan(4_000);
  });

  it('goes with the words when they are corrected', () => {
    const text = textOf(WORDS, [0, 1_000], [24, 3_400]);
    const now = editText(text, [{ from: 4, to: 10, insert: 'just looked and looked' }]);
    const if_ = now.text.indexOf('If');
    expect(timeAt(now, if_)).toBe(3_400);
    expect(positionAt(now, 3_400)).toBe(if_);
  });

  it('is not known of a text without times', () => {
    expect(isTimed(textOf(WORDS))).toBeFalse();
    expect(wordsSpoken(textOf(WORDS), { start: 0, end: 9_000 })).toBeNull();
  });
});

describe('The words of a time', () => {
  const text = textOf(WORDS, [0, 0], [WORDS.length, 7_200]);

  it('are whole words, of any span in which something is said', () => {
    const { start, end } = wordsSpoken(text, { start: 500, end: 1_400 })!;
    expect(WORDS.slice(start, end)).toBe('looked at');
    fc.assert(
      fc.property(fc.nat(7_000), fc.integer({ min: 1, max: 4_000 }), (from, length) => {
        const words = wordsSpoken(text, { start: from, end: from + length });
        if (!words) return;
        expect(WORDS.slice(words.start, words.end).trim()).toBe(WORDS.slice(words.start, words.end));
        for (const edge of [words.start, words.end])
          expect(/^$|\s/.test(WORDS.charAt(edge)) || /^$|\s/.test(WORDS.charAt(edge - 1))).toBeTrue();
      }),
    );
  });

  it('are found again by their own time', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Array.from(WORDS.matchAll(/\S+/g), (match) => match.index)), (start) => {
        const end = start + /^\S+/.exec(WORDS.slice(start))![0].length;
        expect(wordsSpoken(text, spanOf(text, { start, end }))).toEqual({ start, end });
      }),
    );
  });
});
