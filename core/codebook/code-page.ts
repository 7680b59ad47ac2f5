import type { Code } from '../model/code';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import type { CaseFinder, SpokenDocument } from '../passages/case-finder';
import { idOfRow } from '../passages/columns';
import type { PassageColumns } from '../model/passage-columns';
import { codesByRow } from '../passages/codes-by-row';
import { meets } from '../patterns/meets';
import { speakerAt } from '../text/paragraphs';
import { withDescendants } from './tree';

/** How often something comes up with a code. */
export interface Share<T> {
  readonly of: T;
  readonly count: number;
}

/** Where a code is found, and with what. Each list has the most frequent first. */
export interface CodePage {
  /** Distinct passages in each document. */
  readonly documents: readonly Share<Id>[];
  readonly cases: readonly Share<Id>[];
  /** Distinct passages in the turns of each speaker, by name. */
  readonly speakers: readonly Share<string>[];
  /** Pairs of overlapping passages, one of this code and one of the other: see `meets`. */
  readonly meets: readonly Share<Id>[];
  /** The passages themselves, in reading order, document after document. */
  readonly passages: readonly { readonly documentId: Id; readonly passageId: Id; readonly start: number; readonly end: number }[];
}

/** Gathers what a code's page shows, document after document. */
export class CodePageBuilder {
  private readonly wanted: ReadonlySet<Id>;
  private readonly documents = new Map<Id, number>();
  private readonly cases = new Map<Id, number>();
  private readonly speakers = new Map<string, number>();
  private readonly meets = new Map<Id, number>();
  private readonly passages: CodePage['passages'][number][] = [];

  /** @param withUnder a passage of any code under it counts as one of the code's */
  constructor(
    codes: Table<Code>,
    codeId: Id,
    withUnder: boolean,
    private readonly finder: CaseFinder,
  ) {
    this.wanted = new Set(withUnder ? withDescendants(codes, codeId) : [codeId]);
  }

  /** Whether a document has anything to say, so that its text is worth reading. */
  concerns(columns: PassageColumns): boolean {
    return columns.codes.some((id) => this.wanted.has(id));
  }

  add(columns: PassageColumns, document: SpokenDocument, text: Text | null): void {
    if (!this.concerns(columns)) return;
    const codesOfRow = codesByRow(columns);
    const own = columns.codes.map((id) => this.wanted.has(id));
    for (const [row, codes] of codesOfRow.entries()) {
      if (!codes?.some((code) => own[code])) continue;
      const place = { start: columns.starts[row]!, end: columns.ends[row]! };
      this.passages.push({ documentId: columns.documentId, passageId: idOfRow(columns, row), ...place });
      increase(this.documents, columns.documentId);
      for (const caseId of this.finder.of(document, text, place)) increase(this.cases, caseId);
      const speaker = speakerAt(document, text, place.start);
      if (speaker) increase(this.speakers, speaker.name);
    }
    for (const [id, count] of meets(columns, codesOfRow, this.wanted)) this.meets.set(id, (this.meets.get(id) ?? 0) + count);
  }

  result(): CodePage {
    return {
      documents: sorted(this.documents),
      cases: sorted(this.cases),
      speakers: sorted(this.speakers),
      meets: sorted(this.meets),
      passages: this.passages,
    };
  }
}

const increase = <K>(map: Map<K, number>, key: K): unknown => map.set(key, (map.get(key) ?? 0) + 1);

const sorted = <K>(map: ReadonlyMap<K, number>): Share<K>[] =>
  [...map].map(([of, count]) => ({ of, count })).sort((a, b) => b.count - a.count || (String(a.of) < String(b.of) ? -1 : 1));
