import type { Id } from '../model/ids';
import { AskedStudy } from '../queries/asked-study';
import { setKindOf } from '../commands/documents';
import { Bench } from '../testing/make';
import { CodesByDocument } from './codes-over-documents';
import { groupAxisOf } from './group-axis';

describe('codes over documents', () => {
  it('bring what is new, in a chosen order, and within each group by itself', () => {
    const bench = new Bench();
    const [b, a, blank] = ['B', 'A', 'C'].map((title) => bench.addDocument(title, ['Some words to code.']));
    const [x, y] = ['x', 'y'].map((name) => bench.addCode(name)) as [Id, Id];
    bench.code(b!, 0, 4, x, y);
    bench.code(a!, 0, 4, y);
    bench.code(a!, 5, 9, x);
    bench.run(setKindOf([a!.id], 'article'));
    const { tables, passages } = bench.state;
    const documents = [b!, a!, blank!].map((one) => tables.document[one.id]!);
    const found = (by: 'everything' | 'kind', order: Parameters<CodesByDocument['result']>[0]) => {
      const study = new AskedStudy(tables, () => Object.values(passages), 'en', Date.now);
      const codes = new CodesByDocument(groupAxisOf({ by }, study, documents));
      for (const document of documents) if (passages[document.id]) codes.add(passages[document.id]!, document, null);
      return codes
        .result(order)
        .map((one) => [
          one.group.path[0],
          one.documents.map(({ documentId, fresh, total }) => [tables.document[documentId]!.title, fresh, total]),
        ]);
    };
    expect(found('everything', 'by when they were coded')).toEqual([
      [
        'all',
        [
          ['B', 2, 2],
          ['A', 0, 2],
        ],
      ],
    ]);
    expect(found('everything', 'by title')).toEqual([
      [
        'all',
        [
          ['A', 2, 2],
          ['B', 0, 2],
        ],
      ],
    ]);
    expect(found('kind', 'by title')).toEqual([
      ['articles', [['A', 2, 2]]],
      ['interviews', [['B', 2, 2]]],
    ]);
  });
});
