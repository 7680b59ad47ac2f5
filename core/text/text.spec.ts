import { rowsOf } from '../model/area';
import fc from 'fast-check';
import { Bench } from '../testing/make';
import { toGraphemeEdge } from './graphemes';
import { inlineParts } from './inline-emphasis';
import { normaliseText, tidyLine } from './normalise';
import { numberTurns, paragraphAt } from './paragraphs';
import { citation, placeOf } from './citation';
import { tidySelection } from './stretch';
import { countWords, findWords } from './words';

describe('words', () => {
  it('are runs of letters, marks, digits, apostrophes and hyphens', () => {
    expect(countWords("Shona's well-kept 44 boats – “no”, 'tis")).toBe(6);
    expect(countWords("— … - ' !")).toBe(0);
    expect(countWords('Привет мир, שלום עולם')).toBe(4);
    expect(findWords('a  bc').map((word) => word.start)).toEqual([0, 3]);
  });
});

describe('normalising', () => {
  it('leaves one kind of line end, no byte order mark and no control characters', () => {
    expect(normaliseText('\uFEFFa\uFEFF\r\nb\rc\u2028d\u0000e\u0007')).toBe('a\nb\nc\nde');
  });

  it('composes letters with their marks and is done after once', () => {
    expect(normaliseText('e\u0301')).toBe('é');
    fc.assert(fc.property(fc.string({ unit: 'binary' }), (raw) => expect(normaliseText(normaliseText(raw))).toBe(normaliseText(raw))));
  });

  it('makes one line for a name', () => {
    expect(tidyLine('  The\n last \t ferry ')).toBe('The last ferry');
    expect(tidyLine('x'.repeat(600)).length).toBe(500);
  });
});

describe('selections', () => {
  it('never cut a grapheme', () => {
    const family = '👩‍👩‍👧';
    const text = `a${family}b`;
    expect(toGraphemeEdge(text, 3, -1)).toBe(1);
    expect(toGraphemeEdge(text, 3, 1)).toBe(1 + family.length);
    expect(tidySelection(text, 2, 4)).toEqual({ start: 1, end: 1 + family.length });
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), fc.nat(80), (raw, at) => {
        const edges = new Set([raw.length, ...Array.from(new Intl.Segmenter().segment(raw), (part) => part.index)]);
        expect(edges.has(toGraphemeEdge(raw, Math.min(at, raw.length), -1))).toBeTrue();
      }),
    );
  });

  it('leave white space at their ends out, whichever way they were drawn', () => {
    expect(tidySelection('one  two  three', 10, 3)).toEqual({ start: 5, end: 8 });
    expect(tidySelection('one  two', 3, 5)).toBeNull();
  });
});

describe('places in a text', () => {
  const bench = new Bench();
  const lines = ['I: Yes?', 'Shona: We waited.', 'And then it came.', 'I: Right.', 'Shona: That is all.'];
  const document = bench.addDocument('Interview 03', lines, ['I', 'Shona']);
  const text = bench.texts.get(document.id)!;
  const at = (start: number) => ({ start, end: start + 1 });

  it('count consecutive paragraphs of one speaker as one turn', () => {
    expect([...numberTurns(text.paragraphs).turns]).toEqual([1, 2, 2, 3, 4]);
    expect(placeOf(document, text, at(text.text.indexOf('came')))).toEqual({ speaker: 'Shona', position: 'turn 2' });
  });

  it('name the paragraph where nobody speaks', () => {
    const note = bench.addDocument('Field note', ['Dark.', 'Wind westerly.']);
    expect(placeOf(note, bench.texts.get(note.id)!, at(8))).toEqual({ speaker: null, position: 'paragraph 2' });
  });

  it('make a citation of document, speaker and position', () => {
    const start = text.text.indexOf('We waited');
    const end = text.text.indexOf('came.') + 5;
    expect(citation(document, text, { start, end })).toBe('“We waited. And then it came.” (Interview 03, Shona, turn 2)');
    expect(paragraphAt(text.paragraphs, text.text.length)).toBe(4);
  });

  it('cite a recording by its time and a picture by its area, without words', () => {
    const tape = bench.record('Ferry horn', 4_000_000);
    expect(citation(tape, null, { start: 751_000, end: 764_999 })).toBe('(Ferry horn, 12:31–12:44)');
    expect(citation(tape, null, { start: 3_600_000, end: 3_661_000 })).toBe('(Ferry horn, 1:00:00–1:01:01)');
    const plan = bench.draw('Plan of the pier', 640, 480);
    const area = { shape: 'ellipse', x: 120, y: 80, width: 40, height: 30 } as const;
    expect(citation(plan, null, { ...rowsOf(area), area })).toBe('(Plan of the pier, at 120, 80 (40 × 30 pixels))');
  });
});

describe('memo marks', () => {
  it('are read as strong and emphasised, and leave other asterisks alone', () => {
    expect(inlineParts('a **b c** and *d*')).toEqual([
      { text: 'a ', look: 'plain' },
      { text: 'b c', look: 'strong' },
      { text: ' and ', look: 'plain' },
      { text: 'd', look: 'emphasis' },
    ]);
    expect(inlineParts('2 * 3 * 4')).toEqual([{ text: '2 * 3 * 4', look: 'plain' }]);
    expect(inlineParts('**a **b** c\n**d')).toEqual([
      { text: 'a **b', look: 'strong' },
      { text: ' c\n**d', look: 'plain' },
    ]);
  });
});
