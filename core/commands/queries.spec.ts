import { invert } from '../change/change';
import { applyChange } from '../change/apply';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { Question } from '../model/query';
import { Bench } from '../testing/make';
import { addAttribute, changeType, joinChoices } from './attributes';
import { deleteQuery, saveQuery, seeAnswer } from './queries';
import { splitDocument } from './split-join';

const QUESTION: Question = { all: [{ memo: true }] };

describe('kept queries', () => {
  let bench: Bench;
  beforeEach(() => (bench = new Bench()));
  const kept = (name: string) => Object.values(bench.state.tables.query).find((query) => query.name === name)!;

  it('have a name, and one is replaced only when that is asked for', () => {
    bench.run(saveQuery('Worries', QUESTION));
    const { id } = kept('Worries');
    expect(bench.run(saveQuery('Worries', QUESTION))).toBeNull();
    const other: Question = { all: [{ memo: false }] };
    expect(() => bench.run(saveQuery('Worries', other))).toThrowError(/asks something else/);
    bench.run(saveQuery(' Worries', other, true));
    expect(Object.keys(bench.state.tables.query)).toEqual([id]);
    expect(kept('Worries').question).toEqual(other);
    expect(() => bench.run(saveQuery(' ', QUESTION))).toThrowError(/needs a name/);
    expect(bench.run(deleteQuery(id))!.sentence).toBe('deleted the query Worries');
    expect(() => bench.run(deleteQuery(id))).toThrowError(/no longer there/);
  });

  it('may be part of others, but never of themselves, through however many', () => {
    bench.run(saveQuery('A', QUESTION));
    bench.run(saveQuery('B', { all: [{ none: [{ queryId: kept('A').id }] }] }));
    bench.run(saveQuery('C', { all: [{ standing: 'near', to: { queryId: kept('B').id } }] }));
    expect(() => bench.run(saveQuery('A', { all: [{ any: [{ queryId: kept('C').id }] }] }, true))).toThrowError(/its own answer/);
    expect(() => bench.run(saveQuery('A', { all: [{ queryId: kept('A').id }] }, true))).toThrowError(/its own answer/);
  });

  it('remember what was seen of their answer, until they ask something else', () => {
    bench.run(saveQuery('Worries', QUESTION));
    const { id } = kept('Worries');
    const seen = { passages: 1, signs: '0000000a' };
    const action = bench.run(seeAnswer(id, seen))!;
    expect(kept('Worries').seen).toEqual(jasmine.objectContaining(seen));
    expect(bench.run(seeAnswer(id, seen))).toBeNull();
    expect(applyChange(bench.state, invert(action.change)).tables.query[id]!.seen).toBeUndefined();
    bench.run(saveQuery('Worries', { all: [{ memo: false }] }, true));
    expect('seen' in kept('Worries')).toBeFalse();
  });

  it('go on asking for what a value has become, and for both parts of a document that was divided', () => {
    const document = bench.addDocument('One', ['First.', 'Second.']);
    bench.do(addAttribute('case', 'home', 'choice', ['Saltpans', 'Salt pans', '12']));
    const [home] = Object.keys(bench.state.tables.attribute) as [Id];
    const fact: PassageCondition = { attributeId: home, comparison: 'is one of', values: ['Saltpans', 'Salt pans'] };
    const liesIn: PassageCondition = { liesIn: { documentIds: [document.id], folderIds: [], setIds: [] } };
    bench.do(saveQuery('Where', { all: [{ standing: 'near', to: { any: [fact, liesIn] } }] }));
    bench.do(joinChoices(home, ['Salt pans'], 'Saltpans'));
    bench.do(splitDocument(bench.texts.get(document.id)!, 8, 'One, second part'));
    const both = Object.keys(bench.state.tables.document);
    expect(kept('Where').question.all).toEqual([
      { standing: 'near', to: { any: [{ ...fact, values: ['Saltpans'] }, { liesIn: { documentIds: both, folderIds: [], setIds: [] } }] } },
    ]);
    bench.do(saveQuery('Twelve', { all: [{ attributeId: home, comparison: 'is', values: ['12'] }] }));
    bench.do(changeType(home, 'number'));
    expect(kept('Twelve').question.all).toEqual([{ attributeId: home, comparison: 'is', values: [12] }]);
  });
});
