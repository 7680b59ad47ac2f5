import type { PassageColumns } from '../model/passage-columns';
import { placeOfRow } from '../passages/columns';
import { overlaps } from '../passages/relations';
import type { Found } from './found-axis';

/**
 * Passages of one code in a document, with those that different coders marked over each other taken as one: two are
 * joined where they overlap and some coder gave the code to the one and another to the other; what is joined to one is
 * joined to all of its. Passages that one coder alone marked over each other stay apart.
 * @returns rows that count once together, each list ascending, in the order of their first
 */
export function joinedByCoders(columns: PassageColumns, { rows, codings }: Found): readonly (readonly number[])[] {
  if (rows.length < 2 || !severalCoders(columns, codings)) return rows.map((row) => [row]);
  const coders = codersByRow(columns, codings);
  const first = new Map(rows.map((row) => [row, row]));
  const rootOf = (row: number): number => {
    let root = row;
    while (first.get(root) !== root) root = first.get(root)!;
    first.set(row, root);
    return root;
  };
  let open: number[] = [];
  for (const row of rows) {
    open = open.filter((other) => columns.ends[other]! > columns.starts[row]!);
    for (const other of open) {
      if (!differ(coders.get(row), coders.get(other)) || !overlaps(placeOfRow(columns, row), placeOfRow(columns, other))) continue;
      const [a, b] = [rootOf(row), rootOf(other)];
      first.set(Math.max(a, b), Math.min(a, b));
    }
    open.push(row);
  }
  const groups = new Map<number, number[]>();
  for (const row of rows) {
    const root = rootOf(row);
    const group = groups.get(root);
    if (group) group.push(row);
    else groups.set(root, [row]);
  }
  return [...groups.values()];
}

/** Whether codings of more than one coder are among some. */
export const severalCoders = ({ codingCoder }: PassageColumns, codings: readonly number[]): boolean =>
  codings.some((at) => codingCoder[at] !== codingCoder[codings[0]!]);

function codersByRow({ codingRow, codingCoder }: PassageColumns, codings: readonly number[]): Map<number, Set<number>> {
  const byRow = new Map<number, Set<number>>();
  for (const at of codings) {
    const row = codingRow[at]!;
    const some = byRow.get(row);
    if (some) some.add(codingCoder[at]!);
    else byRow.set(row, new Set([codingCoder[at]!]));
  }
  return byRow;
}

/** Whether there are two different ones, one of each. A passage without codings is nobody's. */
const differ = (a: ReadonlySet<number> | undefined, b: ReadonlySet<number> | undefined): boolean =>
  a !== undefined && b !== undefined && (a.size > 1 || b.size > 1 || [...a][0] !== [...b][0]);
