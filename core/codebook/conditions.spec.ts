import { retireCodes } from '../commands/codebook-work';
import { addCodeSet, changeCodeSet, deleteCodeSet, renameCodeSet } from '../commands/code-sets';
import { editCode } from '../commands/codes';
import { addFolder, moveDocuments } from '../commands/documents';
import { addMemo } from '../commands/memos';
import type { CodeCondition } from '../model/code-set';
import type { Id } from '../model/ids';
import { countCodes } from '../passages/counting';
import { Bench } from '../testing/make';
import { codesMeeting, codesOfSet, conditionsSentence, type CodeFacts } from './conditions';

const DAY = 86_400_000;

describe('conditions on codes', () => {
  let bench: Bench;
  const ids: Record<string, Id> = {};
  const facts = (cases: CodeFacts['cases'] = null, now = 10_000): CodeFacts => ({
    state: bench.state,
    counts: countCodes(Object.values(bench.state.passages), bench.state.tables.code),
    cases,
    now,
  });
  const names = (one: CodeCondition, held = facts()) => codesMeeting(held, [one]).map((id) => bench.state.tables.code[id]!.name);
  /** Every code meets either a condition or its opposite. */
  const both = (one: CodeCondition, held = facts()) => {
    const [plain, opposite] = [names(one, held), names({ ...one, opposite: true }, held)];
    expect([...plain, ...opposite].sort()).toEqual(
      Object.values(bench.state.tables.code)
        .map((code) => code.name)
        .sort(),
    );
    return plain;
  };

  beforeEach(() => {
    bench = new Bench();
    ids['Crossing'] = bench.addCode('Crossing');
    ids['Waiting'] = bench.addCode('Waiting', ids['Crossing']);
    ids['Queue'] = bench.addCode('Queue', ids['Waiting']);
    ids['Worry'] = bench.addCode('Worry');
    const [one, two] = ['One', 'Two'].map((title) => bench.addDocument(title, ['We waited at the pier for the boat.']));
    bench.run(addFolder('Winter', null));
    bench.run(addFolder('January', Object.keys(bench.state.tables.folder)[0]!));
    [ids['Winter'], ids['January']] = Object.keys(bench.state.tables.folder) as [Id, Id];
    bench.run(moveDocuments([two!.id], ids['January']));
    bench.code(one!, 0, 9, ids['Waiting']);
    bench.code(one!, 10, 16, ids['Waiting'], ids['Worry']);
    bench.code(two!, 0, 9, ids['Worry']);
  });

  it('about how often a code is used count the code itself, in passages, documents and cases', () => {
    expect(both({ about: 'passages fewer than', number: 1, opposite: false })).toEqual(['Crossing', 'Queue']);
    expect(both({ about: 'documents fewer than', number: 2, opposite: false })).toEqual(['Crossing', 'Waiting', 'Queue']);
    const cases = new Map([[ids['Worry']!, { cases: 2 }]]);
    expect(both({ about: 'cases fewer than', number: 2, opposite: false }, facts(cases))).toEqual(['Crossing', 'Waiting', 'Queue']);
  });

  it('about where a code is used take in the folders of a folder', () => {
    expect(both({ about: 'used in folder', id: ids['Winter']!, opposite: false })).toEqual(['Worry']);
    expect(both({ about: 'used in folder', id: ids['January']!, opposite: false })).toEqual(['Worry']);
  });

  it('about the tree look at any depth', () => {
    expect(both({ about: 'under', id: ids['Crossing']!, opposite: false })).toEqual(['Waiting', 'Queue']);
    expect(both({ about: 'at the top', opposite: false })).toEqual(['Crossing', 'Worry']);
  });

  it('about what is written of a code look for definition and memos', () => {
    bench.run(editCode(ids['Worry']!, { definition: 'Being afraid for somebody.' }));
    bench.run(addMemo({ title: 'Queues', kind: 'analytic', about: { type: 'code', id: ids['Queue']! }, text: '' }));
    expect(both({ about: 'without definition', opposite: false })).toEqual(['Crossing', 'Waiting', 'Queue']);
    expect(both({ about: 'without memo', opposite: false })).toEqual(['Crossing', 'Waiting', 'Worry']);
  });

  it('about time count days back from now, and retired codes are told apart', () => {
    const made = bench.state.tables.code[ids['Worry']!]!.createdAt;
    expect(both({ about: 'made in the last days', number: 1, opposite: false }, facts(null, made + DAY))).toEqual(['Worry']);
    bench.run(retireCodes([ids['Queue']!], true));
    expect(both({ about: 'retired', opposite: false })).toEqual(['Queue']);
  });

  it('are said in a sentence, their opposites in other words', () => {
    const named = { codes: bench.state.tables.code, folders: bench.state.tables.folder };
    const say = (...conditions: CodeCondition[]) => conditionsSentence(conditions, named);
    expect(say({ about: 'passages fewer than', number: 1, opposite: false }, { about: 'without memo', opposite: true })).toBe(
      'used in fewer than 1 passage and with a memo',
    );
    expect(say({ about: 'cases fewer than', number: 2, opposite: true })).toBe('found in 2 cases or more');
    expect(say({ about: 'used in folder', id: ids['Winter']!, opposite: true })).toBe('not used in the folder Winter');
    expect(say({ about: 'under', id: 'gone', opposite: false })).toBe('under a deleted code');
    expect(say({ about: 'made in the last days', number: 7, opposite: true })).toBe('made more than 7 days ago');
    expect(say({ about: 'retired', opposite: true }, { about: 'at the top', opposite: true })).toBe('in use and under another code');
  });

  it('fill a live set; a set filled by hand keeps what is still there', () => {
    bench.run(
      addCodeSet(
        'Rare',
        [],
        [
          { about: 'passages fewer than', number: 2, opposite: false },
          { about: 'at the top', opposite: false },
        ],
      ),
    );
    bench.run(addCodeSet('Mine', [ids['Worry']!, ids['Queue']!, ids['Worry']!]));
    const [rare, mine] = Object.values(bench.state.tables.codeSet);
    expect(codesOfSet(facts(), rare!)).toEqual([ids['Crossing']!]);
    expect(mine!.codeIds.length).toBe(2);
    expect(codesOfSet(facts(), { ...mine!, codeIds: [...mine!.codeIds, 'gone'] })).toEqual([ids['Worry']!, ids['Queue']!]);
  });

  it('sets are renamed, filled, emptied and deleted, and refuse what makes no sense', () => {
    bench.run(addCodeSet('Mine', [ids['Worry']!]));
    const id = Object.keys(bench.state.tables.codeSet)[0]!;
    expect(bench.run(changeCodeSet(id, [ids['Queue']!, ids['Worry']!], true))!.sentence).toBe('put 2 codes into the set Mine');
    expect(bench.run(changeCodeSet(id, [ids['Queue']!], true))).toBeNull();
    bench.run(changeCodeSet(id, [ids['Worry']!], false));
    expect(bench.state.tables.codeSet[id]!.codeIds).toEqual([ids['Queue']!]);
    expect(bench.run(renameCodeSet(id, 'Ours'))!.sentence).toBe('renamed the set of codes Mine to Ours');
    expect(bench.run(renameCodeSet(id, 'Ours'))).toBeNull();
    expect(() => bench.run(renameCodeSet(id, ''))).toThrowError(/needs a name/);
    expect(() => bench.run(addCodeSet('Live', [], []))).toThrowError(/at least one condition/);
    bench.run(addCodeSet('Live', [], [{ about: 'retired', opposite: false }]));
    const live = Object.keys(bench.state.tables.codeSet)[1]!;
    expect(() => bench.run(changeCodeSet(live, [ids['Worry']!], true))).toThrowError(/fills itself/);
    bench.run(deleteCodeSet(id));
    expect(Object.keys(bench.state.tables.codeSet)).toEqual([live]);
  });
});
