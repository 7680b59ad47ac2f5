import type { Case } from '../model/case';
import type { Document, Text } from '../model/document';
import type { Id, NewId } from '../model/ids';
import type { Passage } from '../model/passage';
import type { Coder } from '../model/study';
import type { Stretch } from '../model/stretch';
import { quoted } from '../text/quoted';

/** A row of `demo/codings.csv`: words of a document, or all from some words to some others, and the keys of their codes. */
export type CodingRow = Readonly<Record<'document' | 'from' | 'to' | 'codes' | 'coder', string>>;

/** A row of `demo/stretches.csv`: what of a document a participant owns. */
export type StretchRow = Readonly<Record<'document' | 'from' | 'to' | 'participant', string>>;

/** What codings and stretches are added to. */
interface Coded {
  readonly newId: NewId;
  readonly coders: readonly Coder[];
  readonly documents: readonly Document[];
  readonly texts: ReadonlyMap<Id, Text>;
  readonly passages: Map<Id, Passage[]>;
  readonly codeOf: (key: string) => Id;
}

/** When the first of them was coded: after all that is marked in the texts themselves. One follows another by a minute. */
const CODED_FROM = Date.UTC(2025, 4, 12, 9);
const MINUTE = 60_000;

/**
 * Codes passages that the marked sources cannot mark: answers of the survey and of the interviews at the pier, and
 * passages that reach over paragraphs, touch one another or lie in what the interviewer says.
 */
export function addCodings(study: Coded, rows: readonly CodingRow[]): void {
  for (const [at, row] of rows.entries()) {
    const { document, start, end } = placeOf(row, study.documents, study.texts);
    const coder = study.coders.find(({ name }) => name === (row.coder || 'Mara'));
    if (!coder) throw new Error(`${quoted(row.coder)} is no coder of the study.`);
    const createdAt = CODED_FROM + at * MINUTE;
    const given = { coderId: coder.id, createdAt };
    const codings = row.codes.split(' ').map((key) => ({ codeId: study.codeOf(key), ...given }));
    const passage: Passage = { id: study.newId(), documentId: document.id, start, end, comment: '', ...given, codings };
    study.passages.set(document.id, [...(study.passages.get(document.id) ?? []), passage]);
  }
}

/** Gives participants the stretches that are theirs. */
export function addStretches(study: Pick<Coded, 'documents' | 'texts'>, cases: readonly Case[], rows: readonly StretchRow[]): void {
  for (const row of rows) {
    const { document, start, end } = placeOf(row, study.documents, study.texts);
    const owner = cases.find(({ name }) => name === row.participant);
    if (!owner) throw new Error(`${quoted(row.participant)} is no participant of the study.`);
    owner.stretches.push({ documentId: document.id, start, end });
  }
}

/** Where words stand, which must be there once. */
function placeOf(
  { document: title, from, to }: Pick<CodingRow, 'document' | 'from' | 'to'>,
  documents: readonly Document[],
  texts: ReadonlyMap<Id, Text>,
): Stretch & { readonly document: Document } {
  const document = documents.find((one) => one.title === title);
  const text = document && texts.get(document.id)?.text;
  if (!document || text === undefined) throw new Error(`${quoted(title)} is no text of the study.`);
  const start = text.indexOf(from);
  if (start < 0 || text.includes(from, start + 1)) throw new Error(`${quoted(from)} does not stand once in ${title}.`);
  const last = to ? text.indexOf(to, start) : start;
  if (last < 0) throw new Error(`${quoted(to)} does not stand after ${quoted(from)} in ${title}.`);
  return { document, start, end: last + (to || from).length };
}
