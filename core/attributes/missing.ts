/** What stands in cells of tables for a value that is not known, whatever the column. */
const SIGNS: ReadonlySet<string> = new Set(['n/a', 'na', 'n.a.', '-', '–', '—', '.', 'no answer', 'not answered', 'missing']);

/**
 * Whether a cell says that there is no value: by a common sign, or by one that the researcher named for its column, such
 * as 99. Upper and lower case are the same.
 */
export function isMissing(cell: string, own: readonly string[] = []): boolean {
  if (cell.length > 40) return false;
  const plain = cell.trim().toLowerCase();
  return SIGNS.has(plain) || own.some((sign) => sign.trim() !== '' && sign.trim().toLowerCase() === plain);
}
