import type { Document, Text } from '@core/model/document';
import type { Stretch } from '@core/model/stretch';
import { exchangesOf } from '@core/text/exchanges';
import { ideaUnits } from '@core/text/idea-units';
import { unitsOf } from '@core/text/units';

/** What a row of the table holds. */
export const ROW_KINDS = ['turn', 'question with answer', 'paragraph', 'sentence', 'idea-unit'] as const;
export type RowKind = (typeof ROW_KINDS)[number];

/** The rows of a document's table. @param language BCP 47 tag, for sentences */
export function rowsOf(document: Document, text: Text, kind: RowKind, language: string): readonly Stretch[] {
  switch (kind) {
    case 'question with answer':
      return exchangesOf(document, text);
    case 'idea-unit':
      return ideaUnits(text, document.units ?? unitsOf(text, 'sentence', language).map((unit) => unit.start));
    default:
      return unitsOf(text, kind, language);
  }
}
