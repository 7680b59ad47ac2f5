import { saveQuery } from '../commands/queries';
import { correctTexts } from '../commands/correct-text';
import { addSet } from '../commands/sets';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { Scope } from '../model/scope';
import { Bench } from '../testing/make';
import { analysisOf, type Analysis } from './analysis';
import type { Told } from './messages';

describe('what kept queries find that live sets ask for', () => {
  let bench: Bench;
  let analysis: Analysis;
  let [sea, pier]: [Id, Id] = ['', ''];
  let asked = 0;
  const documents: Id[] = [];
  const tell = (fields: Partial<Told> = {}): void =>
    analysis.update({
      ...{ studyId: bench.state.study.id, anew: false, changed: Object.values(bench.state.passages), gone: [] },
      ...{ tables: bench.state.tables, language: 'en', texts: [], ...fields },
    });
  const carries = (codeId: Id): PassageCondition => ({
    carries: 'any',
    codes: { codeIds: [codeId], setIds: [], withUnder: false },
    reach: 'passage',
  });
  const liveSet = (name: string, ...all: PassageCondition[]): Id => {
    bench.run(saveQuery(name, { all }));
    const { id } = Object.values(bench.state.tables.query).find((query) => query.name === name)!;
    bench.run(addSet('document', name, [], [{ what: { queryId: id }, comparison: 'is', value: true }]));
    return Object.values(bench.state.tables.set).find((set) => set.name === name)!.id;
  };
  const inSet = (setId: Id): Scope => ({ parts: [{ liesIn: { documentIds: [], folderIds: [], setIds: [setId] } }] });
  const left = async (setId: Id) => (await analysis.leaves(++asked, [inSet(setId)]))![0]!.documents;
  const known = async (sign = '') => (await analysis.setAnswers(++asked, sign))!;

  beforeEach(() => {
    bench = new Bench();
    documents.splice(0);
    const disk = new Map<Id, Text>();
    for (const title of ['One', 'Two', 'Three']) documents.push(bench.addDocument(title, [`${title}: we waited at the pier.`]).id);
    [sea, pier] = [bench.addCode('Sea'), bench.addCode('Pier')];
    for (const [id, text] of bench.texts) disk.set(id, text);
    bench.code(bench.state.tables.document[documents[0]!]!, 0, 5, sea);
    bench.code(bench.state.tables.document[documents[1]!]!, 0, 5, pier);
    analysis = analysisOf((_, ids) => Promise.resolve(ids.flatMap((id) => disk.get(id) ?? [])));
  });

  it('is what scopes and counts go by, and follows every coding', async () => {
    const setId = liveSet('At sea', carries(sea));
    tell();
    expect(await left(setId)).toBe(1);
    bench.code(bench.state.tables.document[documents[2]!]!, 0, 5, sea);
    tell({ tables: {} });
    expect(await left(setId)).toBe(2);
    const table = await analysis.crossTable(
      ++asked,
      () => undefined,
      {
        ...{ rows: { of: 'codes', codeIds: [sea, pier], withUnder: false }, columns: { by: 'set' } },
        ...{ counting: 'passages', coders: 'each passage' },
      },
      { parts: [] },
      documents,
    );
    expect(table!.columns.map(({ path }) => path.join())).toEqual(['At sea', 'in no set']);
    expect([...table!.counts].slice(0, 3)).toEqual([2, 0, 2]);
  });

  it('is worked out from words as they are now, whatever the disk says', async () => {
    const setId = liveSet('Late', { hasWords: { typed: 'late', match: 'whole words', capitals: false, accents: false, unit: 'words' } });
    tell();
    expect(await left(setId)).toBe(0);
    const text = bench.texts.get(documents[0]!)!;
    bench.do(correctTexts([{ text, edits: [{ from: 1, to: 2, insert: ' late ' }] }]));
    tell({ texts: [bench.texts.get(documents[0]!)!] });
    expect(await left(setId)).toBe(1);
  });

  it('is followed by what depends on it through another set', async () => {
    const first = liveSet('At sea', carries(sea));
    const second = liveSet('There as well', { liesIn: { documentIds: [], folderIds: [], setIds: [first] } }, carries(pier));
    tell();
    expect(await left(second)).toBe(0);
    bench.code(bench.state.tables.document[documents[1]!]!, 6, 9, sea);
    tell({ tables: {} });
    expect(await left(second)).toBe(1);
  });

  it('is told with a sign, and again only where it has become another', async () => {
    liveSet('At sea', carries(sea));
    tell();
    const first = await known();
    expect(Object.values(first.found!)).toEqual([{ documentIds: [documents[0]!], caseIds: [] }]);
    expect((await known(first.sign)).found).toBeNull();
    bench.code(bench.state.tables.document[documents[0]!]!, 8, 12, sea);
    tell({ tables: {} });
    expect(await known(first.sign)).toEqual({ sign: first.sign, found: null });
    bench.code(bench.state.tables.document[documents[2]!]!, 8, 12, sea);
    tell({ tables: {} });
    const second = await known(first.sign);
    expect([second.sign === first.sign, Object.values(second.found!)[0]!.documentIds.length]).toEqual([false, 2]);
  });

  it('is nothing where no set asks for a query any more', async () => {
    liveSet('At sea', carries(sea));
    tell();
    await known();
    tell({ tables: { ...bench.state.tables, set: {} } });
    expect((await known()).found).toEqual({});
  });
});
