import type { PassageColumns } from '../model/passage-columns';
import { placeOfRow } from '../passages/columns';
import { overlaps } from '../passages/relations';
import type { Found } from './found-codes';

/**
 * Passages of one code in a document, with those that different coders marked over each other taken as one: two are
 * joined where they overlap and some coder gave the code to the one and another to the other; what is joined to one is
 * joined to all of its. Passages that one coder alone marked over each other stay apart.
 * @returns rows that count once together, each list ascending, in the order of their first
 */
export function joinedByCoders(columns: PassageColumns, found: Found): readonly (readonly number[])[] {
  return joinedAny(columns, found) ?? found.rows.map((row) => [row]);
}

/** The same, or null where no two are joined. */
export function joinedAny(columns: PassageColumns, { rows, codings }: Found): readonly (readonly number[])[] | null {
  if (rows.length < 2 || !severalCoders(columns, codings)) return null;
  const { starts, ends } = columns;
  const coders = codersAt(columns, rows, codings);
  /** Of each of the rows, by its place, the place of one it is joined to that stands before it, or its own. */
  const before = new Int32Array(rows.length);
  for (let at = 0; at < rows.length; at++) before[at] = at;
  const rootOf = (at: number): number => {
    let root = at;
    while (before[root] !== root) root = before[root]!;
    before[at] = root;
    return root;
  };
  /** Places of those that can still meet one that comes. */
  const open = new Int32Array(rows.length);
  let [count, joined] = [0, false];
  for (let at = 0; at < rows.length; at++) {
    const row = rows[at]!;
    let left = 0;
    for (let each = 0; each < count; each++) {
      const other = open[each]!;
      if (ends[rows[other]!]! <= starts[row]!) continue;
      open[left++] = other;
      if (!differ(coders[at]!, coders[other]!)) continue;
      if (columns.ground === 'picture' && !overlaps(placeOfRow(columns, row), placeOfRow(columns, rows[other]!))) continue;
      const [one, two] = [rootOf(at), rootOf(other)];
      before[Math.max(one, two)] = Math.min(one, two);
      joined = true;
    }
    open[left] = at;
    count = left + 1;
  }
  if (!joined) return null;
  const groups: number[][] = [];
  const groupOf = new Int32Array(rows.length);
  for (let at = 0; at < rows.length; at++) {
    const root = rootOf(at);
    if (root === at) groupOf[at] = groups.push([rows[at]!]) - 1;
    else groups[groupOf[root]!]!.push(rows[at]!);
  }
  return groups;
}

/** Whether codings of more than one coder are in a document. */
export function codedBySeveral({ codingCoder }: PassageColumns): boolean {
  for (let at = 1; at < codingCoder.length; at++) if (codingCoder[at] !== codingCoder[0]) return true;
  return false;
}

/** Whether codings of more than one coder are among some. */
export const severalCoders = ({ codingCoder }: PassageColumns, codings: readonly number[]): boolean =>
  codings.some((at) => codingCoder[at] !== codingCoder[codings[0]!]);

const NOBODY = -1;
const SEVERAL = -2;

/** Who gave the code to each row, by its place: one coder, several, or nobody. @param codings ascending, of these rows */
function codersAt({ codingRow, codingCoder }: PassageColumns, rows: readonly number[], codings: readonly number[]): Int32Array {
  const coders = new Int32Array(rows.length).fill(NOBODY);
  let at = 0;
  for (const coding of codings) {
    while (rows[at] !== codingRow[coding]) at++;
    const coder = codingCoder[coding]!;
    coders[at] = coders[at] === NOBODY || coders[at] === coder ? coder : SEVERAL;
  }
  return coders;
}

/** Whether there are two different ones, one of each. A passage without codings is nobody's. */
const differ = (a: number, b: number): boolean => a !== NOBODY && b !== NOBODY && (a === SEVERAL || b === SEVERAL || a !== b);
