import { applyChange } from '../change/apply';
import { squash, type Change } from '../change/change';
import { checkChange } from '../change/check-change';
import type { JournalEntry } from '../change/journal';
import { carryOut } from '../commands/carry-out';
import type { ReadFile } from '../formats/read-file';
import { sha256OfFile } from '../formats/sha256';
import type { LeftOut } from '../formats/study-file/write-study-file';
import type { Table } from '../formats/table/table';
import { answerUpdates, updateAnswers, type AnswerUpdate } from '../material/answer-updates';
import { composeImport, type TextChoices } from '../material/compose-import';
import type { Difference, TableChoices, TablePlan } from '../material/plan-table';
import { previewOf, type Preview } from '../material/preview';
import { changeOfMedia, changeOfTexts, type MediaToStore, type TextToStore } from '../material/store-request';
import type { Text } from '../model/document';
import { randomId, type Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { Requests, type Tell } from '../requests/requests';
import { counted } from '../text/counted';
import { readCodebook, writeCodebook } from './codebook-files';
import { writeLog } from './log-files';
import { readMemos, writeMemos } from './memo-files';
import { PlannedAhead } from './planned-ahead';
import type { Keeper } from './read-material';
import type { Shelf } from './shelf';
import { openDemo, openStudyFile, studyFileOf, type DemoFiles, type StudyFileOutcome, type WrittenStudy } from './study-files';

/** A plan for a table, its change left empty: the records stay where they are. */
export type TablePlanSummary = TablePlan;

/** Where an entry goes in the journal of a study, and who acts. */
export interface EntrySlot {
  readonly studyId: Id;
  readonly seq: number;
  readonly coderId: Id;
  readonly now: number;
}

/** Most misfits, differences and rows left out that are sent to be shown. */
const SHOWN = 300;
const TOLD_AT_ONCE = 700;

/**
 * Work on files: what was read is kept here under a key until it is stored or let go, and studies come in and go out.
 * It knows no worker: it is run in one, and tested as it is.
 */
export class Filing implements Keeper {
  private readonly texts = new Map<number, ReadFile>();
  private readonly tables = new Map<number, Table>();
  private readonly requests = new Requests();
  /** What was stored last and is still to be told. */
  private waiting: Change = [];
  private updated = 0;
  private readonly ahead = new PlannedAhead();

  constructor(
    private readonly shelf: Shelf,
    private readonly demoFiles: DemoFiles,
  ) {}

  /** Ends a request, if it is still at work. */
  end(id: number): void {
    this.requests.end(id);
  }

  keepText(key: number, read: ReadFile): void {
    this.texts.set(key, read);
  }

  keepTable(key: number, table: Table): void {
    this.tables.set(key, table);
  }

  /** Lets go of what was read. */
  forget(keys: readonly number[]): void {
    for (const key of keys) {
      this.texts.delete(key);
      this.tables.delete(key);
    }
    this.ahead.clear();
  }

  /** A text as it would be stored. */
  preview(key: number, choices: TextChoices, paragraphs: number): Preview | null {
    const read = this.texts.get(key);
    return read ? previewOf(read.paragraphs, choices, paragraphs) : null;
  }

  /** The words of a text as they would be stored, to be put in the place of others. */
  words(key: number, choices: TextChoices): string {
    return composeImport('', this.texts.get(key)!.paragraphs, choices).text.text;
  }

  /** What bringing a table in would do. @param seq the last entry of the study's journal */
  async plan(key: number, choices: TableChoices, state: StudyState, seq: number): Promise<TablePlanSummary | { readonly trouble: string }> {
    try {
      const plan = this.ahead.plan(this.tables.get(key)!, choices, state, seq);
      void this.ahead.check();
      const { updates } = await this.updatesOf(plan, state);
      const answers = updates.map(({ caseId, caseName, question, before, after }): Difference => ({
        caseId,
        caseName,
        attribute: question,
        before,
        after,
      }));
      return {
        ...plan,
        change: [],
        known: [],
        misfits: plan.misfits.slice(0, SHOWN),
        differences: [...plan.differences, ...answers].slice(0, SHOWN),
        leftOut: plan.leftOut.slice(0, SHOWN),
      };
    } catch (error) {
      if (error instanceof RangeError) return { trouble: error.message };
      throw error;
    }
  }

  /**
   * Stores texts that were read, recordings and pictures, with what else comes in, as one entry of the journal.
   * @returns it without its records, which {@link takeStored} tells
   */
  async storeMaterial(
    place: EntrySlot,
    texts: readonly TextToStore[],
    media: readonly MediaToStore[],
    extra: Change,
    sentence: string,
  ): Promise<JournalEntry> {
    const change = [
      ...extra,
      ...changeOfMedia(media, place.now),
      ...changeOfTexts(texts, (key) => this.texts.get(key)!.paragraphs, place.now),
    ];
    const bytes = new Map([
      ...media.flatMap(({ document, file }) => (file ? [[document.ground.media.sha256, file] as const] : [])),
      ...texts.flatMap(({ document, file }) => (file && document.seen ? [[document.seen.media.sha256, file] as const] : [])),
    ]);
    return this.store(place, change, sentence, { media: bytes });
  }

  /** Stores a table as planned, as one entry of the journal. @returns it without its records, which {@link takeStored} tells */
  async storeTable(place: EntrySlot, key: number, choices: TableChoices, state: StudyState, sentence: string): Promise<JournalEntry> {
    const { plan, checked } = this.ahead.take(this.tables.get(key)!, choices, state, place.seq - 1, place.now);
    const { updates: all, texts: stored } = await this.updatesOf(plan, state);
    const updates = all.filter((update) => !choices.keep.has(update.caseId));
    this.updated = updates.length;
    if (updates.length === 0) return this.store(place, plan.change, sentence, { checked });
    const { change, after } = await this.withAnswers(place, plan.change, updates, stored);
    return this.store(place, change, `${sentence.slice(0, 440)}, and updated ${counted(updates.length, 'answer')}`, { after });
  }

  /** How many answers of documents that were there the table stored last has changed. */
  answersUpdated(): number {
    return this.updated;
  }

  /** The records of the entry that was stored last, some at a time, so that receiving them never takes long; empty when all are told. */
  takeStored(): Change {
    const some = this.waiting.slice(0, TOLD_AT_ONCE);
    this.waiting = this.waiting.slice(TOLD_AT_ONCE);
    return some;
  }

  /** Opens a study file: all of it, or nothing. @returns null if it was ended before it was stored */
  openStudyFile(id: number, tell: Tell, file: Blob, ifHere: 'ask' | 'copy'): Promise<StudyFileOutcome | null> {
    return this.requests.run('open a study file', id, ({ tell }) => openStudyFile(this.shelf, file, ifHere, tell), tell);
  }

  /** Makes a study file of a study. @returns null if it was ended */
  writeStudyFile(id: number, tell: Tell, studyId: Id, leave: LeftOut): Promise<WrittenStudy | null> {
    return this.requests.run('write a study file', id, ({ tell }) => studyFileOf(this.shelf, studyId, leave, tell), tell);
  }

  /** SHA-256 of a file, read bit by bit. @returns null if it was ended */
  sumOf(id: number, tell: Tell, file: Blob): Promise<string | null> {
    return this.requests.run(`sum ${id}`, id, ({ tell }) => sha256OfFile(file, (read) => tell(read / file.size)), tell);
  }

  /** Builds the demo study from the sources that ship with the application. */
  openDemo(): Promise<Id> {
    return openDemo(this.shelf, this.demoFiles);
  }

  readonly readCodebook = readCodebook;
  readonly writeCodebook = writeCodebook;
  readonly readMemos = readMemos;
  readonly writeMemos = writeMemos;
  readonly writeLog = writeLog;

  /** What a table changes together with the answers of earlier rows: facts and answers are one step. */
  private async withAnswers(
    { studyId, coderId, now }: EntrySlot,
    facts: Change,
    updates: readonly AnswerUpdate[],
    stored: ReadonlyMap<Id, Text>,
  ): Promise<{ readonly change: Change; readonly after: StudyState }> {
    const study = await this.shelf.take(studyId);
    try {
      const between = applyChange(await study.state(), facts);
      const action = carryOut(updateAnswers(updates, stored, ''), between, { coderId, now, newId: randomId });
      return action
        ? { change: squash(facts, action.change), after: applyChange(between, action.change) }
        : { change: facts, after: between };
    } finally {
      study.putBack();
    }
  }

  /**
   * Writes an entry.
   * @param after the study after it; not needed where the entry touches no passages
   * @param checked its records were checked before
   * @param media files that come in with it, by the SHA-256 of their bytes
   */
  private async store(
    { studyId, seq, coderId, now }: EntrySlot,
    change: Change,
    sentence: string,
    {
      after = null,
      checked = false,
      media,
    }: { readonly after?: StudyState | null; readonly checked?: boolean; readonly media?: ReadonlyMap<string, Blob> } = {},
  ): Promise<JournalEntry> {
    if (!checked) checkChange(change);
    const entry: JournalEntry = { seq, at: now, coderId, kind: 'act', of: null, sentence, change };
    const study = await this.shelf.take(studyId);
    try {
      await study.write(entry, after, media);
    } finally {
      study.putBack();
    }
    // new texts are read from disk when they are asked for; those that were changed may be in memory as they were
    this.waiting = change.filter((one) => one.type !== 'text' || one.before !== null);
    return { ...entry, change: [] };
  }

  /** Answers that a table has otherwise, with the texts they are in. */
  private async updatesOf(
    { known }: TablePlan,
    state: StudyState,
  ): Promise<{ readonly updates: readonly AnswerUpdate[]; readonly texts: ReadonlyMap<Id, Text> }> {
    if (known.length === 0) return { updates: [], texts: new Map() };
    const study = await this.shelf.take(state.study.id);
    try {
      const texts = new Map((await study.texts(known.map((row) => row.documentId))).map((text) => [text.id, text]));
      return { updates: answerUpdates(known, state.tables.document, texts), texts };
    } finally {
      study.putBack();
    }
  }
}
