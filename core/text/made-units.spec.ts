import { plainParagraph } from '../formats/plain-text/read-plain-text';
import type { Document } from '../model/document';
import { composeText } from './draft-text';
import { exchangesOf } from './exchanges';
import { ideaUnits, joinBefore, splitAt } from './idea-units';
import { labelsOf } from './speakers';

const { text, speakers } = composeText(
  't',
  [
    'Field of the day.',
    'Mara: What was it like?',
    'Mara: Tell me.',
    'Shona: They held her.',
    'And we left.',
    'Mara: And now?',
    'Shona: Nothing.',
  ].map(plainParagraph),
  labelsOf(new Set(['Mara', 'Shona'])),
);
const words = ({ start, end }: { start: number; end: number }) => text.text.slice(start, end);

describe('units that are made', () => {
  it('are divided and joined where the researcher says, and every word stays in one', () => {
    const start = text.text.indexOf('And we left');
    const starts = splitAt(splitAt([0], start), text.text.indexOf('held her'));
    expect(ideaUnits(text, starts).map(words).slice(1)).toEqual(['held her.', text.text.slice(start)]);
    expect(splitAt(starts, start)).toEqual(starts);
    const joined = joinBefore(starts, start);
    expect(ideaUnits(text, joined).length).toBe(2);
    expect(joinBefore([0], 0)).toEqual([0]);
    expect(ideaUnits(text, [0, text.text.length]).map(words)).toEqual([text.text]);
    const question = text.text.indexOf('What was');
    expect(
      ideaUnits(text, [0, question, text.text.indexOf('They held')])
        .map(words)
        .slice(0, 2),
    ).toEqual(['Field of the day.', 'What was it like?\nMara: Tell me.']);
  });

  it('keep a question with its answer, and what comes before the first apart', () => {
    const document = {
      speakers: speakers.map((one) => ({ ...one, interviewer: one.name === 'Mara' })),
      answers: [],
    } as unknown as Document;
    expect(exchangesOf(document, text).map(words)).toEqual([
      'Field of the day.',
      'What was it like?\nMara: Tell me.\nShona: They held her.\nAnd we left.',
      'And now?\nShona: Nothing.',
    ]);
  });

  it('go by questions and answers in structured material, and by paragraphs where nobody asks', () => {
    const plain = composeText(
      't',
      ['What will you lose?', 'The half hour.', 'What will you gain?', 'Time.'].map(plainParagraph),
      () => null,
    ).text;
    const ask = (start: number) => ({ asked: { start, end: start + 10 } });
    const structured = { speakers: [], answers: [ask(0), ask(plain.text.indexOf('What will you gain'))] } as unknown as Document;
    expect(exchangesOf(structured, plain).length).toBe(2);
    expect(exchangesOf({ speakers: [], answers: [] } as unknown as Document, plain).length).toBe(4);
  });
});
