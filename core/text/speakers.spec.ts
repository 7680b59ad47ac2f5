import { plainParagraph } from '../formats/plain-text/read-plain-text';
import { composeText, looksLikeInterviewer } from './draft-text';
import { findSpeakers, labelsOf, readLabel, speakersIn } from './speakers';

const lines = (...texts: string[]) => texts.map(plainParagraph);

describe('finding speakers', () => {
  it('finds the names that label turns, with their number', () => {
    const found = findSpeakers(
      lines('Interviewer: Yes?', 'Mrs. Mairi Gow: I do the dinners.', 'Interviewer: And?', 'Interviewer: Well?', 'Mrs. Mairi Gow: No.'),
    );
    expect(found).toEqual([
      { name: 'Interviewer', turns: 3, taken: true },
      { name: 'Mrs. Mairi Gow', turns: 2, taken: true },
    ]);
  });

  it('takes bracketed names, not remarks, and labels on a line of their own', () => {
    expect(readLabel(plainParagraph('[Shona] Yes.'))).toEqual({ name: 'Shona', length: 8 });
    expect(readLabel(plainParagraph('P1:'))).toEqual({ name: 'P1', length: 3 });
    expect(findSpeakers(lines('[laughs] Yes.', '[laughs] No.', '[pause] So.'))).toEqual([]);
  });

  it('does not take a single "Note:" in a long text, a time or a web address for a speaker', () => {
    expect(speakersIn(lines('Note: bring gloves.', 'Dark.', 'Windy.', 'Cold.'))).toEqual([]);
    expect(readLabel(plainParagraph('06:25 at the pier'))).toBeNull();
    expect(readLabel(plainParagraph('https://island.example'))).toBeNull();
  });

  it('works in other scripts', () => {
    expect(speakersIn(lines('Мария: Да.', 'Иван: Нет.', 'Мария: Ну.', 'Иван: Ну вот.'))).toEqual(['Мария', 'Иван']);
  });

  const interview = ['Mara: Where were you?', 'Shona: At the pier.', 'Mara: All night?', 'Shona: All of it.'];

  it('leaves out what labels a single line, unless the text names them elsewhere', () => {
    const head = ['Place: Saltpans', 'Date: 3 May', 'Summary in a frame: She waited.'];
    expect(speakersIn(lines(...head, ...interview))).toEqual(['Mara', 'Shona']);
    expect(
      findSpeakers(lines(...head, ...interview))
        .filter((one) => !one.taken)
        .map((one) => one.name),
    ).toEqual(['Place', 'Date', 'Summary in a frame']);
    expect(speakersIn(lines('Present: Mara, Shona and Iain', ...interview, 'Iain: I was there too.'))).toEqual(['Mara', 'Shona', 'Iain']);
    expect(speakersIn(lines(...interview, 'Iain: Iain, that is me.'))).toContain('Iain');
    expect(speakersIn(lines('Place: Saltpans', 'Date: 3 May', 'Weather: rain'))).toEqual([]);
    expect(speakersIn(lines('I: How often?', 'Shona: Twice a week.'))).toEqual(['I', 'Shona']);
  });

  it('leaves out stage directions and footnotes', () => {
    const remarks = ['[Laughter]', '[Door slams]', '[1] See the timetable.', '[2] As above.', '[1] Again.'];
    expect(speakersIn(lines(...interview, ...remarks, '[Laughter]', '[Door slams]'))).toEqual(['Mara', 'Shona']);
    expect(readLabel(plainParagraph('[1] See the timetable.'))).toBeNull();
  });

  it('takes letters before an answer for a mark, and what is said in the first person for nobody', () => {
    expect(readLabel(plainParagraph('A. I think so.'))).toEqual({ name: 'A', length: 3 });
    expect(readLabel(plainParagraph('B. I think so.'))).toBeNull();
    expect(readLabel(plainParagraph('I SAID no.'))?.name).not.toBe('I');
    expect(readLabel(plainParagraph('J. SMITH Two words.'))?.name).toBe('J. SMITH');
    expect(readLabel(plainParagraph(`${'long'.repeat(40)}: words`))).toBeNull();
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

  it('one who speaks once and is another, misspelt, is a speaker: the words are not those of whoever spoke before', () => {
    const paragraphs = ['Mara: Where?', 'Shona: Here.', 'Mara: When?', 'Shona: Now.', 'Mara: Why?', 'Shnoa: Ask him.', 'Place: Saltpans'];
    expect(speakersIn(lines(...paragraphs))).toEqual(['Mara', 'Shona', 'Shnoa']);
  });

  it('of more than a document can have none is taken', () => {
    const list = Array.from({ length: 10_002 }, (_, at) => [`N${at}: yes`, `N${at}: no`]).flat();
    const found = findSpeakers(lines(...list));
    expect([found.length, found.some((one) => one.taken)]).toEqual([10_002, false]);
  });
});
