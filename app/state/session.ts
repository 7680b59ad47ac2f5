import type { Action, Command } from '@core/change/command';
import type { JournalEntry } from '@core/change/journal';
import type { EntrySlot } from '@core/filing/filing';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { JournalFilter, JournalPage } from '../storage/journal-search';
import type { Backup } from '../storage/study-storage';

/** What became of a command: what it did (null for nothing to do), or why it was refused. */
export interface Outcome {
  readonly done: Action | null;
  readonly refused: string | null;
}

/** What is on the screen and could not be written. */
export interface Unsaved {
  /** What was done, in words, oldest first. */
  readonly steps: readonly string[];
  readonly reason: string;
}

/** What components do with the open study: change it, take back, and ask for texts and for its journal. */
export interface Session {
  /** Opens a study in this tab, as its writer if no other tab is. @throws NoSuchStudyError, NewerVersionError */
  open(studyId: Id): Promise<void>;
  /**
   * Closes the study once everything is on disk.
   * @returns false if something could not be written: it is still open then
   */
  close(): Promise<boolean>;

  /**
   * Carries out a command: on the screen at once, on disk next. A refusal is said at the foot of the window.
   * @param media files that come in with it, by the SHA-256 of their bytes
   * @returns what was done, or null if there was nothing to do or it was refused
   */
  run(command: Command, media?: ReadonlyMap<string, Blob>): Action | null;
  /** As {@link run}, but a refusal is left to the caller to say: beside what was typed, for instance. */
  attempt(command: Command, media?: ReadonlyMap<string, Blob>): Outcome;
  /**
   * Carries out something large in a worker, which writes it to disk itself. Meanwhile nothing else can be done.
   * @param write is given the place in the journal, and gives back the entry without its new texts
   * @returns the entry, or null if it was refused or failed (and said so)
   */
  runAway(write: (place: EntrySlot) => Promise<JournalEntry>): Promise<JournalEntry | null>;
  /** Takes back the last act, or brings it back. @returns the sentence of the act, or null */
  step(kind: 'undo' | 'redo'): Promise<string | null>;

  /** Tries again to write what could not be written. */
  retry(): void;
  /** Done when everything on the screen is on disk, or could not be written. */
  settled(): Promise<void>;
  /** What is on the screen and could not be written, or null. To be asked when all has {@link settled}. */
  unsaved(): Unsaved | null;
  /** Gives up what could not be written, so that the study can be left. */
  giveUp(): void;
  /** Becomes the writer in place of the tab that is. */
  takeOver(): Promise<void>;
  /** Notes that a study file was made. */
  noteBackup(backup: Backup): Promise<void>;

  /** Texts of documents, from memory or disk; documents without one are left out. */
  textsOf(documentIds: readonly Id[]): Promise<Text[]>;

  /** A page of the journal, newest first. */
  journal(before: number, limit: number): Promise<JournalEntry[]>;
  /** Entries of the journal that touch something (see `touchesOf`), the newest first. */
  touching(what: string, after?: number): Promise<JournalEntry[]>;
  /** Entries of the journal by a filter, a page at a time, the newest first. */
  findEntries(filter: JournalFilter, before: number, limit: number, goOn?: () => boolean): Promise<JournalPage>;
  /** Makes ready what finding in a long journal needs, in the background. @param goOn asked again and again; false ends it */
  digestJournal(goOn: () => boolean): Promise<void>;
  /** Entries made at or after a moment, in no order. */
  since(time: number): Promise<JournalEntry[]>;
}
