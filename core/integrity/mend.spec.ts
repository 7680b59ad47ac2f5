import { EMPTY_HISTORY } from '../change/journal';
import { addMemo, linkMemo } from '../commands/memos';
import { addSet } from '../commands/sets';
import type { Id } from '../model/ids';
import type { StudyState, Table } from '../model/study-state';
import { Bench } from '../testing/make';
import { checkStudy } from './check-study';
import { danglingMended } from './mend';

const without = <T>(table: Table<T>, id: Id): Table<T> => Object.fromEntries(Object.entries(table).filter(([key]) => key !== id));

describe('links that an earlier version left behind', () => {
  it('are taken off as an entry of the log, and nothing else changes', () => {
    const bench = new Bench();
    const [kept, lost] = [bench.addDocument('Kept', ['Words.']), bench.addDocument('Lost', ['Words.'])];
    bench.run(addMemo({ title: 'Both', kind: 'analytic', about: { type: 'document', id: lost.id }, text: 'x' }));
    const memoId = Object.keys(bench.state.tables.memo)[0]!;
    bench.run(linkMemo(memoId, { type: 'document', id: kept.id }, true));
    bench.run(addSet('document', 'Some', [kept.id, lost.id]));
    const { tables } = bench.state;
    const rotten: StudyState = { ...bench.state, tables: { ...tables, document: without(tables.document, lost.id) } };
    expect(checkStudy(rotten, null).length).toBe(2);
    const mended = danglingMended(rotten, EMPTY_HISTORY, 5)!;
    expect(checkStudy(mended.state, null)).toEqual([]);
    expect(mended.state.tables.memo[memoId]!.about).toEqual({ type: 'document', id: kept.id });
    expect(Object.values(mended.state.tables.set).map((set) => set.memberIds)).toEqual([[kept.id]]);
    expect([mended.entry.sentence, mended.entry.kind, mended.history]).toEqual([
      'found 2 links to what an earlier version had lost, and took them off',
      'note',
      { seq: 1, undo: [], redo: [] },
    ]);
    expect(danglingMended(bench.state, EMPTY_HISTORY, 5)).toBeNull();
  });

  it('are left for the check to refuse where something cannot be without them', () => {
    const bench = new Bench();
    const { tables } = bench.state;
    expect(danglingMended({ ...bench.state, tables: { ...tables, coder: {} } }, EMPTY_HISTORY, 5)).toBeNull();
  });
});
