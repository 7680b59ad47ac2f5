import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import { hasText, type Text } from '../model/document';
import type { StudyState } from '../model/study-state';
import { passageOf } from '../passages/columns';
import { countCodes } from '../passages/counting';
import { citation } from '../text/citation';
import { pathOf } from './exchange/plan-codes';
import { inTreeOrder } from './tree';

/** A code as it stands in a printed or exported codebook. */
export interface CodebookRow {
  readonly code: Code;
  /** 1 at the top. */
  readonly level: number;
  /** Names of the categories above it, from the top. */
  readonly parents: readonly string[];
  /** Passages that carry the code itself. */
  readonly passages: number;
  /** …or any code under it, a passage once. */
  readonly passagesWithUnder: number;
  readonly documents: number;
  /** The chosen example passages, each with its citation. */
  readonly examples: readonly string[];
}

/**
 * The codebook row by row, in the order of its tree.
 * @param textOf texts of the documents that hold chosen examples; an example whose text is not given is left out
 */
export function codebookRows(state: StudyState, textOf: (documentId: Id) => Text | undefined = () => undefined): CodebookRow[] {
  const codes = state.tables.code;
  const counts = countCodes(Object.values(state.passages), codes);
  return inTreeOrder(codes).map(({ code, level }) => ({
    code,
    level: level + 1,
    parents: pathOf(codes, code.id).slice(0, -1),
    passages: counts.own.get(code.id) ?? 0,
    passagesWithUnder: counts.withUnder.get(code.id) ?? 0,
    documents: counts.documents.get(code.id) ?? 0,
    examples: (code.anchors ?? []).flatMap(({ documentId, passageId }) => {
      const passage = passageOf(state.passages[documentId], passageId);
      const document = state.tables.document[documentId];
      const text = textOf(documentId);
      return passage && document && (text || !hasText(document)) ? [citation(document, text ?? null, passage)] : [];
    }),
  }));
}

/** Documents whose texts {@link codebookRows} asks for. */
export const documentsWithExamples = (state: StudyState): Id[] => [
  ...new Set(Object.values(state.tables.code).flatMap((code) => (code.anchors ?? []).map((one) => one.documentId))),
];
