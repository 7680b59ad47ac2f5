import { readFile, titleOfFile, LARGEST_FILE, type ReadFile, type ReadOptions } from '../formats/read-file';
import { endingOf, TABLE_ENDINGS } from '../formats/readable-endings';
import { isRecordingEnding } from '../formats/recording/recording-endings';
import { isPictureEnding } from '../formats/picture/picture-endings';
import type { PictureFacts } from '../formats/picture/read-picture';
import type { RecordingFacts } from '../formats/recording/read-recording';
import { UnreadableFileError, type Progress, type Remedy } from '../formats/reading';
import { sha256 } from '../formats/sha256';
import { guessRoles, typesOf, type Column } from '../formats/table/guess-roles';
import { readTable } from '../formats/table/read-table';
import type { Table, TableOptions } from '../formats/table/table';
import { DAMAGED } from './damaged';
import { nobodyIn } from '../text/draft-text';
import { guessMarkers, type MarkerGuess } from '../questions/find-questions';

/** What is known of a text that was read; its words are kept by the files worker. */
export interface TextSummary extends Omit<ReadFile, 'paragraphs'> {
  readonly total: number;
  readonly guesses: readonly MarkerGuess[];
  /** Paragraphs, by their place, that are nobody's as far as the file tells. */
  readonly nobody: readonly number[];
  /** When the file was last changed, ms since 1970; null for pasted text. Asking for it waits for the disk. */
  readonly changedAt: number | null;
}

/** What is known of a table that was read; its rows are kept by the files worker, but for the first. */
export interface TableSummary extends Omit<Table, 'rows' | 'rowNumbers'> {
  readonly total: number;
  readonly first: readonly (readonly string[])[];
  readonly asDocuments: readonly Column[];
  readonly asCases: readonly Column[];
  readonly sha256: string;
}

/** What is known of a recording that was looked into; its bytes stay in their file. */
export interface RecordingSummary extends RecordingFacts {
  readonly title: string;
  readonly changedAt: number | null;
}

/** What is known of a picture that was looked into. */
export interface PictureSummary extends PictureFacts {
  readonly title: string;
  readonly changedAt: number | null;
  /** SHA-256 of the picture as it is kept. */
  readonly bareSha256: string;
}

/** A file that was read, or why it was not. */
export type FileOutcome =
  | { readonly text: TextSummary }
  | { readonly table: TableSummary }
  | { readonly recording: RecordingSummary }
  | { readonly picture: PictureSummary }
  | FileTrouble;

/** Why a file could not be read, and what may help. */
export interface FileTrouble {
  readonly trouble: string;
  /** Encodings on offer, where the encoding is the trouble. */
  readonly encodings: readonly string[];
  readonly remedy: Remedy;
}

/** Where a reader puts what it read. */
export interface Keeper {
  keepText(key: number, read: ReadFile): void | Promise<void>;
  keepTable(key: number, table: Table): void | Promise<void>;
}

/** Rows of a table that are shown. */
const FIRST_ROWS = 12;

/**
 * Reads one file, gives all of it to the keeper, and tells what is known of it; nothing is stored.
 * @param progress told the share that is read, where the file is of a kind that takes long
 * @param shows tries whether a picture can be shown, where there is something that shows pictures
 */
export async function readMaterial(
  key: number,
  name: string,
  file: Blob,
  options: ReadOptions & TableOptions,
  keeper: Keeper,
  progress?: Progress,
  shows?: (picture: Blob) => Promise<boolean>,
): Promise<FileOutcome> {
  const changedAt = file instanceof File ? file.lastModified : null;
  try {
    if (isRecordingEnding(endingOf(name))) {
      // what reads sound and film is loaded where there is some
      const { readRecording } = await import('../formats/recording/read-recording');
      return { recording: { ...(await readRecording(endingOf(name), file, progress)), title: titleOfFile(name), changedAt } };
    }
    if (isPictureEnding(endingOf(name))) {
      const { readPicture } = await import('../formats/picture/read-picture');
      const facts = await readPicture(endingOf(name), file);
      if (shows && !(await shows(facts.bare)))
        throw new UnreadableFileError(
          'The picture is damaged or was cut off: it cannot be shown. Copy it from where it was taken once more.',
        );
      const bareSha256 = await sha256(new Uint8Array(await facts.bare.arrayBuffer()));
      return { picture: { ...facts, title: titleOfFile(name), changedAt, bareSha256 } };
    }
    if (file.size > LARGEST_FILE) throw new UnreadableFileError('The file is larger than 100 MB. Split it and bring in the parts.');
    const bytes = new Uint8Array(await file.arrayBuffer());
    if ((TABLE_ENDINGS as readonly string[]).includes(endingOf(name))) {
      const table = await readTable(name, bytes, options);
      await keeper.keepTable(key, table);
      return { table: await summaryOf(table, bytes) };
    }
    const read = await readFile(name, bytes, options, progress);
    await keeper.keepText(key, read);
    const { paragraphs, ...about } = read;
    return {
      text: {
        ...about,
        total: paragraphs.length,
        guesses: guessMarkers(paragraphs),
        nobody: nobodyIn(paragraphs),
        changedAt,
      },
    };
  } catch (error) {
    if (!(error instanceof UnreadableFileError)) return { trouble: DAMAGED, encodings: [], remedy: {} };
    return { trouble: error.message, encodings: error.encodings, remedy: error.remedy };
  }
}

async function summaryOf(table: Table, bytes: Uint8Array): Promise<TableSummary> {
  const { rows, rowNumbers, ...about } = table;
  const types = typesOf(table);
  return {
    ...about,
    total: rowNumbers.length,
    first: rows.slice(0, FIRST_ROWS),
    asDocuments: guessRoles(table, true, types),
    asCases: guessRoles(table, false, types),
    sha256: await sha256(bytes),
  };
}
