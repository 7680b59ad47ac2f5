import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Question } from '../model/query';
import type { Table } from '../model/study-state';
import { withDescendants } from '../codebook/tree';
import { testOf, type Condition, type Part } from '../conditions/condition';
import { idOfRow } from '../passages/columns';
import type { PassageColumns } from '../model/passage-columns';
import { codeNumber, codeNumbersOf } from '../passages/code-numbers';
import { codesByRow } from '../passages/codes-by-row';
import { Meetings } from '../passages/meetings';

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

/** What is asked of a passage: the codes it carries, and those that count for it, which may lie on passages that overlap it. */
type Of = 'own codes' | 'codes';

/** A question with every code replaced by the codes that stand for it. */
interface Resolved {
  /** The question as a condition on the passages of a document, in the local numbers of its codes. */
  readonly conditionIn: (columns: PassageColumns) => Condition<Of>;
  /** Each must be met by at least one of its codes: where none of them occurs, nothing answers. */
  readonly groups: readonly ReadonlySet<Id>[];
  readonly reach: Question['reach'];
}

function resolve(question: Question, codes: Table<Code>): Resolved {
  const expand = (id: Id): Id[] => (question.withCodesUnder ? withDescendants(codes, id) : [id]);
  const groups = question.all.map(expand);
  if (question.any.length > 0) groups.push(question.any.flatMap(expand));
  const wanted = oneOf('own codes', groups.flat());
  const each = groups.map((group) => oneOf('codes', group));
  const none = oneOf('codes', question.none.flatMap(expand));
  return {
    conditionIn: (columns) => ({
      all: [
        ...(groups.length > 0 ? [wanted(columns)] : []),
        ...each.map((group) => group(columns)),
        ...(question.none.length > 0 ? [{ none: [none(columns)] }] : []),
      ],
    }),
    groups: groups.map((group) => new Set(group)),
    reach: question.reach,
  };
}

/** One of some codes, as it is asked in a document: codes that it has not are left out. */
function oneOf(of: Of, codeIds: readonly Id[]): (columns: PassageColumns) => Part<Of> {
  const wanted = new Set(codeIds.map(codeNumber));
  return (columns) => {
    const numbers = codeNumbersOf(columns.codes);
    const value: number[] = [];
    for (let local = 0; local < numbers.length; local++) if (wanted.has(numbers[local]!)) value.push(local);
    return { of, comparison: 'is one of', value };
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

function answeringRows({ conditionIn, groups, reach }: Resolved, columns: PassageColumns, coderId: Id | null): number[] {
  if (groups.some((group) => !columns.codes.some((id) => group.has(id)))) return [];
  const codesOfRow = codesByRow(columns, coderId === null ? null : new Set([coderId]));
  const own = (row: number): readonly number[] => codesOfRow[row] ?? NONE;
  const read = { 'own codes': own, codes: reach === 'overlap' ? overlapping(columns, own) : own };
  const answers = testOf<Of, number>(conditionIn(columns), { read: (of) => read[of] });
  const rows: number[] = [];
  for (let row = 0; row < columns.starts.length; row++) {
    // somebody else's passage that this coder gave nothing
    if (coderId !== null && !codesOfRow[row] && columns.coders[columns.markedBy[row]!] !== coderId) continue;
    if (answers(row)) rows.push(row);
  }
  return rows;
}

const NONE: readonly number[] = [];

/** The codes on a passage and on those that overlap it; asked several times of one row, they are looked for once. */
function overlapping(columns: PassageColumns, own: (row: number) => readonly number[]): (row: number) => readonly number[] {
  const meetings = new Meetings(columns);
  let last = -1;
  let seen: readonly number[] = NONE;
  return (row) => {
    if (row === last) return seen;
    last = row;
    const codes: number[] = [];
    for (const other of meetings.of(row)) codes.push(...own(other));
    return (seen = codes);
  };
}
