import { addCodeSet } from '../commands/code-sets';
import type { Id } from '../model/ids';
import { EVERYTHING } from '../model/scope';
import { Bench } from '../testing/make';
import { analysisOf, type Analysis } from './analysis';
import type { CountedTable } from '../patterns/table-measure';

describe('patterns asked of the analysis', () => {
  let bench: Bench;
  let analysis: Analysis;
  let before: Bench['state'] | null;
  let asked: number;
  const quiet = (): undefined => undefined;

  /** Tells what changed, as the interface does: tables that are the same are not told. */
  const tell = (): void => {
    const { state } = bench;
    const [old, now] = [before?.tables as Record<string, unknown> | undefined, state.tables as unknown as Record<string, unknown>];
    analysis.update({
      ...{ studyId: state.study.id, anew: before === null, language: 'en', texts: [], gone: [] },
      changed: Object.values(state.passages).filter((one) => before?.passages[one.documentId] !== one),
      tables: Object.fromEntries(Object.entries(now).filter(([type, table]) => old?.[type] !== table)),
    });
    before = state;
  };
  const order = (): Id[] => Object.keys(bench.state.tables.document);
  const table = async (asking: Partial<CountedTable> = {}) => {
    tell();
    const counted = await analysis.crossTable(
      ++asked,
      quiet,
      {
        rows: { of: 'codes', codeIds: null, withUnder: false },
        columns: { by: 'document' },
        counting: 'passages',
        coders: 'together',
        ...asking,
      },
      EVERYTHING,
      order(),
    );
    const width = counted!.columns.length + 1;
    return counted!.rows.map((row, at) => [row.path[0], ...counted!.counts.slice(at * width, (at + 1) * width)]);
  };

  beforeEach(() => {
    bench = new Bench();
    before = null;
    asked = 0;
    analysis = analysisOf((_, ids) => Promise.resolve(ids.map((id) => bench.texts.get(id)!)));
  });

  it('follow what is coded, document by document', async () => {
    const [one, two] = ['One', 'Two'].map((title) => bench.addDocument(title, ['We waited for the last boat.']));
    const waiting = bench.addCode('Waiting');
    bench.code(one!, 0, 9, waiting);
    expect(await table()).toEqual([['Waiting', 1, 0, 1]]);
    bench.code(two!, 0, 9, waiting);
    bench.code(two!, 10, 14, waiting);
    expect(await table()).toEqual([['Waiting', 1, 2, 3]]);
  });

  it('are worked out beside each other: a second one of a kind does not end the first', async () => {
    const document = bench.addDocument('One', ['We waited for the last boat.']);
    const waiting = bench.addCode('Waiting');
    bench.code(document, 0, 9, waiting);
    bench.code(document, 3, 14, waiting);
    expect(await Promise.all([table(), table({ counting: 'documents' }), table({ counting: 'codings' })])).toEqual([
      [['Waiting', 2, 2]],
      [['Waiting', 1, 1]],
      [['Waiting', 2, 2]],
    ]);
  });

  it('follow a live set of codes, whose codes change with what is coded', async () => {
    const document = bench.addDocument('One', ['We waited for the last boat.']);
    const [rare, often] = [bench.addCode('Rare'), bench.addCode('Often')];
    bench.run(addCodeSet('Seldom', [], [{ about: 'passages fewer than', number: 2, opposite: false }]));
    bench.code(document, 0, 9, rare);
    bench.code(document, 3, 12, often);
    const seldom = { rows: { of: 'code sets', setIds: null } } as const;
    expect(await table(seldom)).toEqual([['Seldom', 2, 2]]);
    bench.code(document, 14, 20, often);
    expect(await table(seldom)).toEqual([['Seldom', 1, 1]]);
  });

  it('give what stands behind a cell, and nothing behind one that is gone', async () => {
    const document = bench.addDocument('One', ['We waited for the last boat.']);
    const waiting = bench.addCode('Waiting');
    bench.code(document, 0, 9, waiting);
    tell();
    const asking: CountedTable = {
      ...{ rows: { of: 'codes', codeIds: null, withUnder: false }, columns: { by: 'document' }, counting: 'passages', coders: 'together' },
    };
    const cell = (row: string, column: string | null) => analysis.cell(++asked, asking, EVERYTHING, order(), { row, column });
    expect((await cell(waiting, document.id))!.hits.map(({ start, end }) => [start, end])).toEqual([[0, 9]]);
    expect((await cell(waiting, null))!.places).toBe(1);
    expect((await cell('gone', null))!.hits).toEqual([]);
  });
});
