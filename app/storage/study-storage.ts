import Dexie from 'dexie';
import { documentsWithChangedPassages } from '@core/change/apply';
import { advance, type History, type JournalEntry } from '@core/change/journal';
import { idOf, type Change } from '@core/change/change';
import type { StudyBundle } from '@core/formats/study-file/bundle';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { TABLE_TYPES } from '@core/model/records';
import { NewerVersionError, SCHEMA_VERSION } from '@core/model/schema-version';
import type { Study } from '@core/model/study';
import type { StudyState } from '@core/model/study-state';
import { LogDigests } from './log-digests';
import { findEntries, type JournalFilter, type JournalPage } from './journal-search';
import { Packs } from './packs';
import { toState } from './to-state';
import { DATABASE_PREFIX, fromRow, StudyDatabase, toRow, toRowInTurns, type LinkRow, type LoudnessRow } from './study-database';

/** When the study file was last exported (ms since 1970), and the journal number it went through. */
export interface Backup {
  readonly at: number;
  readonly through: number;
}

/** A study as it is read when it is opened: all but the texts and the journal. */
export interface OpenedStudy {
  readonly state: StudyState;
  readonly history: History;
  readonly backup: Backup | null;
}

/** What the start screen says of a study. */
export interface StudySummary {
  readonly study: Study;
  readonly documents: number;
  readonly lastChange: number;
}

/** Another tab has written since this one read: nothing was written, so nothing was overwritten. */
export class StaleTabError extends Error {
  constructor() {
    super('The study was changed in another tab. It is read anew; the last action here has to be done again.');
    this.name = 'StaleTabError';
  }
}

/** The study is not in this browser (any more). */
export class NoSuchStudyError extends Error {
  constructor() {
    super('This study is not in this browser. Open it from a study file.');
    this.name = 'NoSuchStudyError';
  }
}

/** Reads and writes one study. */
export class StudyStorage {
  private readonly packs: Packs;

  private constructor(private readonly db: StudyDatabase) {
    this.packs = new Packs(db);
  }

  /** @throws NoSuchStudyError, NewerVersionError */
  static async of(studyId: Id): Promise<StudyStorage> {
    if (!(await Dexie.exists(DATABASE_PREFIX + studyId))) throw new NoSuchStudyError();
    const storage = new StudyStorage(new StudyDatabase(studyId));
    await storage.upgrade();
    return storage;
  }

  /** Brings what an earlier version stored to the current one; how, is loaded only where it is needed. @throws NewerVersionError */
  private async upgrade(): Promise<void> {
    const version = Number((await this.db.meta.get('dataVersion'))?.value ?? SCHEMA_VERSION);
    if (version === SCHEMA_VERSION) return;
    const { upgradeStudy } = await import('./upgrade-study');
    await upgradeStudy(this.db, version);
  }

  /** Stores a whole study under its id, in one transaction: it is there entirely or not at all. */
  static async create(bundle: StudyBundle, backup: Backup | null = null): Promise<void> {
    const db = new StudyDatabase(bundle.state.study.id);
    try {
      await db.transaction('rw', db.tables, async () => {
        if (await db.meta.get('study')) throw new Error('This study is already in this browser.');
        for (const type of TABLE_TYPES) await db.records(type).bulkAdd(Object.values(bundle.state.tables[type]) as never[]);
        await db.passages.bulkAdd(Object.values(bundle.state.passages));
        await db.text.bulkAdd([...bundle.texts.values()]);
        await db.media.bulkAdd(Array.from(bundle.media, ([sha256, blob]) => ({ sha256, blob })));
        await db.journal.bulkAdd(bundle.journal.map(toRow));
        await db.meta.bulkAdd([
          { key: 'dataVersion', value: SCHEMA_VERSION },
          { key: 'history', value: bundle.history },
          { key: 'backup', value: backup },
          { key: 'study', value: bundle.state.study },
        ]);
      });
    } finally {
      db.close();
    }
  }

  /** Reads everything but texts and journal, in one transaction. @throws NoSuchStudyError */
  async open(): Promise<OpenedStudy> {
    const { db } = this;
    const tables = [db.meta, db.passages, db.packs, db.packed, ...TABLE_TYPES.map((type) => db.records(type))];
    const [meta, passages, packed, ...records] = await db.transaction('r', tables, () =>
      Promise.all([
        db.meta.toArray(),
        db.passages.toArray(),
        this.packs.of(TABLE_TYPES),
        ...TABLE_TYPES.map((type) => db.records(type).toArray() as PromiseLike<unknown[]>),
      ]),
    );
    const value = (key: string): unknown => meta.find((row) => row.key === key)?.value;
    const study = value('study') as Study | undefined;
    if (!study) throw new NoSuchStudyError();
    const stored: Record<string, readonly unknown[]> = {};
    TABLE_TYPES.forEach((type, at) => (stored[type] = (records[at] ?? []).concat(packed.get(type) ?? [])));
    return {
      state: toState(study, stored, passages),
      history: value('history') as History,
      backup: (value('backup') as Backup | null | undefined) ?? null,
    };
  }

  /** The text of a document, or undefined. */
  async text(documentId: Id): Promise<Text | undefined> {
    return (await this.texts([documentId]))[0];
  }

  /** Texts of several documents, in their order. */
  async texts(documentIds: readonly Id[]): Promise<Text[]> {
    const rows = await this.db.text.bulkGet([...documentIds]);
    // most texts have a row each, and looking for them waits for nothing else
    if (rows.every((text) => text !== undefined)) return rows;
    return this.db.transaction('r', [this.db.text, this.db.packs, this.db.packed], async () => {
      const own = await this.db.text.bulkGet([...documentIds]);
      const missing = documentIds.filter((_, at) => own[at] === undefined);
      const packed = missing.length > 0 ? await this.packs.find<Text>('text', missing) : new Map<Id, Text>();
      return documentIds.flatMap((id, at) => own[at] ?? packed.get(id) ?? []);
    });
  }

  /** A recording or a picture by the SHA-256 of its bytes, or undefined. Nothing is read of it yet. */
  async media(sha256: string): Promise<Blob | undefined> {
    return (await this.db.media.get(sha256))?.blob;
  }

  /** Keeps the bytes of a recording or a picture that were missing. */
  async keepMedia(sha256: string, blob: Blob): Promise<void> {
    await this.db.media.put({ sha256, blob });
  }

  /** The way to a file that the study does not keep, or undefined. */
  link(sha256: string): Promise<LinkRow | undefined> {
    return this.db.links.get(sha256);
  }

  async keepLink(link: LinkRow): Promise<void> {
    await this.db.links.put(link);
  }

  /** How loud a recording is, if that was measured. */
  loudness(sha256: string): Promise<LoudnessRow | undefined> {
    return this.db.loudness.get(sha256);
  }

  async keepLoudness(loudness: LoudnessRow): Promise<void> {
    await this.db.loudness.put(loudness);
  }

  /** Entries of the journal, newest first. @param before only those with a smaller number */
  async journal(before: number, limit: number): Promise<JournalEntry[]> {
    return [...(await this.find({}, before, limit)).entries];
  }

  /** Entries that touch something, as `touchesOf` names it, the newest first. @param after only those with a greater number */
  async touching(what: string, after = 0): Promise<JournalEntry[]> {
    return (await this.find({ touching: [what] }, Infinity, Infinity)).entries.filter((entry) => entry.seq > after);
  }

  /** Entries of the journal by what they touch, by whom and when, a page at a time; see `findEntries`. */
  find(filter: JournalFilter, before: number, limit: number, goOn?: () => boolean): Promise<JournalPage> {
    return findEntries(this.db, filter, before, limit, goOn);
  }

  /** Makes ready what finding in a long journal needs, bit by bit. @param goOn asked between the bits */
  async digestJournal(lastSeq: number, goOn: () => boolean): Promise<void> {
    await (await LogDigests.of(this.db)).complete(lastSeq, goOn);
  }

  /** Entries made at or after a moment, in no order. */
  async since(time: number): Promise<JournalEntry[]> {
    return (await this.db.journal.where('at').aboveOrEqual(time).toArray()).map(fromRow);
  }

  /** One entry of the journal. */
  async entry(seq: number): Promise<JournalEntry | undefined> {
    const row = await this.db.journal.get(seq);
    return row && fromRow(row);
  }

  /**
   * Writes an entry with all it changes in one transaction, and is done when that is on disk.
   * @param after the state after the entry, where the packed passages are taken from; null where it touches none
   * @param media files that come in with it, by the SHA-256 of their bytes; those that are there already stay as they are
   * @throws StaleTabError if the journal is not where this tab believes it to be
   */
  async commit(entry: JournalEntry, after: StudyState | null, media: ReadonlyMap<string, Blob> = new Map()): Promise<void> {
    const { db } = this;
    const types = new Set(entry.change.map((change) => change.type));
    const { row, touched } = await toRowInTurns(entry);
    const tables = [
      db.meta,
      db.journal,
      ...(touched ? [db.touched] : []),
      // coding is most of what is written, and touches no pack
      ...([...types].every((type) => type === 'passage' || type === 'study') ? [] : [db.packs, db.packed]),
      ...(media.size > 0 ? [db.media] : []),
      ...[...types].filter((type) => type !== 'study').map((type) => (type === 'passage' ? db.passages : db.table(type))),
    ];
    await db.transaction('rw', tables, async () => {
      const history = (await db.meta.get('history'))?.value as History | undefined;
      if (history?.seq !== entry.seq - 1) throw new StaleTabError();
      // another tab may run a newer Filum, which has brought the study to its own version
      const version = Number((await db.meta.get('dataVersion'))?.value ?? SCHEMA_VERSION);
      if (version !== SCHEMA_VERSION) throw new NewerVersionError(version);
      await db.journal.add(row);
      if (touched) await db.touched.add(touched);
      await db.meta.put({ key: 'history', value: advance(history, entry) });
      await this.write(entry.change, after);
      for (const [sha256, blob] of media) if (!(await db.media.get(sha256))) await db.media.add({ sha256, blob });
      for (const documentId of documentsWithChangedPassages(entry.change)) {
        const columns = after!.passages[documentId];
        if (columns) await db.passages.put(columns);
        else await db.passages.delete(documentId);
      }
    });
  }

  /** Writes small records and texts, those of a type together. */
  private async write(changes: Change, after: StudyState | null): Promise<void> {
    const byType = Map.groupBy(changes, (change) => change.type);
    for (const [type, some] of byType) {
      if (type === 'passage') continue;
      if (type === 'study') {
        await this.db.meta.put({ key: 'study', value: after?.study ?? some.at(-1)!.after });
        continue;
      }
      const table = this.db.table(type);
      const rows = await this.packs.write(type, some);
      const gone = rows.filter((change) => change.after === null).map(idOf);
      if (gone.length > 0) await table.bulkDelete(gone);
      const there = rows.flatMap((change) => (change.after ? [change.after] : []));
      if (there.length > 0) await table.bulkPut(there);
    }
  }

  /** Notes when a study file was made of this study. */
  async noteBackup(backup: Backup): Promise<void> {
    await this.db.meta.put({ key: 'backup', value: backup });
  }

  /** Everything, for a study file: read in one transaction, so it is of one moment. */
  async bundle(): Promise<StudyBundle> {
    const { db } = this;
    return db.transaction('r', db.tables, async () => {
      const opened = await this.open();
      const texts = [...(await db.text.toArray()), ...(((await this.packs.of(['text'])).get('text') ?? []) as Text[])];
      const media = new Map((await db.media.toArray()).map((row) => [row.sha256, row.blob]));
      const journal = (await db.journal.orderBy('seq').toArray()).map(fromRow);
      return { state: opened.state, history: opened.history, texts: new Map(texts.map((text) => [text.id, text])), media, journal };
    });
  }

  close(): void {
    this.db.close();
  }
}
