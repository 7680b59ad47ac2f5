import { plainParagraph } from '../formats/plain-text/read-plain-text';
import { composeText, looksLikeInterviewer } from './draft-text';
import { findSpeakers, labelsOf, readLabel } from './speakers';

const lines = (...texts: string[]) => texts.map(plainParagraph);

describe('finding speakers', () => {
  it('finds the names that label turns, with their number', () => {
    const found = findSpeakers(
      lines('Interviewer: Yes?', 'Mrs. Mairi Gow: I do the dinners.', 'Interviewer: And?', 'Interviewer: Well?', 'Mrs. Mairi Gow: No.'),
    );
    expect(found).toEqual([
      { name: 'Interviewer', turns: 3 },
      { name: 'Mrs. Mairi Gow', turns: 2 },
    ]);
  });

  it('takes bracketed names, not remarks, and labels on a line of their own', () => {
    expect(readLabel(plainParagraph('[Shona] Yes.'))).toEqual({ name: 'Shona', length: 8 });
    expect(readLabel(plainParagraph('P1:'))).toEqual({ name: 'P1', length: 3 });
    expect(findSpeakers(lines('[laughs] Yes.', '[laughs] No.', '[pause] So.'))).toEqual([]);
  });

  it('does not take a single "Note:" in a long text, a time or a web address for a speaker', () => {
    expect(findSpeakers(lines('Note: bring gloves.', 'Dark.', 'Windy.', 'Cold.'))).toEqual([]);
    expect(readLabel(plainParagraph('06:25 at the pier'))).toBeNull();
    expect(readLabel(plainParagraph('https://island.example'))).toBeNull();
  });

  it('works in other scripts', () => {
    expect(findSpeakers(lines('Мария: Да.', 'Иван: Нет.', 'Мария: Ну.')).map((speaker) => speaker.name)).toEqual(['Мария', 'Иван']);
  });

  it('knows common words for the interviewer', () => {
    expect(['I', 'Interviewer', 'Q', 'Moderator'].every(looksLikeInterviewer)).toBeTrue();
    expect(['Iain', 'Shona'].some(looksLikeInterviewer)).toBeFalse();
  });
});

describe('composing a text', () => {
  it('lets a speaker go on in paragraphs without a label, until a heading', () => {
    const paragraphs = [
      ...lines('I: Yes?', 'Shona: One.', 'Two.'),
      { text: 'Part two', style: 'heading2' as const, emphasis: [] },
      ...lines('Nobody here.'),
    ];
    const { text, speakers, words } = composeText('d', paragraphs, labelsOf(new Set(['I', 'Shona'])));
    expect(text.paragraphs.map((paragraph) => paragraph.speaker)).toEqual([0, 1, 1, -1, -1]);
    expect(text.text).toBe('I: Yes?\nShona: One.\nTwo.\nPart two\nNobody here.');
    expect(text.text.slice(text.paragraphs[1]!.body, text.paragraphs[1]!.end)).toBe('One.');
    expect(speakers.map((speaker) => speaker.interviewer)).toEqual([true, false]);
    expect(words).toBe(7);
  });

  it('moves emphasis with its paragraph', () => {
    const paragraphs = [
      ...lines('First.'),
      { text: 'a bold word', style: 'body' as const, emphasis: [{ start: 2, end: 6, emphasis: 'bold' as const }] },
    ];
    const { text } = composeText('d', paragraphs, () => null);
    expect(text.emphasis.map((span) => text.text.slice(span.start, span.end))).toEqual(['bold']);
  });
});
