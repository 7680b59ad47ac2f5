import { addAttribute, attributesOf, setValues } from '../commands/attributes';
import { addCase, editSpeaker, ownDocuments, ownStretch } from '../commands/cases';
import { addFolder, moveDocuments, setKindOf } from '../commands/documents';
import { addSet, changeMembers, deleteSet, renameSet } from '../commands/sets';
import type { Id } from '../model/ids';
import type { ConditionPart } from '../model/set';
import { Bench } from '../testing/make';
import { conditionSentence, documentsOfSet, membersOf } from './members';

describe('sets of documents and cases', () => {
  let bench: Bench;
  const ids: Record<string, Id> = {};
  const setId = () => Object.keys(bench.state.tables.set).at(-1)!;
  const members = (...condition: ConditionPart[]) => {
    bench.run(addSet('case', 'Live', [], condition));
    return membersOf(bench.state, bench.state.tables.set[setId()]!).map((id) => bench.state.tables.case[id]!.name);
  };

  beforeEach(() => {
    bench = new Bench();
    for (const name of ['Shona', 'Calum', 'Mhairi']) bench.run(addCase(name, (ids[name] = bench.newId())));
    bench.run(addAttribute('case', 'age', 'number'));
    bench.run(addAttribute('case', 'home', 'choice', ['Gull Bay', 'Saltpans']));
    bench.run(addAttribute('case', 'since', 'date'));
    for (const attribute of attributesOf(bench.state, 'case')) ids[attribute.name] = attribute.id;
    const facts: readonly (readonly [string, string, string])[] = [
      ['Shona', 'age', '44'],
      ['Shona', 'home', 'Gull Bay'],
      ['Shona', 'since', '2016-03-01'],
      ['Calum', 'age', '9'],
      ['Calum', 'home', 'Saltpans'],
    ];
    bench.run(setValues(facts.map(([who, what, raw]) => ({ ownerId: ids[who]!, attributeId: ids[what]!, raw }))));
  });

  it('fill themselves by what is known: numbers and dates by size, words by their letters', () => {
    const about = (name: string) => ({ attributeId: ids[name]! });
    expect(members({ what: about('age'), comparison: 'is over', value: 9 })).toEqual(['Shona']);
    expect(members({ what: about('age'), comparison: 'is under', value: 44 })).toEqual(['Calum']);
    expect(members({ what: about('since'), comparison: 'is under', value: '2020-01-01' })).toEqual(['Shona']);
    expect(members({ what: about('home'), comparison: 'holds', value: 'BAY' })).toEqual(['Shona']);
    expect(members({ what: about('home'), comparison: 'is', value: 'Saltpans' })).toEqual(['Calum']);
  });

  it('count what is not known as not being so, and as nothing else', () => {
    const about = { attributeId: ids['home']! };
    expect(members({ what: about, comparison: 'is not', value: 'Saltpans' })).toEqual(['Shona', 'Mhairi']);
    expect(members({ what: about, comparison: 'is not known', value: '' })).toEqual(['Mhairi']);
    expect(members({ what: about, comparison: 'is known', value: '' })).toEqual(['Shona', 'Calum']);
    expect(members({ what: { attributeId: ids['age']! }, comparison: 'is under', value: 100 })).toEqual(['Shona', 'Calum']);
  });

  it('ask for all parts of a condition, and follow what changes', () => {
    const both: ConditionPart[] = [
      { what: { attributeId: ids['home']! }, comparison: 'is', value: 'Gull Bay' },
      { what: { attributeId: ids['age']! }, comparison: 'is under', value: 40 },
    ];
    expect(members(...both)).toEqual([]);
    bench.run(setValues([{ ownerId: ids['Shona']!, attributeId: ids['age']!, raw: '39' }]));
    expect(membersOf(bench.state, bench.state.tables.set[setId()]!)).toEqual([ids['Shona']!]);
    expect(conditionSentence(bench.state, both)).toBe('home is Gull Bay and age is under 40');
    expect(conditionSentence(bench.state, [{ what: { attributeId: ids['Calum']! }, comparison: 'is known', value: true }])).toBe(
      'a deleted attribute is known',
    );
  });

  it('of documents look at kind and folder', () => {
    const [one, two] = ['One', 'Two'].map((title) => bench.addDocument(title, ['Words.']));
    bench.run(setKindOf([two!.id], 'article'));
    bench.run(addFolder('Winter', null));
    const folder = Object.keys(bench.state.tables.folder)[0]!;
    bench.run(moveDocuments([one!.id], folder));
    const found = (part: ConditionPart) => {
      bench.run(addSet('document', 'Live', [], [part]));
      return membersOf(bench.state, bench.state.tables.set[setId()]!);
    };
    expect(found({ what: 'kind', comparison: 'is', value: 'article' })).toEqual([two!.id]);
    expect(found({ what: 'folder', comparison: 'is', value: folder })).toEqual([one!.id]);
    expect(found({ what: 'folder', comparison: 'is not known', value: '' })).toEqual([two!.id]);
    expect(conditionSentence(bench.state, [{ what: 'folder', comparison: 'is', value: folder }])).toBe('folder is Winter');
  });

  it('of cases stand for all documents in which they own something or speak', () => {
    const [whole, part, spoken, none] = ['Whole', 'Part', 'Spoken', 'None'].map((title) =>
      bench.addDocument(title, ['Shona: Words here.'], ['Shona']),
    );
    bench.run(ownDocuments(ids['Shona']!, [whole!.id], true));
    bench.run(ownStretch(ids['Shona']!, { documentId: part!.id, start: 7, end: 12 }, true));
    bench.run(editSpeaker(spoken!.id, 0, { caseId: ids['Shona']! }));
    bench.run(addSet('case', 'Mine', [ids['Shona']!]));
    const documents = documentsOfSet(bench.state, bench.state.tables.set[setId()]!);
    expect([whole, part, spoken].every((document) => documents.has(document!.id))).toBeTrue();
    expect(documents.has(none!.id)).toBeFalse();
  });

  it('are renamed, filled and emptied by hand; a live one is not', () => {
    bench.run(addSet('case', 'Mine', [ids['Shona']!, ids['Shona']!]));
    const id = setId();
    expect(bench.state.tables.set[id]!.memberIds.length).toBe(1);
    expect(bench.run(changeMembers(id, [ids['Calum']!, ids['Shona']!], true))!.sentence).toBe('put 2 cases into the set Mine');
    expect(bench.run(changeMembers(id, [ids['Calum']!], true))).toBeNull();
    expect(bench.run(changeMembers(id, [ids['Shona']!], false))!.sentence).toBe('took 1 case out of the set Mine');
    expect(bench.run(renameSet(id, '  Ours '))!.sentence).toBe('renamed the set Mine to Ours');
    expect(bench.run(renameSet(id, 'Ours'))).toBeNull();
    expect(() => bench.run(renameSet(id, ' '))).toThrowError(/needs a name/);
    bench.run(addSet('case', 'Live', [], [{ what: { attributeId: ids['age']! }, comparison: 'is known', value: '' }]));
    expect(() => bench.run(changeMembers(setId(), [ids['Shona']!], true))).toThrowError(/fills itself/);
    expect(() => bench.run(addSet('case', 'Live', [], []))).toThrowError(/at least one condition/);
    bench.run(deleteSet(id));
    expect(bench.state.tables.set[id]).toBeUndefined();
  });
});
