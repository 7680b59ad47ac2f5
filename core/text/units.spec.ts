import fc from 'fast-check';
import { plainParagraph } from '../formats/plain-text/read-plain-text';
import { composeText } from './draft-text';
import { labelsOf } from './speakers';
import { grown, sentencesIn, stepEdge, unitAt, unitsOf } from './units';

const LINES = [
  'Mara: What was it like? Tell me.',
  'Shona: They held her. All of it, for him.',
  'And then we left.',
  'A door closes.',
  'Mara: And now?',
];
const { text } = composeText('t', LINES.map(plainParagraph), labelsOf(new Set(['Mara', 'Shona'])));
const words = (place: { start: number; end: number } | null) => (place ? text.text.slice(place.start, place.end) : null);
const at = (wanted: string) => text.text.indexOf(wanted);

describe('units of a text', () => {
  it('are turns, paragraphs and sentences, without labels and the white space between', () => {
    expect(unitsOf(text, 'turn', 'en').map(words)).toEqual([
      'What was it like? Tell me.',
      'They held her. All of it, for him.\nAnd then we left.\nA door closes.',
      'And now?',
    ]);
    expect(unitsOf(text, 'paragraph', 'en').length).toBe(5);
    expect(unitsOf(text, 'sentence', 'en').map(words).slice(0, 4)).toEqual([
      'What was it like?',
      'Tell me.',
      'They held her.',
      'All of it, for him.',
    ]);
  });

  it('hold a position, also one in a label or behind the last word', () => {
    expect(words(unitAt(text, at('held'), 'word', 'en'))).toBe('held');
    expect(words(unitAt(text, at('All of') + 3, 'sentence', 'en'))).toBe('All of it, for him.');
    expect(words(unitAt(text, at('Shona:'), 'sentence', 'en'))).toBe('They held her.');
    expect(words(unitAt(text, at('Mara: And') + 14, 'word', 'en'))).toBe('now');
    expect(words(unitAt(text, at('And then'), 'paragraph', 'en'))).toBe('And then we left.');
  });

  it('grow from nothing to a word, a sentence, a paragraph and a turn, and no further', () => {
    let place: { start: number; end: number } | null = { start: at('held'), end: at('held') };
    const seen: (string | null)[] = [];
    while ((place = grown(text, place, 'en'))) seen.push(words(place));
    expect(seen).toEqual([
      'held',
      'They held her.',
      'They held her. All of it, for him.',
      'They held her. All of it, for him.\nAnd then we left.\nA door closes.',
    ]);
  });

  it('end where the language ends its sentences', () => {
    const chinese = '他们等了他。然后我们走了！';
    expect(sentencesIn(chinese, { body: 0, end: chinese.length }, 'zh').length).toBe(2);
    expect(sentencesIn('One. Two.', { body: 0, end: 9 }, 'no such tag').length).toBe(2);
  });

  it('lead an edge on by words and sentences, over the end of a paragraph', () => {
    const end = at('her.') + 3;
    expect(text.text.slice(0, stepEdge(text, end, 'end', 1, 'word', 'en'))).toMatch(/All$/);
    expect(text.text.slice(0, stepEdge(text, end, 'end', -1, 'word', 'en'))).toMatch(/held$/);
    expect(text.text.slice(stepEdge(text, at('And then'), 'start', -1, 'sentence', 'en'))).toMatch(/^All of it/);
    expect(text.text.slice(stepEdge(text, at('They'), 'start', -1, 'word', 'en'))).toMatch(/^me\./);
    expect(stepEdge(text, text.text.length, 'end', 1, 'word', 'en')).toBe(text.text.length);
  });

  it('of any text lie in order, apart and within it, each with words at both ends', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 30 }), { minLength: 1, maxLength: 6 }), (lines) => {
        const made = composeText(
          't',
          lines.map((line) => plainParagraph(line.replace(/\s/g, ' '))),
          labelsOf(new Set()),
        ).text;
        for (const kind of ['turn', 'paragraph', 'sentence'] as const) {
          let free = 0;
          for (const unit of unitsOf(made, kind, 'en')) {
            expect(unit.start).toBeGreaterThanOrEqual(free);
            expect(unit.end).toBeGreaterThan(unit.start);
            expect(made.text.slice(unit.start, unit.end).trim()).toBe(made.text.slice(unit.start, unit.end));
            free = unit.end;
          }
          expect(free).toBeLessThanOrEqual(made.text.length);
        }
      }),
    );
  });
});
