import { readFileSync } from 'node:fs';
import { demoSources } from '../testing/demo-sources';
import { buildDemoStudy } from '../sample/demo-study';
import { readFile } from '../formats/read-file';
import { findQuestions, guessMarkers } from './find-questions';
import { likeness, lineUp, SIMILAR } from './line-up';
import type { DraftParagraph } from '../text/draft-text';
import { joinQuestions, questionsOf, removeQuestion, rewordQuestion } from '../commands/questions';
import { carryOut } from '../commands/carry-out';
import { applyChange } from '../change/apply';
import { randomId } from '../model/ids';
import { checkStudy } from '../integrity/check-study';

const pier = (number: number) => readFile(`pier-0${number}.txt`, new Uint8Array(readFileSync(`demo/structured/pier-0${number}.txt`)));
const lines = (...texts: string[]): DraftParagraph[] => texts.map((text) => ({ text, style: 'body', emphasis: [] }));

describe('questions in a text', () => {
  it('are found by their marker, with answers of several paragraphs', async () => {
    const { paragraphs } = await pier(1);
    const [guess] = guessMarkers(paragraphs);
    expect(guess).toEqual(jasmine.objectContaining({ question: { kind: 'label', name: 'Q' }, answer: { kind: 'label', name: 'A' } }));
    const found = findQuestions(paragraphs, guess!);
    expect(found.map((question) => question.text)).toEqual([
      'Why are you crossing today?',
      'What will you gain from the bridge?',
      'What will you lose when the ferry stops?',
      'What should the council do first?',
    ]);
    expect(paragraphs.slice(found[0]!.answer.from, found[0]!.answer.to).length).toBe(2);
  });

  it('are told by numbers, bold type, headings or a speaker’s name', () => {
    const numbered = lines('1. Why?', 'Because.', '2) And then?', 'Nothing.');
    expect(findQuestions(numbered, guessMarkers(numbered)[0]!).map((one) => one.text)).toEqual(['Why?', 'And then?']);
    const bold = ['Why?', 'Because.', 'And then?', 'Nothing.'].map((text, at): DraftParagraph => ({
      text,
      style: 'body',
      emphasis: at % 2 ? [] : [{ start: 0, end: text.length, emphasis: 'bold' }],
    }));
    expect(guessMarkers(bold)[0]!.question).toEqual({ kind: 'bold' });
    const named = lines('Mara: Why?', 'Ellen: The brace.', 'Mara: And then?', 'Ellen: Work.');
    expect(guessMarkers(named)[0]!.question).toEqual({ kind: 'label', name: 'Mara' });
    expect(guessMarkers(lines('Nobody asked.', 'We were told.'))).toEqual([]);
  });

  it('keep a question that nobody answered', () => {
    const found = findQuestions(lines('Q: One?', 'Q: Two?', 'A: Yes.'), {
      question: { kind: 'label', name: 'Q' },
      answer: { kind: 'label', name: 'A' },
    });
    expect(found.map((one) => one.answer.to - one.answer.from)).toEqual([0, 1]);
  });
});

describe('questions of several files', () => {
  it('are lined up: same, similar, missing, in another order', () => {
    const result = lineUp([
      ['Why are you crossing today?', 'What will you gain from the bridge?', 'What should the council do first?'],
      ['What will you gain from the bridge', 'Why do you cross today?', 'Anything else?'],
    ]);
    expect(result.list).toEqual([
      'Why are you crossing today?',
      'What will you gain from the bridge?',
      'What should the council do first?',
      'Anything else?',
    ]);
    expect(result.files[1]!.map((one) => [one.row, one.likeness])).toEqual([
      [1, 'same'],
      [0, 'similar'],
      [3, 'new'],
    ]);
    expect([result.missing, result.reordered]).toEqual([
      [[3], [2]],
      [false, true],
    ]);
  });

  it('never take two questions of one file for the same', () => {
    const { files } = lineUp([['Why?', 'Why?']]);
    expect(files[0]!.map((one) => one.row)).toEqual([0, 1]);
  });

  it('are alike by the words they share', () => {
    expect(likeness('Why now?', 'why, now')).toBe(1);
    expect(likeness('Why?', 'What else?')).toBe(0);
    expect(likeness('', '')).toBe(0);
    // other words around the same matter
    expect(
      likeness(
        'How do you plan your days around the ferry?',
        'Tell me, when there is a ferry in the evening, how your days and what you plan go',
      ),
    ).toBeGreaterThan(SIMILAR);
    expect(likeness('What would have to change?', 'What would you miss about the island?')).toBeLessThan(SIMILAR);
  });
});

describe('questions of a study', () => {
  it('are reworded in every document, joined and removed without touching an answer', () => {
    const bundle = buildDemoStudy(demoSources());
    const context = { coderId: bundle.state.study.currentCoderId, now: 1, newId: randomId };
    let { state } = bundle;
    const texts = new Map(bundle.texts);
    const gain = questionsOf(state).find((one) => one.text.includes('gain'))!;
    const asking = () =>
      Object.values(state.tables.document).filter((document) => document.answers.some((answer) => answer.questionId === gain.id));
    expect(asking().length).toBe(54);
    const answers = () =>
      asking().map((one) =>
        one.answers
          .filter((answer) => answer.questionId === gain.id)
          .map((answer) => texts.get(one.id)!.text.slice(answer.start, answer.end)),
      );
    const before = answers();
    const action = rewordQuestion(
      gain.id,
      'What is there to gain?',
      asking().map((one) => texts.get(one.id)!),
    )(state, context)!;
    state = applyChange(state, action.change);
    for (const change of action.change) if (change.type === 'text') texts.set(change.after!.id, change.after!);
    expect(answers()).toEqual(before);
    expect(checkStudy(state, texts)).toEqual([]);
    expect(asking().every((one) => texts.get(one.id)!.text.includes('What is there to gain?'))).toBeTrue();
    const lose = questionsOf(state).find((one) => one.text.includes('lose'))!;
    state = applyChange(state, carryOut(joinQuestions(gain.id, [lose.id]), state, context)!.change);
    expect(checkStudy(state, texts)).toEqual([]);
    state = applyChange(state, carryOut(removeQuestion(gain.id), state, context)!.change);
    expect(checkStudy(state, texts)).toEqual([]);
    expect(asking()).toEqual([]);
  });

  it('are not begun by a time', () => {
    const texts = lines('1. How often?', '4.30 is when she leaves.', '2) Why?', '5:15 it comes back.', '3.And then?');
    const found = findQuestions(texts, { question: { kind: 'number' }, answer: null });
    expect(found.map((one) => one.text)).toEqual(['How often?', 'Why?', 'And then?']);
  });
});
