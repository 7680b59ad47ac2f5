import type { FoundBy } from '../model/answered';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Question } from '../model/query';
import { CaseFinder } from '../passages/case-finder';
import { answeringOf, needsText } from './answering';
import type { AskedStudy } from './asked-study';
import { DocumentHere, type Rows } from './document-here';

/** Asks one document after another whether a question finds anything in it, and of which cases: what live sets need of a query. */
export class FoundIn {
  private readonly answering: (here: DocumentHere) => Rows;

  constructor(
    private readonly question: Question,
    private readonly study: AskedStudy,
  ) {
    this.answering = answeringOf({ all: question.all }, study);
  }

  /** Whether the text must be known: to answer, or to say whose a passage is. */
  needsText(document: Document): boolean {
    return CaseFinder.needsText(document) || needsText({ all: this.question.all }, document, this.study);
  }

  /** The cases of which something is found; null where nothing is. @param text may be null where it was not said to be needed */
  casesIn(columns: PassageColumns | null, document: Document, text: Text | null): readonly Id[] | null {
    // a question that asks nothing has no answer
    if (!columns || this.question.all.length === 0) return null;
    const here = new DocumentHere(columns, document, text, this.study.language);
    const rows = this.answering(here);
    if (!rows.includes(1)) return null;
    const cases = new Set<Id>();
    rows.forEach((found, row) => {
      if (found) for (const id of this.study.finder.of(document, text, here.place(row))) cases.add(id);
    });
    return [...cases];
  }
}

/** What was found, document by document, as one. @param found the cases of which something is found in a document; null where nothing is */
export function foundBy(found: Iterable<readonly [documentId: Id, cases: readonly Id[] | null]>): FoundBy {
  const documentIds: Id[] = [];
  const caseIds = new Set<Id>();
  for (const [documentId, cases] of found) {
    if (!cases) continue;
    documentIds.push(documentId);
    for (const id of cases) caseIds.add(id);
  }
  return { documentIds, caseIds: [...caseIds] };
}
