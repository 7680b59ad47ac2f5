import { addAttribute, setValues } from '../commands/attributes';
import { addCase, ownDocuments } from '../commands/cases';
import type { Id } from '../model/ids';
import { Bench } from '../testing/make';
import type { Document } from '../model/document';
import { addSet } from '../commands/sets';
import { groupsBy, MOST_GROUPS } from './groups';

describe('groups set side by side', () => {
  const bench = new Bench();
  bench.do(addAttribute('case', 'home', 'choice', ['Saltpans', 'Gull Bay', 'Loch']));
  const [home] = Object.keys(bench.state.tables.attribute) as [Id];
  const documents = ['One', 'Two', 'Three'].map((title) => bench.addDocument(title, ['We waited all night.']));
  for (const [at, name] of ['Ann', 'Bob', 'Cat'].entries()) {
    bench.do(addCase(name));
    const one = Object.values(bench.state.tables.case).find((some) => some.name === name)!;
    bench.do(ownDocuments(one.id, [documents[at]!.id], true));
    bench.do(setValues([{ ownerId: one.id, attributeId: home, raw: at === 1 ? 'Saltpans' : 'Gull Bay' }]));
  }
  const all = new Set(documents.map((one) => one.id));

  it('are the values there are, in the order of the attribute, with as many cases as are in scope', () => {
    const groups = groupsBy({ attributeId: home }, bench.state, all);
    expect(groups.map(({ name, size }) => [name, size])).toEqual([
      ['Saltpans', { of: 'case', count: 1 }],
      ['Gull Bay', { of: 'case', count: 2 }],
    ]);
    expect(groups[0]!.condition).toEqual({ attributeId: home, comparison: 'is', values: ['Saltpans'] });
    expect(groupsBy({ attributeId: home }, bench.state, new Set([documents[0]!.id])).map((one) => one.size!.count)).toEqual([1]);
  });

  it('are kinds with their thousands of words, or coders; of an attribute that is gone there are none', () => {
    expect(groupsBy({ by: 'kind' }, bench.state, all)).toEqual([
      { name: 'interview', condition: { kinds: ['interview'] }, size: { of: '1,000 words', count: 0.012 } },
    ]);
    expect(groupsBy({ by: 'coder' }, bench.state, all).map(({ name, size }) => [name, size])).toEqual([['Ada', null]]);
    const [first, second] = documents as [Document, Document, Document];
    const ann = Object.keys(bench.state.tables.case)[0]!;
    bench.do(addSet('document', 'Set 10', [first.id, second.id]));
    bench.do(addSet('case', 'Set 9', [ann]));
    expect(groupsBy({ by: 'set' }, bench.state, all).map(({ name, size }) => [name, size])).toEqual([
      ['Set 9', { of: 'case', count: 1 }],
      ['Set 10', { of: '1,000 words', count: 0.008 }],
    ]);
    expect(groupsBy({ attributeId: bench.newId() }, bench.state, all)).toEqual([]);
    expect(MOST_GROUPS).toBe(4);
  });
});
