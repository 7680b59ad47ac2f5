import type { ReadFile, ReadOptions } from '@core/formats/read-file';
import type { Document, DocumentKind, Text } from '@core/model/document';
import type { Id, NewId } from '@core/model/ids';
import { composeText } from '@core/text/draft-text';
import { tidyLine } from '@core/text/normalise';
import { labelsOf } from '@core/text/speakers';

/** A file on its way in: its bytes, how it was read, and what the researcher decided. */
export interface ImportItem {
  readonly key: number;
  readonly fileName: string;
  readonly bytes: Uint8Array;
  readonly options: ReadOptions;
  /** Pasted text has no file to be found again by. */
  readonly pasted: boolean;
  readonly state: 'reading' | 'read' | 'trouble';
  readonly read: ReadFile | null;
  readonly trouble: string;
  readonly encodings: readonly string[];
  /** Whether it comes in. */
  readonly wanted: boolean;
  readonly title: string;
  readonly kind: DocumentKind;
  readonly date: string;
  /** Names that label turns, as far as they are taken for speakers. */
  readonly speakers: ReadonlySet<string>;
  /** Title of a document that came from a file with the same content. */
  readonly sameAs: string | null;
}

/** A file that was just chosen, before it is read. */
export function newItem(key: number, fileName: string, bytes: Uint8Array, pasted = false): ImportItem {
  return {
    key,
    fileName,
    bytes,
    options: {},
    pasted,
    state: 'reading',
    read: null,
    trouble: '',
    encodings: [],
    wanted: true,
    title: '',
    kind: 'interview',
    date: '',
    speakers: new Set(),
    sameAs: null,
  };
}

/** The item once its file is read; what was decided before stays. */
export function withRead(item: ImportItem, read: ReadFile, sameAs: string | null): ImportItem {
  const first = item.read === null;
  const speakers = first ? new Set(read.speakers.map((speaker) => speaker.name)) : item.speakers;
  return {
    ...item,
    state: 'read',
    read,
    trouble: '',
    sameAs,
    wanted: first ? sameAs === null : item.wanted,
    title: first ? read.title : item.title,
    kind: first ? guessKind(read, speakers.size) : item.kind,
    date: item.date || dateIn(item.fileName),
    speakers,
  };
}

/** The document and text that storing an item makes. */
export function toDocument(item: ImportItem, folderId: Id | null, newId: NewId, now: number): { document: Document; text: Text } {
  const id = newId();
  const { text, speakers, words } = composeText(id, item.read!.paragraphs, labelsOf(item.speakers));
  const source = item.pasted ? null : { fileName: item.fileName, sha256: item.read!.sha256 };
  return {
    document: {
      id,
      title: tidyLine(item.title) || 'Untitled',
      kind: item.kind,
      date: item.date || null,
      folderId,
      description: '',
      speakers,
      characters: text.text.length,
      words,
      source,
      values: {},
      answers: [],
      createdAt: now,
    },
    text,
  };
}

function guessKind(read: ReadFile, speakers: number): DocumentKind {
  if (/field ?note|observation/i.test(read.title)) return 'field note';
  if (/focus ?group/i.test(read.title) || speakers > 3) return 'focus group';
  return speakers > 0 ? 'interview' : 'public document';
}

/** A date in a file name such as `2025-01-22 Shona.docx`. */
function dateIn(fileName: string): string {
  const match = /(\d{4})[-_.]?(0[1-9]|1[0-2])[-_.]?(0[1-9]|[12]\d|3[01])(?!\d)/.exec(fileName);
  return match ? `${match[1]}-${match[2]}-${match[3]}` : '';
}
