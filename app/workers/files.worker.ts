import { counted } from '@core/text/counted';
/// <reference lib="webworker" />
import { checkChange } from '@core/change/check-change';
import { expose } from 'comlink';
import { squash, type Change } from '@core/change/change';
import type { JournalEntry } from '@core/change/journal';
import type { ReadFile } from '@core/formats/read-file';
import type { Table } from '@core/formats/table/table';
import { composeImport, type TextChoices } from '@core/material/compose-import';
import { applyChange } from '@core/change/apply';
import { carryOut } from '@core/commands/carry-out';
import { answerUpdates, updateAnswers, type AnswerUpdate } from '@core/material/answer-updates';
import { planTable, type Difference, type TableChoices, type TablePlan } from '@core/material/plan-table';
import { previewOf, type Preview } from '@core/material/preview';
import { changeOfTexts, type TextToStore } from '@core/material/store-request';
import type { Text } from '@core/model/document';
import type { StudyState } from '@core/model/study-state';
import { asCopy } from '@core/formats/study-file/as-copy';
import { readStudyFile, StudyFileError } from '@core/formats/study-file/read-study-file';
import { writeStudyFile } from '@core/formats/study-file/write-study-file';
import { randomId, type Id } from '@core/model/ids';
import { NewerVersionError } from '@core/model/schema-version';
import { buildDemoStudy, demoSourcePaths } from '@core/sample/demo-study';
import { listStudies, studyExists } from '../storage/study-list';
import { StudyStorage } from '../storage/study-storage';
import { readCodebook, writeCodebook } from './codebook-files';
import { writeLog } from './log-files';
import { readMemos, writeMemos } from './memo-files';
import type { Keeper } from './read-material';

export type { CodebookForm, CodebookOptions, CodebookRead } from './codebook-files';
export type { LogRow } from './log-files';
export type { MemoForm } from './memo-files';

/** A plan for a table, its change left empty: the records stay in the worker. */
export type TablePlanSummary = TablePlan;

/** Where an entry goes in the journal of a study, and who acts. */
export interface EntryPlace {
  readonly studyId: Id;
  readonly seq: number;
  readonly coderId: Id;
  readonly now: number;
}

/** Most misfits, differences and rows left out that are sent to be shown. */
const SHOWN = 300;
const TOLD_AT_ONCE = 700;

const texts = new Map<number, ReadFile>();
const tables = new Map<number, Table>();

/** What was read is kept under a key until it is stored or let go. */
const keeper: Keeper = {
  keepText: (key, read) => void texts.set(key, read),
  keepTable: (key, table) => void tables.set(key, table),
};

/** What became of a study file. */
export type StudyFileOutcome =
  | { readonly opened: Id }
  /** A study with this id is here already; nothing was stored. */
  | { readonly alreadyHere: Id; readonly title: string }
  | { readonly trouble: string };

/** Work on files, away from the interface. */
const files = {
  /** Keeps what a reader reads. @param port leads to the reader */
  keepFrom(port: MessagePort): void {
    expose(keeper, port);
  },

  /** Lets go of what was read. */
  forget(keys: readonly number[]): void {
    for (const key of keys) {
      texts.delete(key);
      tables.delete(key);
    }
  },

  /** A text as it would be stored. */
  preview(key: number, choices: TextChoices, paragraphs: number): Preview | null {
    const read = texts.get(key);
    return read ? previewOf(read.paragraphs, choices, paragraphs) : null;
  },

  /** The words of a text as they would be stored, to be put in the place of others. */
  words(key: number, choices: TextChoices): string {
    return composeImport('', texts.get(key)!.paragraphs, choices).text.text;
  },

  /** What bringing a table in would do. */
  async plan(key: number, choices: TableChoices, state: StudyState): Promise<TablePlanSummary | { readonly trouble: string }> {
    try {
      const plan = planTable(tables.get(key)!, choices, state, randomId, 0);
      const { updates } = await updatesOf(plan, state);
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
  },

  /** Stores texts that were read, with what else comes in, as one entry of the journal. @returns it without its records, which {@link takeStored} tells */
  async storeTexts(place: EntryPlace, items: readonly TextToStore[], extra: Change, sentence: string): Promise<JournalEntry> {
    const change = [...extra, ...changeOfTexts(items, (key) => texts.get(key)!.paragraphs, place.now)];
    return store(place, change, sentence);
  },

  /** Stores a table as planned, as one entry of the journal. @returns it without its records, which {@link takeStored} tells */
  async storeTable(place: EntryPlace, key: number, choices: TableChoices, state: StudyState, sentence: string): Promise<JournalEntry> {
    const plan = planTable(tables.get(key)!, choices, state, randomId, place.now);
    const { updates: all, texts: stored } = await updatesOf(plan, state);
    const updates = all.filter((update) => !choices.keep.has(update.caseId));
    answersUpdated = updates.length;
    if (updates.length === 0) return store(place, plan.change, sentence);
    const { change, after } = await withAnswers(place, plan.change, updates, stored);
    const answers = `${counted(updates.length, 'answer')}`;
    return store(place, change, `${sentence.slice(0, 440)}, and updated ${answers}`, after);
  },

  /** How many answers of documents that were there the table stored last has changed. */
  answersUpdated(): number {
    return answersUpdated;
  },

  /** The records of the entry that was stored last, some at a time, so that receiving them never takes long; empty when all are told. */
  takeStored(): Change {
    const some = waiting.slice(0, TOLD_AT_ONCE);
    waiting = waiting.slice(TOLD_AT_ONCE);
    return some;
  },

  /** Opens a study file into this browser: all of it, or nothing. */
  async openStudyFile(bytes: Uint8Array, ifHere: 'ask' | 'copy', progress: (share: number) => void): Promise<StudyFileOutcome> {
    try {
      let bundle = await readStudyFile(bytes, progress);
      const { id, title } = bundle.state.study;
      if (await studyExists(id)) {
        if (ifHere === 'ask') return { alreadyHere: id, title };
        bundle = asCopy(bundle, randomId(), new Set((await listStudies()).map((one) => one.study.title)));
      }
      await StudyStorage.create(bundle, { at: Date.now(), through: bundle.history.seq });
      return { opened: bundle.state.study.id };
    } catch (error) {
      if (error instanceof StudyFileError || error instanceof NewerVersionError) return { trouble: error.message };
      return { trouble: `The study could not be stored (${error instanceof Error ? error.message : String(error)}). Nothing was changed.` };
    }
  },

  /** Makes a study file of a study in this browser, from one moment of it. */
  async writeStudyFile(
    studyId: Id,
    progress: (share: number) => void,
    withoutHistory: boolean,
  ): Promise<{ bytes: Uint8Array; through: number }> {
    const storage = await StudyStorage.of(studyId);
    try {
      const bundle = await storage.bundle();
      return { bytes: await writeStudyFile(bundle, Date.now(), progress, withoutHistory), through: bundle.history.seq };
    } finally {
      storage.close();
    }
  },

  readCodebook,
  writeCodebook,
  readMemos,
  writeMemos,
  writeLog,

  /** Builds the demo study from the sources that ship with the application. */
  async openDemo(): Promise<Id> {
    const sources = await Promise.all(
      demoSourcePaths().map(async (path): Promise<[string, string]> => {
        const response = await fetch(new URL(`/demo/${path}`, self.location.origin));
        if (!response.ok) throw new Error(`The demo study’s source ${path} is missing.`);
        return [path, await response.text()];
      }),
    );
    const bundle = buildDemoStudy(new Map(sources));
    if (!(await studyExists(bundle.state.study.id))) await StudyStorage.create(bundle);
    return bundle.state.study.id;
  },
};

/** What was stored last and is still to be told. */
let waiting: Change = [];
let answersUpdated = 0;

/** What a table changes together with the answers of earlier rows: facts and answers are one step. */
async function withAnswers(
  { studyId, coderId, now }: EntryPlace,
  facts: Change,
  updates: readonly AnswerUpdate[],
  stored: ReadonlyMap<Id, Text>,
): Promise<{ readonly change: Change; readonly after: StudyState }> {
  const storage = await StudyStorage.of(studyId);
  try {
    const { state } = await storage.open();
    const between = applyChange(state, facts);
    const action = carryOut(updateAnswers(updates, stored, ''), between, { coderId, now, newId: randomId });
    return action
      ? { change: squash(facts, action.change), after: applyChange(between, action.change) }
      : { change: facts, after: between };
  } finally {
    storage.close();
  }
}

/** Writes an entry. @param after the study after it; not needed where the entry touches no passages */
async function store(
  { studyId, seq, coderId, now }: EntryPlace,
  change: Change,
  sentence: string,
  after: StudyState | null = null,
): Promise<JournalEntry> {
  checkChange(change);
  const entry: JournalEntry = { seq, at: now, coderId, kind: 'act', of: null, sentence, change };
  const storage = await StudyStorage.of(studyId);
  try {
    await storage.commit(entry, after);
  } finally {
    storage.close();
  }
  // new texts are read from disk when they are asked for; those that were changed may be in memory as they were
  waiting = change.filter((one) => one.type !== 'text' || one.before !== null);
  return { ...entry, change: [] };
}

/** Answers that a table has otherwise, with the texts they are in. */
async function updatesOf(
  { known }: TablePlan,
  state: StudyState,
): Promise<{ readonly updates: readonly AnswerUpdate[]; readonly texts: ReadonlyMap<Id, Text> }> {
  if (known.length === 0) return { updates: [], texts: new Map() };
  const storage = await StudyStorage.of(state.study.id);
  try {
    const texts = new Map((await storage.texts(known.map((row) => row.documentId))).map((text) => [text.id, text]));
    return { updates: answerUpdates(known, state.tables.document, texts), texts };
  } finally {
    storage.close();
  }
}

export type FilesWorker = typeof files;
expose(files);
