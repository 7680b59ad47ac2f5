import { StudySchema } from '../model/study';
import { applyChange } from '../change/apply';
import { added, invert } from '../change/change';
import { Bench } from '../testing/make';
import { moveQuestion, questionsOf, removeQuestion } from './questions';
import { editStudy, noteExport, useRatings, workAs } from './study';

describe('what a study says of itself', () => {
  let bench: Bench;
  beforeEach(() => (bench = new Bench()));

  it('is renamed and described; a study without a title or a word for its cases is refused', () => {
    expect(bench.run(editStudy({ title: '  The  last ferry ' }))!.sentence).toBe('renamed the study to The last ferry');
    expect(bench.run(editStudy({ title: 'The last ferry' }))).toBeNull();
    expect(bench.run(editStudy({ caseWord: 'household', description: 'Who crosses.' }))!.sentence).toBe(
      'changed the description of the study',
    );
    expect(StudySchema.parse(bench.state.study).caseWord).toBe('household');
    expect(() => bench.run(editStudy({ title: ' ' }))).toThrowError(/needs a title/);
    expect(() => bench.run(editStudy({ caseWord: '' }))).toThrowError(/needs a title and a word/);
  });

  it('rates codings from one to a number, or stops, and ratings that were given stay', () => {
    for (const wrong of [1, 11, 2.5]) expect(() => bench.run(useRatings(wrong))).toThrowError(/between 2 and 10/);
    bench.run(useRatings(5));
    expect(bench.state.study.ratings).toBe(5);
    expect(bench.run(useRatings(5))).toBeNull();
    const stopped = bench.run(useRatings(null))!;
    expect('ratings' in bench.state.study).toBeFalse();
    expect(applyChange(bench.state, invert(stopped.change)).study.ratings).toBe(5);
  });

  it('is worked on under a name: a new one becomes a coder, a known one is found again', () => {
    expect(bench.run(workAs('Jon'))!.change.length).toBe(2);
    const jon = bench.state.study.currentCoderId;
    expect(bench.state.tables.coder[jon]!.name).toBe('Jon');
    expect(bench.run(workAs(' Jon '))).toBeNull();
    expect(bench.run(workAs('Ada'))!.change.length).toBe(1);
    expect(bench.state.study.currentCoderId).toBe(bench.coderId);
    expect(() => bench.run(workAs(''))).toThrowError(/needs a name/);
  });

  it('notes exports without changing anything', () => {
    const before = bench.state;
    expect(bench.run(noteExport('the codebook'))).toEqual({ change: [], sentence: 'exported the codebook', isNote: true });
    expect(bench.state).toEqual(before);
  });

  it('has its questions in an order of the researcher’s, and removing one leaves the words', () => {
    bench.run((_, context) => ({
      change: ['How often?', 'Since when?', 'With whom?'].map((text, order) => added('question', { id: context.newId(), text, order })),
      sentence: 'asked three questions',
    }));
    const list = () => questionsOf(bench.state).map((one) => one.text);
    const [first] = questionsOf(bench.state);
    expect(bench.run(moveQuestion(first!.id, -1))).toBeNull();
    bench.run(moveQuestion(first!.id, 1));
    expect(list()).toEqual(['Since when?', 'How often?', 'With whom?']);
    expect(bench.run(removeQuestion(first!.id))!.sentence).toBe('removed the question How often? from 0 documents; their words stay');
    expect(list()).toEqual(['Since when?', 'With whom?']);
  });
});
