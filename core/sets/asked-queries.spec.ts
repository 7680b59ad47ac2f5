import { addCase } from '../commands/cases';
import { deleteQuery, saveQuery } from '../commands/queries';
import { addSet, changeCondition } from '../commands/sets';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { ConditionPart } from '../model/set';
import { answeredNow } from '../testing/answered-now';
import { Bench } from '../testing/make';
import { asksForQuery, queriesOfSets } from './asked-queries';
import { conditionSentence, documentsOfSet, isKnown, membersOf } from './members';

describe('live sets that ask for kept queries', () => {
  let bench: Bench;
  let [sea, pier, ann]: [Id, Id, Id] = ['', '', ''];
  const idOf = (type: 'query' | 'set', name: string): Id =>
    Object.values(bench.state.tables[type]).find((one: { readonly name: string }) => one.name === name)!.id;
  const keep = (name: string, ...all: PassageCondition[]): Id => (bench.run(saveQuery(name, { all }, true)), idOf('query', name));
  const carries = (codeId: Id): PassageCondition => ({
    carries: 'any',
    codes: { codeIds: [codeId], setIds: [], withUnder: false },
    reach: 'passage',
  });
  const finds = (queryId: Id, something = true): ConditionPart => ({ what: { queryId }, comparison: 'is', value: something });
  const inSets = (...setIds: Id[]): PassageCondition => ({ liesIn: { documentIds: [], folderIds: [], setIds } });
  const make = (of: 'case' | 'document', name: string, ...condition: ConditionPart[]): Id => (
    bench.run(addSet(of, name, [], condition)),
    idOf('set', name)
  );
  const read = () => ({ tables: bench.state.tables, answered: answeredNow(bench.state, bench.texts) });
  const titles = (setId: Id): string[] =>
    membersOf(read(), bench.state.tables.set[setId]!).map(
      (id) => bench.state.tables.document[id]?.title ?? bench.state.tables.case[id]!.name,
    );

  beforeEach(() => {
    bench = new Bench();
    const [first, second] = [
      bench.addDocument('First', ['Ann: The sea was high.', 'Bob: And you?'], ['Ann', 'Bob']),
      bench.addDocument('Second', ['We waited.']),
    ];
    [sea, pier, ann] = [bench.addCode('Sea'), bench.addCode('Pier'), bench.newId()];
    bench.run(addCase('Ann', ann));
    bench.run(addCase('Bob'));
    const { document } = bench.state.tables;
    const speakers = first.speakers.map((one) => ({ ...one, caseId: one.name === 'Ann' ? ann : null }));
    bench.state = {
      ...bench.state,
      tables: { ...bench.state.tables, document: { ...document, [first.id]: { ...document[first.id]!, speakers } } },
    };
    bench.code(first, 0, 8, sea);
    bench.code(second, 0, 5, pier);
  });

  it('hold the documents in which, or the cases of whose words, something is found, and follow the query', () => {
    const found = keep('At sea', carries(sea));
    const documents = make('document', 'Of the sea', finds(found));
    const cases = make('case', 'Who speaks of the sea', finds(found));
    const others = make('case', 'Who does not', finds(found, false));
    expect([titles(documents), titles(cases), titles(others)]).toEqual([['First'], ['Ann'], ['Bob']]);
    expect([...documentsOfSet(read(), bench.state.tables.set[cases]!)].map((id) => bench.state.tables.document[id]!.title)).toEqual([
      'First',
    ]);
    bench.run(saveQuery('At sea', { all: [{ any: [carries(sea), carries(pier)] }] }, true));
    expect([titles(documents), titles(cases)]).toEqual([['First', 'Second'], ['Ann']]);
  });

  it('say what they ask for', () => {
    const found = keep('At sea', carries(sea));
    const condition = [{ what: 'kind' as const, comparison: 'is' as const, value: 'interview' }, finds(found), finds(found, false)];
    expect(conditionSentence(read(), condition)).toBe('kind is interview and “At sea” finds something and “At sea” finds nothing');
    expect(conditionSentence(read(), [finds(bench.newId())])).toBe('a deleted query finds something');
  });

  it('hold nothing, and say so, until it is known what the query finds', () => {
    const setId = make('document', 'Of the sea', finds(keep('At sea', carries(sea))));
    const set = bench.state.tables.set[setId]!;
    expect([membersOf(bench.state, set), isKnown(bench.state, set)]).toEqual([[], false]);
    expect(isKnown(read(), set)).toBe(true);
  });

  it('are filled by hand with what is in them when the query goes, and only where that is known', () => {
    const found = keep('At sea', carries(sea));
    const setId = make('document', 'Of the sea', finds(found));
    const { coderId, now, newId } = bench.context();
    const unknowing = { coderId, now, newId, answered: {} };
    bench.context = () => unknowing;
    expect(() => bench.run(deleteQuery(found))).toThrowError(/“Of the sea” is still being worked out/);
    bench.context = Bench.prototype.context.bind(bench);
    bench.run(deleteQuery(found));
    expect(bench.state.tables.set[setId]).toEqual(jasmine.objectContaining({ condition: null, memberIds: [jasmine.any(String)] }));
    expect(titles(setId)).toEqual(['First']);
  });

  it('are answered in the order in which they depend on each other', () => {
    const first = keep('A', carries(sea));
    const inFirst = make('document', 'One', finds(first));
    const second = keep('B', inSets(inFirst));
    const third = keep('C', { queryId: second }, carries(sea));
    const last = make('document', 'Two', finds(third));
    expect(queriesOfSets(bench.state.tables)).toEqual([first, third]);
    expect(titles(last)).toEqual(['First']);
    expect(queriesOfSets({ ...bench.state.tables, set: {} })).toEqual([]);
  });

  it('never come to depend on their own answer, by whatever way', () => {
    const [first, second] = [keep('A', carries(sea)), keep('B', carries(pier))];
    const one = make('document', 'One', finds(first));
    // a query that asks for the set that asks for it
    expect(() => bench.run(saveQuery('A', { all: [inSets(one)] }, true))).toThrowError(/would ask for its own answer/);
    // through another query and another set
    const two = make('document', 'Two', finds(second));
    bench.run(saveQuery('A', { all: [inSets(two)] }, true));
    expect(() => bench.run(saveQuery('B', { all: [{ none: [{ queryId: first }] }] }, true))).toThrowError(/its own answer/);
    expect(() => bench.run(changeCondition(two, [finds(first)], []))).toThrowError(/asks for sets itself/);
    // to be in any set asks for all of them
    const any = keep('In any', { placed: 'in a set' });
    expect(() => bench.run(addSet('document', 'Three', [], [finds(any)]))).toThrowError(/depend on its own answer/);
    expect(asksForQuery(bench.state.tables, [inSets(two)], second)).toBe(true);
    expect(asksForQuery(bench.state.tables, [inSets(one)], any)).toBe(false);
  });
});
