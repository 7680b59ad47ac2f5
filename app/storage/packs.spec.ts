import Dexie from 'dexie';
import { applyChange } from '@core/change/apply';
import { invert } from '@core/change/change';
import type { Change } from '@core/change/change';
import { advance, EMPTY_HISTORY, type JournalEntry } from '@core/change/journal';
import { checkStudy } from '@core/integrity/check-study';
import { randomId } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import { Bench } from '@core/testing/make';
import { createEmptyStudy } from './create-study';
import { StudyDatabase } from './study-database';
import { listStudies } from './study-list';
import { StudyStorage } from './study-storage';
import { upgradeStudy } from './upgrade-study';

/** A survey of more rows than get a row each. */
const ROWS = 620;

describe('records that come in many at a time', () => {
  let storage: StudyStorage;
  let db: StudyDatabase;
  let state: StudyState;
  let history = EMPTY_HISTORY;
  let survey: Change;

  const write = async (change: Change): Promise<void> => {
    const entry: JournalEntry = {
      seq: history.seq + 1,
      at: 2_000,
      coderId: state.study.currentCoderId,
      kind: 'act',
      of: null,
      sentence: 'did something',
      change,
    };
    state = applyChange(state, change);
    await storage.commit(entry, state);
    history = advance(history, entry);
  };
  const documents = () => Object.values(state.tables.document);
  /** What is stored is what the session has, with every text. */
  const expectAllThere = async (): Promise<void> => {
    const bundle = await storage.bundle();
    expect(bundle.state.tables).toEqual(state.tables);
    expect([...bundle.texts.keys()].sort()).toEqual(Object.keys(state.tables.document).sort());
    expect(checkStudy(bundle.state, bundle.texts)).toEqual([]);
  };

  beforeEach(async () => {
    const studyId = await createEmptyStudy('Packed', 'Ada', randomId, 1_000);
    storage = await StudyStorage.of(studyId);
    db = new StudyDatabase(studyId);
    ({ state, history } = await storage.open());
    const bench = new Bench();
    survey = Array.from({ length: ROWS }, (_, at) => bench.draft(`R${at}`, ['The boat.', `Answer ${at}.`])).flatMap(
      ({ document, text }) => [
        { type: 'document' as const, before: null, after: document },
        { type: 'text' as const, before: null, after: text },
      ],
    );
    await write(survey);
  });
  afterEach(async () => {
    storage.close();
    db.close();
    for (const name of await Dexie.getDatabaseNames()) await Dexie.delete(name);
  });

  it('are packed, and are all there', async () => {
    expect(await db.records('document').count()).toBe(0);
    expect(await db.packs.count()).toBe(2 * Math.ceil(ROWS / 100));
    await expectAllThere();
    expect((await listStudies())[0]!.documents).toBe(ROWS);
    const [first, last] = [documents()[0]!, documents().at(-1)!];
    expect((await storage.text(last.id))!.text).toContain(`Answer ${ROWS - 1}.`);
    expect((await storage.texts([last.id, randomId(), first.id])).map((text) => text.id)).toEqual([last.id, first.id]);
  });

  it('get a row of their own when they are changed, and none when they go', async () => {
    const [changed, gone] = documents();
    const [text, goneText] = await storage.texts([changed!.id, gone!.id]);
    await write([
      { type: 'document', before: changed!, after: { ...changed!, title: 'Renamed' } },
      { type: 'text', before: text!, after: { ...text!, text: text!.text.toUpperCase() } },
      { type: 'document', before: gone!, after: null },
      { type: 'text', before: goneText!, after: null },
    ]);
    expect(await db.records('document').toArray()).toEqual([jasmine.objectContaining({ title: 'Renamed' })]);
    await expectAllThere();
    expect((await storage.text(changed!.id))!.text).toContain('THE BOAT.');
    expect(await storage.text(gone!.id)).toBeUndefined();
    expect((await listStudies())[0]!.documents).toBe(ROWS - 1);
  });

  it('go with one undo and come back with one redo, also for whoever looked them up before', async () => {
    const some = documents()[7]!;
    await storage.text(some.id);
    await write(invert(survey));
    expect([await db.packs.count(), await db.packed.count(), documents().length]).toEqual([0, 0, 0]);
    expect(await storage.text(some.id)).toBeUndefined();
    await write(survey);
    await expectAllThere();
    expect((await storage.text(some.id))!.id).toBe(some.id);
  });

  it('are found in the log by each, though the entry is not looked up by each', async () => {
    const some = documents()[7]!;
    await write([{ type: 'document', before: some, after: { ...some, title: 'Renamed' } }]);
    expect((await storage.touching(`document:${some.id}`)).map((entry) => entry.seq)).toEqual([2, 1]);
    expect((await storage.touching(`document:${documents()[8]!.id}`)).map((entry) => entry.seq)).toEqual([1]);
    expect(await storage.touching(`document:${randomId()}`)).toEqual([]);
    expect((await db.journal.get(1))!.touches).toEqual([]);
  });

  it('have a row each where they are long: one is read without the others', async () => {
    const bench = new Bench();
    const long = Array.from({ length: 510 }, (_, at) => bench.draft(`L${at}`, [at === 3 ? 'word '.repeat(2_000).trim() : 'word']));
    await write(long.map(({ text }) => ({ type: 'text' as const, before: null, after: text })));
    expect((await db.text.toArray()).map((text) => text.id)).toEqual([long[3]!.text.id]);
    expect((await storage.texts(long.map(({ text }) => text.id))).map((text) => text.id)).toEqual(long.map(({ text }) => text.id));
  });

  it('are brought to another version like the rest', async () => {
    const some = documents()[7]!;
    await write([{ type: 'document', before: some, after: { ...some, title: 'Renamed' } }]);
    await db.meta.put({ key: 'dataVersion', value: 6 });
    await upgradeStudy(db, 6);
    expect([await db.packs.count(), await db.packed.count(), await db.records('document').count()]).toEqual([0, 0, ROWS]);
    await expectAllThere();
  });

  it('are not stored where the entry is refused', async () => {
    const packs = await db.packs.count();
    const stale: JournalEntry = { seq: 9, at: 2_000, coderId: '', kind: 'act', of: null, sentence: 'late', change: survey };
    await expectAsync(storage.commit(stale, state)).toBeRejected();
    expect(await db.packs.count()).toBe(packs);
  });
});
