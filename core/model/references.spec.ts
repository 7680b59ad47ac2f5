import { benchWithEverything, studyFileOf } from '../testing/everything';
import type { StudyBundle } from '../formats/study-file/bundle';
import { unpackPassages } from '../passages/columns';
import { referencesIn } from './address';
import { marksIn } from './holding';
import type { Id } from './ids';
import type { StudyState } from './study-state';
import { heldIn, mapped, StillNeededError } from './references';
import { RECORD_TYPES, RECORDS, schemaOf, TABLE_TYPES, type RecordType } from './records';

const ID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;

/** The tables in which there is anything. */
const withRecords = (tables: StudyState['tables']): Partial<StudyState['tables']> =>
  Object.fromEntries(Object.entries(tables).filter(([, table]) => Object.keys(table).length > 0));

describe('what records point at', () => {
  let bundle: StudyBundle;
  const recordsOf = (type: RecordType): readonly { readonly id: Id }[] => {
    if (type === 'study') return [bundle.state.study];
    if (type === 'text') return [...bundle.texts.values()];
    if (type === 'passage') return Object.values(bundle.state.passages).flatMap(unpackPassages);
    return Object.values(bundle.state.tables[type]);
  };
  const first = <T>(table: Readonly<Record<Id, T>>): T => Object.values(table)[0]!;

  beforeEach(async () => (bundle = await studyFileOf(5)));

  it('is declared for every id a record holds, but its own and those of its parts', async () => {
    const { state, texts } = await benchWithEverything();
    bundle = { ...bundle, state: { ...state, tables: { ...bundle.state.tables, ...withRecords(state.tables) } }, texts };
    for (const type of RECORD_TYPES) {
      expect(recordsOf(type).length).withContext(type).toBeGreaterThan(0);
      for (const record of recordsOf(type)) {
        const own = new Set([record.id]);
        const parts = JSON.parse(JSON.stringify(record)) as { groups?: { id: Id }[]; entries?: { id: Id }[] };
        for (const { id } of [...(parts.groups ?? []), ...(parts.entries ?? [])]) own.add(id);
        const { points, stretches } = heldIn(type, record as never);
        const declared = new Set([
          ...points.flatMap((point) => ('documentId' in point ? [point.id, point.documentId] : [point.id])),
          ...stretches.map((one) => one.documentId),
        ]);
        const held = [...JSON.stringify(record).matchAll(ID)].map(([id]) => id).filter((id) => !own.has(id));
        expect(held.filter((id) => !declared.has(id)))
          .withContext(type)
          .toEqual([]);
      }
    }
  });

  it('names types that there are', () => {
    const named = RECORD_TYPES.flatMap((type) => marksIn(schemaOf(type))).flatMap((mark) =>
      mark.holds === 'id' && typeof mark.of === 'string' ? [mark.of] : [],
    );
    expect(named.length).toBeGreaterThan(20);
    expect(named.filter((of) => !Object.hasOwn(RECORDS, of))).toEqual([]);
  });

  it('is the very same record where nothing of it moves', () => {
    const elsewhere = new Map([['00000000-0000-4000-8000-000000000000', null]]);
    for (const type of TABLE_TYPES)
      for (const record of recordsOf(type))
        expect(mapped(type, record as never, { records: { code: elsewhere, document: elsewhere } })).toBe(record as never);
  });

  it('moves, empties, goes or keeps its place by name, as the schema says', () => {
    const { tables } = bundle.state;
    const [loss, boat, speed] = ['Loss', 'Missing the boat', 'Speed'].map((name) =>
      Object.values(tables.code).find((code) => code.name === name),
    );
    const gone = { records: { code: new Map([[speed!.id, null]]) }, nameOf: () => 'Speed' };
    const joined = { records: { code: new Map([[speed!.id, boat!.id]]) } };
    // emptied in a list, gone with what cannot be without it, kept by name
    expect(mapped('sorting', first(tables.sorting), gone)!.codeIds).toEqual([boat!.id]);
    expect(mapped('relation', first(tables.relation), gone)).toBeNull();
    expect(mapped('query', first(tables.query), gone)!.question).toEqual({
      ...first(tables.query).question,
      gone: { [speed!.id]: 'Speed' },
    });
    // a field that may be empty is, and a finding about two codes means nothing of one
    const withoutLoss = { records: { code: new Map([[loss!.id, null]]) } };
    expect(mapped('code', boat!, withoutLoss)!.parentId).toBeNull();
    expect(mapped('study', bundle.state.study, withoutLoss)!.checksLeft).toEqual([]);
    // moved onto itself: a relation goes, a slip and a passage's coding are there once
    expect(mapped('relation', first(tables.relation), joined)).toBeNull();
    expect(mapped('sorting', first(tables.sorting), joined)!.codeIds).toEqual([boat!.id]);
    const twice = {
      ...recordsOf('passage')[0]!,
      codings: [boat!, speed!].map(({ id }) => ({ codeId: id, coderId: loss!.coderId, createdAt: 1 })),
    };
    expect(mapped('passage', twice as never, joined)!.codings.map((coding) => coding.codeId)).toEqual([boat!.id]);
    // links in the text of a memo follow, and one to what is gone stays to say so
    const links = (moves: Parameters<typeof mapped>[2]) => referencesIn(mapped('memo', first(tables.memo), moves)!.entries[0]!.text);
    expect(links(joined)[0]).toEqual({ type: 'code', id: boat!.id });
    expect(links(gone)[0]).toEqual({ type: 'code', id: speed!.id });
  });

  it('follows a passage to another document, and is about its document where the passage is gone', () => {
    const memo = first(bundle.state.tables.memo);
    const about = memo.about as { readonly id: Id; readonly documentId: Id };
    const there = { id: about.id, documentId: memo.id };
    expect(mapped('memo', memo, { passages: new Map([[about.id, there]]) })!.about).toEqual({ type: 'passage', ...there });
    expect(mapped('memo', memo, { passages: new Map([[about.id, null]]) })!.about).toEqual({ type: 'document', id: about.documentId });
    expect(mapped('memo', memo, { records: { document: new Map([[about.documentId, null]]) } })!.about).toBeNull();
  });

  it('is not taken away where something cannot be without it', () => {
    const coder = first(bundle.state.tables.coder);
    expect(() => mapped('study', bundle.state.study, { records: { coder: new Map([[coder.id, null]]) } })).toThrowError(StillNeededError);
  });
});
