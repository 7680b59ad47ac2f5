import { addAttribute, setValues } from '../commands/attributes';
import { CaseFinder } from '../passages/case-finder';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { addCase, editSpeaker } from '../commands/cases';
import { answerRows, ANSWER_ORDERS, groupOf, inOrder, type AnswerOrder } from './answer-rows';

describe('an answer as a list', () => {
  const bench = new Bench();
  const [boat, late] = [bench.addCode('Boat'), bench.addCode('Alarm')];
  const document = bench.addDocument('One', ['Bob: The boat came.', 'Ann: It was late, very late.'], ['Ann', 'Bob']);
  bench.code(document, 5, 19, boat);
  bench.code(document, 25, 40, late, boat);
  bench.code(document, 43, 47, late);
  bench.run(addCase('Cat'));
  bench.run(editSpeaker(document.id, 1, { caseId: Object.keys(bench.state.tables.case)[0]! }));
  const hits = Object.values(bench.state.passages)
    .flatMap(unpackPassages)
    .map(({ id, documentId, start, end }) => ({ passageId: id, documentId, start, end }));
  const text = bench.texts.get(document.id)!;

  it('has a row a passage, with what is around it by name', () => {
    const [heads, ...rows] = answerRows(bench.state, hits, new CaseFinder(bench.state.tables.case), () => text);
    expect(heads).toEqual(['document', 'case', 'speaker', 'position', 'text', 'codes', 'coders', 'comment']);
    expect(rows[1]).toEqual(['One', 'Cat', 'Ann', 'turn 2', 'It was late, ve', 'Alarm; Boat', 'Ada', '']);
    expect(rows.length).toBe(3);
  });

  it('comes in each order, and loses nothing by it', () => {
    const order = (of: AnswerOrder) => inOrder(bench.state, hits, of, () => text).map((hit) => hits.indexOf(hit));
    expect(order('as in the documents')).toEqual([0, 1, 2]);
    expect(order('the longest first')).toEqual([1, 0, 2]);
    expect(order('by code')).toEqual([2, 1, 0]);
    expect(order('by speaker')).toEqual([1, 2, 0]);
    expect(order('by when it was coded')).toEqual([0, 1, 2]);
    expect(order('by case')).toEqual([1, 2, 0]);
    for (const one of ANSWER_ORDERS) expect(order(one).toSorted()).toEqual([0, 1, 2]);
  });

  it('stands in order and in groups by an attribute of the case or document', () => {
    bench.run(addAttribute('case', 'age', 'number'));
    bench.run(addAttribute('document', 'month', 'text'));
    const [age, month] = ['age', 'month'].map((name) => Object.values(bench.state.tables.attribute).find((one) => one.name === name)!.id);
    const caseId = Object.keys(bench.state.tables.case)[0]!;
    bench.run(setValues([{ ownerId: caseId, attributeId: age!, raw: '44' }]));
    bench.run(setValues([{ ownerId: document.id, attributeId: month!, raw: 'May' }]));
    const groups = (attributeId: string) =>
      inOrder(bench.state, hits, { attributeId }, () => text).map((hit) => groupOf(bench.state, hit, { attributeId }, () => text));
    expect(groups(age!)).toEqual(['44', '44', 'not known']);
    expect(groups(month!)).toEqual(['May', 'May', 'May']);
  });

  it('stands in groups where its order makes some', () => {
    const groups = (of: AnswerOrder) => inOrder(bench.state, hits, of, () => text).map((hit) => groupOf(bench.state, hit, of, () => text));
    expect(groups('by code')).toEqual(['Alarm', 'Alarm; Boat', 'Boat']);
    expect(groups('by case')).toEqual(['Cat', 'Cat', 'of no case']);
    expect(groups('by speaker')).toEqual(['Ann', 'Ann', 'Bob']);
    expect(groups('as in the documents')).toEqual([null, null, null]);
    expect(groups('the longest first')).toEqual(['up to 100 characters', 'up to 100 characters', 'up to 100 characters']);
    expect(new Set(groups('by when it was coded')).size).toBe(1);
  });
});
