import type { JournalEntry } from '../change/journal';
import type { StudyBundle } from '../formats/study-file/bundle';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';

/** Where studies are kept. */
export interface Shelf {
  has(studyId: Id): Promise<boolean>;
  titles(): Promise<ReadonlySet<string>>;
  /** Stores a whole study: it is there entirely or not at all. @param backedUp it comes from a study file */
  add(bundle: StudyBundle, backedUp: boolean): Promise<void>;
  /** Takes a study to read and write in it. @throws Error if it is not there */
  take(studyId: Id): Promise<ShelvedStudy>;
}

/** A study that was taken from where it is kept, until it is put back. */
export interface ShelvedStudy {
  state(): Promise<StudyState>;
  texts(documentIds: readonly Id[]): Promise<readonly Text[]>;
  /** Everything, of one moment. */
  whole(): Promise<StudyBundle>;
  /**
   * Writes an entry with all it changes.
   * @param after the study after it; null where it touches no passages
   * @param media files that come in with it, by the SHA-256 of their bytes
   */
  write(entry: JournalEntry, after: StudyState | null, media?: ReadonlyMap<string, Blob>): Promise<void>;
  putBack(): void;
}
