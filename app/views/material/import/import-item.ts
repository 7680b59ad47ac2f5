import type { ReadOptions } from '@core/formats/read-file';
import type { Remedy } from '@core/formats/reading';
import type { Column } from '@core/formats/table/guess-roles';
import type { TableOptions } from '@core/formats/table/table';
import { looksLikeInterviewer } from '@core/text/draft-text';
import { namesTaken } from '@core/text/speakers';
import { speakersAsWritten, type SpeakerChoice, type TextChoices } from '@core/material/compose-import';
import type { RowsBecome } from '@core/material/plan-table';
import type { DocumentKind } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Markers } from '@core/questions/find-questions';
import type { PictureSummary, RecordingSummary, TableSummary, TextSummary } from '@core/filing/read-material';

/** What is done with a file whose content the study has already. */
export type IfKnown = 'skip' | 'replace' | 'as new';

/** A file on its way in: how it was read, and what the researcher decided. */
export interface ImportItem {
  readonly key: number;
  readonly fileName: string;
  /** Folders it lies in, as they were chosen, divided by `/`; empty for a single file. */
  readonly path: string;
  readonly file: Blob;
  /** When the file was last changed, ms since 1970; null for pasted text. */
  readonly changedAt: number | null;
  readonly options: ReadOptions & TableOptions;
  /** Pasted text has no file to be found again by. */
  readonly pasted: boolean;
  readonly state: 'reading' | 'read' | 'trouble';
  readonly text: TextSummary | null;
  readonly table: TableSummary | null;
  readonly recording: RecordingSummary | null;
  readonly picture: PictureSummary | null;
  /** Of a picture: what the camera wrote into it stays in the picture that is kept. */
  readonly withMetadata: boolean;
  /** Of a PDF: its file is kept, so that its pages can be seen. */
  readonly keepPages: boolean;
  /** Of a picture: when and where it was taken become attributes. */
  readonly factsWanted: boolean;
  /** Of a recording: its file stays where it is, and the study keeps only what is done with it. */
  readonly stays: boolean;
  /** A way to the file that the browser can keep. */
  readonly handle: FileSystemFileHandle | null;
  /** Of a text: the recording it is a transcript of, by id, or by `file KEY` where it comes in with it; undefined where that is guessed. */
  readonly transcriptOf: string | null | undefined;
  readonly trouble: string;
  readonly encodings: readonly string[];
  /** What may help to read a file that cannot be read as it is. */
  readonly remedy: Remedy;
  /** Whether it comes in. */
  readonly wanted: boolean;
  readonly title: string;
  readonly kind: DocumentKind;
  readonly date: string;
  /** By label as written. */
  readonly speakers: Readonly<Record<string, SpeakerChoice>>;
  readonly nobody: readonly number[];
  readonly markers: Markers | null;
  /** The case that the whole document belongs to, or null. */
  readonly caseId: Id | null;
  /** The document with the same content, if there is one. */
  readonly sameAs: { readonly id: Id | null; readonly title: string } | null;
  readonly ifKnown: IfKnown;
  /** For a table. */
  readonly columns: readonly Column[];
  readonly rowsBecome: RowsBecome;
  readonly keep: ReadonlySet<Id>;
}

/** A file that was just chosen, before it is read. */
export function newItem(key: number, fileName: string, file: Blob, fields: Partial<ImportItem> = {}): ImportItem {
  return {
    key,
    fileName,
    path: '',
    file,
    changedAt: null,
    options: {},
    pasted: false,
    state: 'reading',
    text: null,
    table: null,
    recording: null,
    picture: null,
    withMetadata: false,
    factsWanted: false,
    keepPages: true,
    stays: false,
    handle: null,
    transcriptOf: undefined,
    trouble: '',
    encodings: [],
    remedy: {},
    wanted: true,
    title: '',
    kind: 'interview',
    date: '',
    speakers: {},
    nobody: [],
    markers: null,
    caseId: null,
    sameAs: null,
    ifKnown: 'skip',
    columns: [],
    rowsBecome: 'a document each',
    keep: new Set(),
    ...fields,
  };
}

/** The item once its text is read; what was decided before stays. */
export function withText(item: ImportItem, text: TextSummary, sameAs: ImportItem['sameAs']): ImportItem {
  const first = item.text === null;
  const speakers = speakersOf(item, text);
  const markers = first && isStructured(text) ? text.guesses[0]! : item.markers;
  return {
    ...item,
    state: 'read',
    text,
    changedAt: text.changedAt,
    trouble: '',
    encodings: [],
    remedy: {},
    sameAs,
    wanted: first ? sameAs === null : item.wanted,
    title: first ? text.title : item.title,
    kind: first ? guessKind(text, Object.keys(speakers)) : item.kind,
    date: item.date || (text.date ?? dateIn(item.fileName)),
    speakers,
    markers,
    // other options may give other paragraphs
    nobody: text.nobody,
  };
}

/** A recording of more bytes stays where it is, unless the researcher says otherwise. */
const LARGE = 500_000_000;

/** The item once its recording was looked into; what was decided before stays. */
export function withRecording(item: ImportItem, recording: RecordingSummary, sameAs: ImportItem['sameAs']): ImportItem {
  const first = item.recording === null;
  return {
    ...item,
    state: 'read',
    recording,
    changedAt: recording.changedAt,
    trouble: '',
    encodings: [],
    remedy: {},
    sameAs,
    wanted: first ? sameAs === null : item.wanted,
    title: first ? recording.title : item.title,
    kind: 'recording',
    stays: first ? recording.bytes > LARGE : item.stays,
    date: item.date || dateIn(item.fileName),
  };
}

/** The item once its picture was looked into; what was decided before stays. */
export function withPicture(item: ImportItem, picture: PictureSummary, sameAs: ImportItem['sameAs']): ImportItem {
  const first = item.picture === null;
  return {
    ...item,
    state: 'read',
    picture,
    changedAt: picture.changedAt,
    trouble: '',
    encodings: [],
    remedy: {},
    sameAs,
    wanted: first ? sameAs === null : item.wanted,
    title: first ? picture.title : item.title,
    kind: 'picture',
    date: item.date || dateIn(item.fileName),
  };
}

/** What a file is, whatever it is. */
export const contentOf = ({ text, table, recording, picture }: ImportItem): { readonly sha256: string } | null =>
  text ?? table ?? recording ?? picture;

/** A file name without its ending, and without the mark of a language before it: what a recording and its transcript share. */
export const stemOf = (fileName: string): string =>
  fileName
    .replace(/\.[^.]+$/, '')
    .replace(/[._-][a-z]{2}$/i, '')
    .trim()
    .toLocaleLowerCase();

/** The item once its table is read; roles are guessed anew when the columns are others. */
export function withTable(item: ImportItem, table: TableSummary, sameAs: ImportItem['sameAs']): ImportItem {
  const same = item.columns.map((column) => column.name).join('\n') === table.header.join('\n');
  const questions = table.asDocuments.some((column) => column.role === 'question');
  const rowsBecome = same ? item.rowsBecome : questions ? 'a document each' : 'cases only';
  return {
    ...item,
    state: 'read',
    table,
    sameAs,
    trouble: '',
    encodings: [],
    remedy: {},
    title: item.title || nameOf(item, table),
    kind: 'survey answers',
    rowsBecome,
    columns: same ? item.columns : rowsBecome === 'cases only' ? table.asCases : table.asDocuments,
  };
}

/** A table is called by its file, and by its sheet where there are several. */
const nameOf = ({ fileName }: ImportItem, { sheets, sheet }: TableSummary): string =>
  sheets.length > 1 ? `${fileName}, ${sheet}` : fileName;

/** What was decided about a label stays; one that was not there in the reading before is taken as it is written. */
function speakersOf({ text: before, speakers }: ImportItem, text: TextSummary): ImportItem['speakers'] {
  const known = new Set(before?.speakers.map((label) => label.name));
  const found = new Set(text.speakers.map((label) => label.name));
  return {
    ...Object.fromEntries(Object.entries(speakers).filter(([label]) => found.has(label))),
    ...speakersAsWritten(namesTaken(text.speakers).filter((name) => !known.has(name))),
  };
}

/** What storing the text takes from the item. */
export const choicesOf = ({ speakers, nobody, markers }: ImportItem): TextChoices => ({ speakers, nobody, markers });

/** Structured by its looks: `Q:` labels, or numbered or bold questions. An interviewer's name alone says nothing of that. */
function isStructured({ guesses }: TextSummary): boolean {
  const question = guesses[0]?.question;
  return question !== undefined && (question.kind !== 'label' || /^(q|question|frage)\d*\.?$/i.test(question.name));
}

/** The kind, by the title and by who really speaks: a name that labels one line is nobody's company. */
function guessKind(text: TextSummary, speakers: readonly string[]): DocumentKind {
  if (/field ?note|observation/i.test(text.title)) return 'field note';
  const company = text.speakers.filter(({ name, turns, taken }) => taken && turns > 1 && !looksLikeInterviewer(name));
  if (/focus ?group/i.test(text.title) || company.length > 2) return 'focus group';
  return speakers.length > 0 ? 'interview' : 'public document';
}

/** A date in a file name such as `2025-01-22 Shona.docx`. */
function dateIn(fileName: string): string {
  const match = /(\d{4})[-_.]?(0[1-9]|1[0-2])[-_.]?(0[1-9]|[12]\d|3[01])(?!\d)/.exec(fileName);
  return match ? `${match[1]}-${match[2]}-${match[3]}` : '';
}
