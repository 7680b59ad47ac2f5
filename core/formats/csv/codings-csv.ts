import type { Text } from '../../model/document';
import type { Id } from '../../model/ids';
import type { StudyState } from '../../model/study-state';
import { lineage } from '../../passages/counting';
import { unpackPassages } from '../../passages/columns';
import { speakerAt } from '../../text/paragraphs';
import { placeOf } from '../../text/citation';
import { writeCsv } from './write-csv';

const HEADINGS = [
  'document',
  'case',
  'speaker',
  'position',
  'start',
  'end',
  'text',
  'code',
  'parents',
  'coder',
  'time',
  'rating',
  'comment',
] as const;

/**
 * All codings as a table, one row a coding; a passage without a code has one row with an empty code.
 * `start` and `end` count characters of a text, milliseconds of a recording or rows of a picture's pixels from 0, the
 * end not included; `position` says which area it is; `parents` names the
 * categories from the top, joined by " / "; `time` is in ISO 8601, UTC; `rating` is empty where none was given.
 * @param textOf the text of a document, null where it has none
 * @param documentIds which documents, in the order of the rows
 */
export function codingsCsv(state: StudyState, documentIds: readonly Id[], textOf: (documentId: Id) => Text | null): string {
  const rows: (string | number)[][] = [[...HEADINGS]];
  const casesByDocument = casesOfDocuments(state);
  for (const documentId of documentIds) {
    const columns = state.passages[documentId];
    const document = state.tables.document[documentId];
    if (!columns || !document) continue;
    const text = textOf(documentId);
    for (const passage of unpackPassages(columns)) {
      const place = placeOf(document, text, passage);
      const speaker = speakerAt(document, text, passage.start);
      const cases = speaker?.caseId ? [speaker.caseId] : speaker?.interviewer ? [] : (casesByDocument.get(documentId) ?? []);
      const where = [
        document.title,
        cases.map((id) => state.tables.case[id]?.name ?? '').join('; '),
        place.speaker ?? '',
        place.position,
        passage.start,
        passage.end,
        text?.text.slice(passage.start, passage.end) ?? '',
      ];
      const codings =
        passage.codings.length > 0 ? passage.codings : [{ codeId: '', coderId: passage.coderId, createdAt: passage.createdAt }];
      for (const coding of codings) {
        const [name = '', ...parents] = lineage(state.tables.code, coding.codeId).map((id) => state.tables.code[id]!.name);
        rows.push([
          ...where,
          name,
          parents.reverse().join(' / '),
          state.tables.coder[coding.coderId]?.name ?? '',
          new Date(coding.createdAt).toISOString(),
          'rating' in coding ? (coding.rating ?? '') : '',
          passage.comment,
        ]);
      }
    }
  }
  return writeCsv(rows);
}

function casesOfDocuments(state: StudyState): Map<Id, Id[]> {
  const byDocument = new Map<Id, Id[]>();
  for (const one of Object.values(state.tables.case)) {
    for (const documentId of one.documentIds) byDocument.set(documentId, [...(byDocument.get(documentId) ?? []), one.id]);
  }
  return byDocument;
}
