import { until } from '../testing/until';
import { idOf } from '@core/change/change';
import { importCodes } from '@core/commands/import-codes';
import { UNDESCRIBED } from '@core/codebook/exchange/listed-code';
import { planCodes } from '@core/codebook/exchange/plan-codes';
import Dexie from 'dexie';
import { applyChange } from '@core/change/apply';
import { advance, EMPTY_HISTORY, type JournalEntry } from '@core/change/journal';
import type { Action, Command } from '@core/change/command';
import { addCode, deleteCode } from '@core/commands/codes';
import { addDocuments } from '@core/commands/documents';
import { codePlace } from '@core/commands/passages';
import { asCopy } from '@core/formats/study-file/as-copy';
import { writeStudyFile } from '@core/formats/study-file/write-study-file';
import { sha256OfFile } from '@core/formats/sha256';
import { checkStudy } from '@core/integrity/check-study';
import type { Document } from '@core/model/document';
import { randomId, type Id } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import { packPassages, unpackPassages } from '@core/passages/columns';
import { composeText } from '@core/text/draft-text';
import { createEmptyStudy } from './create-study';
import { DATABASE_PREFIX, StudyDatabase } from './study-database';
import { NewerVersionError, SCHEMA_VERSION } from '@core/model/schema-version';
import { strFromU8, unzipSync } from 'fflate';
import { readStudyFile } from '@core/formats/study-file/read-study-file';
import type { Passage } from '@core/model/passage';
import { RECORDS, TABLE_TYPES } from '@core/model/records';
import { deleteStudy, listStudies, studyExists } from './study-list';
import { NoSuchStudyError, StaleTabError, StudyStorage } from './study-storage';
import { WriterLock } from './writer-lock';

describe('storage', () => {
  let studyId: Id;
  let storage: StudyStorage;
  let state: StudyState;
  let history = EMPTY_HISTORY;

  beforeEach(async () => {
    studyId = await createEmptyStudy('Stored', 'Ada', randomId, 1_000);
    storage = await StudyStorage.of(studyId);
    ({ state, history } = await storage.open());
  });

  afterEach(async () => {
    storage.close();
    for (const name of await Dexie.getDatabaseNames()) await Dexie.delete(name);
  });

  /** Runs a command and stores it, as the session does. */
  async function run(command: Command, media?: ReadonlyMap<string, Blob>): Promise<Action> {
    const action = command(state, { coderId: state.study.currentCoderId, now: 2_000, newId: randomId })!;
    const entry: JournalEntry = {
      seq: history.seq + 1,
      at: 2_000,
      coderId: state.study.currentCoderId,
      kind: 'act',
      of: null,
      sentence: action.sentence,
      change: action.change,
    };
    state = applyChange(state, action.change);
    await storage.commit(entry, state, media);
    history = advance(history, entry);
    return action;
  }

  it('finds entries by what they touch, and gives large ones back as they were', async () => {
    await addInterview();
    const names = Array.from({ length: 1_500 }, (_, at) => `Code ${at}`);
    const listed = { codes: names.map((name, at) => ({ ...UNDESCRIBED, path: [name], row: at + 1 })), sets: [], faults: [], notes: [] };
    const action = await run(
      importCodes(
        listed,
        planCodes({}, listed),
        names.map(() => 'take'),
        'a list',
      ),
    );
    expect(action.change.length).toBe(1_500);
    const [entry] = await storage.touching('codebook');
    expect(entry!.change).toEqual(action.change);
    expect((await storage.touching(`code:${idOf(action.change[7]!)}`)).map((one) => one.seq)).toEqual([2]);
    expect(await storage.touching('codebook', 2)).toEqual([]);
    expect((await storage.bundle()).journal[1]!.change).toEqual(action.change);
    expect((await storage.journal(9, 9)).map((one) => one.seq)).toEqual([2, 1]);
    const found = async (...asked: Parameters<StudyStorage['find']>) => {
      const page = await storage.find(...asked);
      return [page.entries.map((one) => one.seq), page.next];
    };
    expect(await found({}, 9, 9)).toEqual([[2, 1], null]);
    expect(await found({}, 9, 1)).toEqual([[2], 2]);
    expect(await found({}, 2, 9)).toEqual([[1], null]);
    expect(await found({ touching: ['codebook', 'nothing'] }, 9, 9)).toEqual([[2], null]);
    expect(await found({ coderId: randomId() }, 9, 9)).toEqual([[], null]);
    expect(await found({ coderId: state.study.currentCoderId, from: 1_000, to: 2_001, fits: (one) => one.seq === 1 }, 9, 9)).toEqual([
      [1],
      null,
    ]);
    expect(await found({ from: 2_001 }, 9, 9)).toEqual([[], null]);
  });

  it('brings a study of an earlier version to this one, its journal too, and refuses a later one', async () => {
    await addInterview();
    storage.close();
    const db = new StudyDatabase(studyId);
    const without = (record: object, ...keys: string[]) =>
      Object.fromEntries(Object.entries(record).filter(([key]) => !keys.includes(key)));
    const [document, text, entry] = [(await db.table('document').toArray())[0], (await db.text.toArray())[0]!, (await db.journal.get(1))!];
    await db.table('document').put(without(document, 'values', 'answers'));
    await db.table('text').put(without(text, 'marks'));
    const change = entry.change.map((one) => ({ ...one, after: without(one.after!, 'values', 'answers', 'marks') }));
    await db.table('journal').put(without({ ...entry, change }, 'touches'));
    await db.meta.put({ key: 'dataVersion', value: 1 });
    storage = await StudyStorage.of(studyId);
    expect(Object.values((await storage.open()).state.tables.document)).toEqual([document]);
    expect(await storage.text(document.id)).toEqual(text);
    expect((await db.journal.get(1))!).toEqual(entry);
    expect(await storage.entry(1)).toEqual(without(entry, 'touches') as unknown as JournalEntry);
    expect((await db.meta.get('dataVersion'))?.value).toBe(SCHEMA_VERSION);
    await db.meta.put({ key: 'dataVersion', value: SCHEMA_VERSION + 1 });
    await expectAsync(StudyStorage.of(studyId)).toBeRejectedWithError(/newer version/);
    db.close();
  });

  for (const version of [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13]) {
    it(`opens a study as version ${version} stored it to what its study file opens to`, async () => {
      const file = await (await fetch(`/fixtures/version-${version}.filum`)).blob();
      const { state: expected, journal } = await readStudyFile(file);
      const id = expected.study.id;
      await storeAsVersion(version, unzipSync(new Uint8Array(await file.arrayBuffer())), id);
      const opened = await StudyStorage.of(id);
      const found = await opened.bundle();
      opened.close();
      expect(found.state.study).toEqual(expected.study);
      expect(found.state.tables).toEqual(expected.tables);
      const passages = (one: StudyState) => Object.values(one.passages).flatMap((columns) => [columns.ground, ...unpackPassages(columns)]);
      expect(passages(found.state)).toEqual(passages(expected));
      expect(found.journal).toEqual([...journal]);
    });
  }

  /** What a version had in its database: the raw records of its study file, in the tables it knew. */
  async function storeAsVersion(version: number, files: Record<string, Uint8Array>, id: Id): Promise<void> {
    const json = (name: string): unknown => (files[name] ? JSON.parse(strFromU8(files[name])) : []);
    const known = TABLE_TYPES.filter((type) => files[RECORDS[type].file]);
    const db = new Dexie(DATABASE_PREFIX + id);
    // the number it had then: from version 6 on there is room for indexes between two
    db.version(version < 6 ? version : version * 10).stores({
      meta: 'key',
      text: 'id',
      passages: 'documentId',
      journal: 'seq',
      ...Object.fromEntries(known.map((type) => [type, 'id'])),
    });
    for (const type of known) await db.table(type).bulkAdd(json(RECORDS[type].file) as object[]);
    for (const name of Object.keys(files)) {
      const [, folder, documentId, ending] = /^(texts|passages)\/(.*)\.(json|txt)$/.exec(name) ?? [];
      if (folder === 'texts' && ending === 'json')
        await db.table('text').add({ id: documentId, text: strFromU8(files[`texts/${documentId}.txt`]!), ...(json(name) as object) });
      if (folder !== 'passages') continue;
      const documents = json('documents.json') as { id: Id; ground?: { of: 'text' } }[];
      const ground = documents.find((one) => one.id === documentId)?.ground?.of ?? 'text';
      const { ground: said, ...columns } = packPassages(documentId!, json(name) as Passage[], ground);
      // before version 7 columns did not say what passages stand in
      await db.table('passages').add(version < 7 ? columns : { ...columns, ground: said });
    }
    await db.table('journal').bulkAdd(json('journal.json') as object[]);
    await db.table('meta').bulkAdd([
      { key: 'study', value: json('study.json') },
      { key: 'history', value: json('history.json') },
      { key: 'dataVersion', value: version },
    ]);
    db.close();
  }

  it('takes off links that an earlier version left behind, as an entry of the log', async () => {
    await run(addCode({ name: 'Kept' }));
    const relation = {
      id: randomId(),
      fromId: Object.keys(state.tables.code)[0]!,
      toId: randomId(),
      kind: 'leads to',
      note: '',
      coderId: state.study.currentCoderId,
      createdAt: 1,
    };
    const db = new StudyDatabase(studyId);
    await db.records('relation').add(relation);
    await db.meta.put({ key: 'dataVersion', value: SCHEMA_VERSION - 1 });
    storage.close();
    storage = await StudyStorage.of(studyId);
    const opened = await storage.open();
    expect(opened.state.tables.relation).toEqual({});
    expect([opened.history.seq, opened.history.undo]).toEqual([2, [1]]);
    expect((await storage.entry(2))!.sentence).toBe('found 1 link to what an earlier version had lost, and took it off');
    db.close();
  });

  it('writes nothing into a study that a newer Filum in another tab has taken over', async () => {
    const db = new StudyDatabase(studyId);
    await db.meta.put({ key: 'dataVersion', value: SCHEMA_VERSION + 1 });
    await expectAsync(run(addCode({ name: 'Late' }))).toBeRejectedWithError(NewerVersionError);
    expect(await db.records('code').count()).toBe(0);
    expect(await db.journal.count()).toBe(0);
    db.close();
  });

  async function addInterview(): Promise<Id> {
    const { text, words } = composeText(randomId(), [{ text: 'Nobody asked us.', style: 'body', emphasis: [] }], () => null);
    await run(
      addDocuments([
        {
          document: {
            id: text.id,
            title: 'Interview',
            ground: { of: 'text' },
            kind: 'interview',
            date: null,
            folderId: null,
            description: '',
            speakers: [],
            characters: text.text.length,
            words,
            source: null,
            values: {},
            answers: [],
            createdAt: 0,
          },
          text,
        },
      ]),
    );
    return text.id;
  }

  it('reads back what was written, records, passages, texts and history', async () => {
    const documentId = await addInterview();
    await run(codePlace({ documentId, place: { start: 0, end: 6 }, codeIds: [], newCodes: [{ name: 'Asked' }] }));
    const opened = await storage.open();
    expect(opened.state.tables).toEqual(state.tables);
    expect(unpackPassages(opened.state.passages[documentId]!)).toEqual(unpackPassages(state.passages[documentId]!));
    expect(opened.history).toEqual({ seq: 2, undo: [1, 2], redo: [] });
    expect((await storage.text(documentId))!.text).toBe('Nobody asked us.');
    expect((await storage.journal(99, 10)).map((entry) => entry.sentence)).toEqual([
      'coded a passage in Interview with Asked',
      'brought in Interview',
    ]);
  });

  it('keeps a recording with the entry that brings it, once, and gives it back as a file', async () => {
    const bytes = new Blob(['horn'], { type: 'audio/wav' });
    const sha256 = await sha256OfFile(bytes);
    const text = await addInterview();
    const interview = state.tables.document[text]!;
    const media = { sha256, bytes: bytes.size, type: 'audio/wav' };
    const tape = (title: string): Document => ({
      ...{ ...interview, id: randomId(), title, kind: 'recording', characters: 0, words: 0 },
      ground: { of: 'time', milliseconds: 1_000, media },
    });
    const [first, second] = [tape('Horn'), tape('Horn again')];
    await run(addDocuments([{ document: first, text: null }]), new Map([[sha256, bytes]]));
    await run(addDocuments([{ document: second, text: null }]), new Map([[sha256, new Blob(['horn'])]]));
    await run(codePlace({ documentId: first.id, place: { start: 10, end: 900 }, codeIds: [], newCodes: [{ name: 'Signal' }] }));
    const kept = await storage.media(sha256);
    expect([kept?.type, await kept?.text()]).toEqual(['audio/wav', 'horn']);
    expect(await storage.media('0'.repeat(64))).toBeUndefined();
    const bundle = await storage.bundle();
    expect(bundle.state.passages[first.id]!.ground).toBe('time');
    expect(checkStudy(bundle.state, bundle.texts)).toEqual([]);
    const back = await readStudyFile(await writeStudyFile(bundle, 0));
    expect(back.state).toEqual(bundle.state);
    // under an id of its own, with everything
    const copy = asCopy(back, randomId(), new Set());
    await StudyStorage.create(copy);
    const other = await StudyStorage.of(copy.state.study.id);
    expect(await (await other.media(sha256))!.text()).toBe('horn');
    other.close();
  });

  it('takes the row of passages away with the last passage', async () => {
    const documentId = await addInterview();
    const action = await run(codePlace({ documentId, place: { start: 0, end: 6 }, codeIds: [], newCodes: [{ name: 'Asked' }] }));
    await run(deleteCode(action.change[0]!.after!.id));
    expect((await storage.open()).state.passages).toEqual({});
  });

  it('writes nothing of an entry that does not follow the journal', async () => {
    await run(addCode({ name: 'First' }));
    const behind = await StudyStorage.of(studyId);
    const action = addCode({ name: 'Second' })(state, { coderId: state.study.currentCoderId, now: 1, newId: randomId })!;
    const entry: JournalEntry = {
      seq: 1,
      at: 1,
      coderId: state.study.currentCoderId,
      kind: 'act',
      of: null,
      sentence: 'x',
      change: action.change,
    };
    await expectAsync(behind.commit(entry, applyChange(state, action.change))).toBeRejectedWithError(StaleTabError);
    expect(Object.keys((await storage.open()).state.tables.code).length).toBe(1);
    expect((await storage.journal(99, 10)).length).toBe(1);
    behind.close();
  });

  it('stores a whole study or nothing of it', async () => {
    const bundle = await storage.bundle();
    await expectAsync(StudyStorage.create(bundle)).toBeRejected();
    const code = {
      ...addCode({ name: 'Broken' })(state, { coderId: state.study.currentCoderId, now: 1, newId: randomId })!.change[0]!.after!,
      id: undefined,
    };
    const broken = {
      ...bundle,
      state: {
        ...bundle.state,
        study: { ...bundle.state.study, id: randomId() },
        tables: { ...bundle.state.tables, code: { x: code as never } },
      },
    };
    await expectAsync(StudyStorage.create(broken)).toBeRejected();
    expect(await studyExists(broken.state.study.id)).toBeFalse();
    expect((await listStudies()).map((summary) => summary.study.id)).toEqual([studyId]);
  });

  it('says that a study is not here instead of making one', async () => {
    await expectAsync(StudyStorage.of(randomId())).toBeRejectedWithError(NoSuchStudyError);
    expect((await Dexie.getDatabaseNames()).length).toBe(1);
  });

  it('lists studies with their documents, the one changed last first', async () => {
    const other = await createEmptyStudy('Older', 'Ada', randomId, 500);
    await addInterview();
    expect((await listStudies()).map((summary) => [summary.study.id, summary.documents, summary.lastChange])).toEqual([
      [studyId, 1, 2_000],
      [other, 0, 500],
    ]);
  });

  it('lets one writer at a time write, and deletes a study only when nobody does', async () => {
    let lost = 0;
    const first = new WriterLock(studyId, () => lost++);
    const second = new WriterLock(studyId, () => undefined);
    expect(await first.acquire()).toBeTrue();
    expect(await second.acquire()).toBeFalse();
    expect(await deleteStudy(studyId)).toBeFalse();
    expect(await second.acquire(true)).toBeTrue();
    await until(() => lost > 0);
    expect(lost).toBe(1);
    await second.giveBack();
    storage.close();
    expect(await deleteStudy(studyId)).toBeTrue();
    expect((await Dexie.getDatabaseNames()).includes(DATABASE_PREFIX + studyId)).toBeFalse();
  });

  it('notes a backup apart from the study, so that undo cannot take it back', async () => {
    await storage.noteBackup({ at: 5, through: 0 });
    expect((await storage.open()).backup).toEqual({ at: 5, through: 0 });
    expect((await storage.bundle()).history.seq).toBe(0);
  });
});
