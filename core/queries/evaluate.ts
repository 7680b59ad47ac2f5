import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Question } from '../model/query';
import type { Table } from '../model/study-state';
import { withDescendants } from '../codebook/tree';
import { idOfRow } from '../passages/columns';
import type { PassageColumns } from '../model/passage-columns';
import { codesByRow } from '../passages/codes-by-row';
import { IntervalIndex } from '../passages/interval-index';

/** A passage that answers a question. */
export interface Hit {
  readonly documentId: Id;
  readonly passageId: Id;
  readonly start: number;
  readonly end: number;
}

/** What everything is looking at: which documents, and whose codings. */
export interface Scope {
  readonly documentIds: ReadonlySet<Id>;
  /** Only codings of this coder count; null for everybody's. */
  readonly coderId: Id | null;
}

/** A question with every code replaced by the codes that stand for it. */
interface Resolved {
  /** Each group must be met by at least one of its codes. */
  readonly groups: readonly ReadonlySet<Id>[];
  readonly none: ReadonlySet<Id>;
  readonly wanted: ReadonlySet<Id>;
  readonly reach: Question['reach'];
}

function resolve(question: Question, codes: Table<Code>): Resolved {
  const expand = (id: Id): Id[] => (question.withCodesUnder ? withDescendants(codes, id) : [id]);
  const groups = question.all.map((id) => new Set(expand(id)));
  if (question.any.length > 0) groups.push(new Set(question.any.flatMap(expand)));
  return {
    groups,
    none: new Set(question.none.flatMap(expand)),
    wanted: new Set(groups.flatMap((group) => [...group])),
    reach: question.reach,
  };
}

/**
 * The passages that answer a question, in the order of the documents given and then in reading order.
 *
 * With `reach: 'passage'` a passage is judged by its own codes. With `reach: 'overlap'` the codes of every
 * passage that overlaps it count as well, but it must carry at least one of the codes asked for itself, so
 * that two overlapping passages are both found and a bystander is not. A question that asks for no
 * code is answered by every passage that has none of the excluded ones.
 */
export function evaluate(question: Question, documents: Iterable<PassageColumns>, codes: Table<Code>, scope: Scope): Hit[] {
  const resolved = resolve(question, codes);
  const chosen = question.documentIds && new Set(question.documentIds);
  const hits: Hit[] = [];
  for (const columns of documents) {
    if (!scope.documentIds.has(columns.documentId) || (chosen && !chosen.has(columns.documentId))) continue;
    for (const row of answeringRows(resolved, columns, scope.coderId)) {
      hits.push({ documentId: columns.documentId, passageId: idOfRow(columns, row), start: columns.starts[row]!, end: columns.ends[row]! });
    }
  }
  return hits;
}

function answeringRows(question: Resolved, columns: PassageColumns, coderId: Id | null): number[] {
  // a group none of whose codes occurs here cannot be met here
  if (question.groups.some((group) => !columns.codes.some((id) => group.has(id)))) return [];
  const codesOfRow = codesByRow(columns, coderId === null ? null : new Set([coderId]));
  const test = (ids: ReadonlySet<Id>): boolean[] => columns.codes.map((id) => ids.has(id));
  const groups = question.groups.map(test);
  const none = test(question.none);
  const wanted = test(question.wanted);
  const index = question.reach === 'overlap' ? new IntervalIndex(columns) : null;
  const rows: number[] = [];
  for (let row = 0; row < columns.starts.length; row++) {
    const own = codesOfRow[row];
    if (coderId !== null && !own && columns.coders[columns.markedBy[row]!] !== coderId) continue;
    if (groups.length > 0 && !own?.some((code) => wanted[code])) continue;
    const seen = index
      ? index.overlapping(columns.starts[row]!, columns.ends[row]!).flatMap((other) => codesOfRow[other] ?? [])
      : (own ?? []);
    if (groups.every((group) => seen.some((code) => group[code])) && !seen.some((code) => none[code])) rows.push(row);
  }
  return rows;
}
