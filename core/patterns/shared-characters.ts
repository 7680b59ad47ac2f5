import type { Id } from '../model/ids';
import type { TextColumns } from '../model/passage-columns';
import type { Stretch } from '../model/stretch';
import { union } from '../passages/union';

/** Two codes and how far their passages cover the same characters. */
export interface SharedCharacters {
  readonly codeIds: readonly [Id, Id];
  /** Characters in passages of both. */
  readonly both: number;
  /** Characters in passages of either. */
  readonly either: number;
}

/**
 * Pairs of codes that share characters, counted over documents. Characters are UTF-16 code units; what several
 * passages of one code cover counts once. Found by a sweep over places: only what is still open can share characters
 * with what begins.
 */
export function sharedCharacters(documents: Iterable<TextColumns>): SharedCharacters[] {
  const sizes = new Map<Id, number>();
  const both = new Map<string, number>();
  for (const columns of documents) {
    const unions = unionsByCode(columns);
    for (const { code, start, end } of unions) sizes.set(columns.codes[code]!, (sizes.get(columns.codes[code]!) ?? 0) + end - start);
    let open: typeof unions = [];
    for (const next of unions) {
      open = open.filter((one) => one.end > next.start);
      for (const one of open) {
        if (one.code === next.code) continue;
        const [a, b] = [columns.codes[one.code]!, columns.codes[next.code]!];
        const key = a < b ? `${a} ${b}` : `${b} ${a}`;
        both.set(key, (both.get(key) ?? 0) + Math.min(one.end, next.end) - next.start);
      }
      open.push(next);
    }
  }
  return [...both].map(([key, shared]) => {
    const [a = '', b = ''] = key.split(' ');
    return { codeIds: [a, b], both: shared, either: sizes.get(a)! + sizes.get(b)! - shared };
  });
}

/** What each code covers, by where it begins. */
function unionsByCode(columns: TextColumns): (Stretch & { readonly code: number })[] {
  const places = new Map<number, Stretch[]>();
  for (let at = 0; at < columns.codingRow.length; at++) {
    const row = columns.codingRow[at]!;
    const code = columns.codingCode[at]!;
    const place = { start: columns.starts[row]!, end: columns.ends[row]! };
    const some = places.get(code);
    if (some) some.push(place);
    else places.set(code, [place]);
  }
  return [...places]
    .flatMap(([code, some]) => union(some).map(({ start, end }) => ({ start, end, code })))
    .sort((a, b) => a.start - b.start);
}
