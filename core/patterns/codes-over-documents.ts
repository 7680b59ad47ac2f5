import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { DocumentOrder } from '../model/pattern';
import { placeOfRow } from '../passages/columns';
import { isWhole, type Entry, type GroupAxis } from './axis';
import type { NewCodes } from './new-codes';

/** New codes document by document, of one group of the material. */
export interface CodesOverDocuments {
  readonly group: Entry;
  readonly documents: readonly NewCodes[];
}

/** A document with its codes by group, and what it is ordered by. */
interface Coded {
  readonly document: Document;
  readonly first: number;
  readonly codes: ReadonlyMap<number, ReadonlySet<Id>>;
}

/** Gathers which codes each document has in each group of the material. Counts codes, not passages; documents without a coding are left out. */
export class CodesByDocument {
  private readonly coded: Coded[] = [];

  constructor(private readonly groups: GroupAxis) {}

  /** @param columns what is left of the document's passages in scope */
  add(columns: PassageColumns, document: Document, text: Text | null): void {
    const codes = new Map<number, Set<Id>>();
    const of = this.groups.of({ document, spoken: text });
    let first = Infinity;
    for (let at = 0; at < columns.codingRow.length; at++) {
      first = Math.min(first, columns.codingAt[at]!);
      const code = columns.codes[columns.codingCode[at]!]!;
      const coder = this.groups.coders?.get(columns.coders[columns.codingCoder[at]!]!);
      const groups = coder !== undefined ? [coder] : isWhole(of) ? of : of.at(placeOfRow(columns, columns.codingRow[at]!));
      for (const group of groups) {
        const some = codes.get(group);
        if (some) some.add(code);
        else codes.set(group, new Set([code]));
      }
    }
    if (codes.size > 0) this.coded.push({ document, first, codes });
  }

  /** Each group that has anything, with its documents in order. */
  result(order: DocumentOrder): CodesOverDocuments[] {
    const sorted = this.coded.toSorted((a, b) => compare[order](a, b) || (a.document.id < b.document.id ? -1 : 1));
    return this.groups.entries.flatMap((group, at) => {
      const seen = new Set<Id>();
      const documents = sorted.flatMap(({ document, codes }) => {
        const here = codes.get(at);
        if (!here) return [];
        const before = seen.size;
        for (const code of here) seen.add(code);
        return [{ documentId: document.id, fresh: seen.size - before, total: seen.size }];
      });
      return documents.length > 0 ? [{ group, documents }] : [];
    });
  }
}

const COLLATOR = new Intl.Collator(undefined, { numeric: true });
const compare: Readonly<Record<DocumentOrder, (a: Coded, b: Coded) => number>> = {
  'by when they were coded': (a, b) => a.first - b.first,
  // those without a date come last
  'by their dates': (a, b) => COLLATOR.compare(a.document.date ?? '9999', b.document.date ?? '9999'),
  'by title': (a, b) => COLLATOR.compare(a.document.title, b.document.title),
};
