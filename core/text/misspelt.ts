import { fold } from '../text/fold';

/**
 * Pairs of names of which the rarer may be the other, misspelt: they differ by one letter put in, left out, changed or
 * exchanged with its neighbour (Damerau 1964), by two in names of eight letters or more. Names that differ in a number
 * (P1 and P2) are different people.
 * @param names with how often each comes
 */
export function misspelt(names: ReadonlyMap<string, number>): { readonly name: string; readonly perhaps: string }[] {
  const all = [...names].map(([name, times]) => ({ name, times, folded: fold(name), digits: name.replace(/\D/g, '') }));
  return all.flatMap(({ name, times, folded, digits }) => {
    const near = all
      .filter((other) => other.name !== name && (other.times > times || (other.times === times && other.name < name)))
      .filter((other) => other.digits === digits)
      .map((other) => ({ ...other, apart: lettersApart(folded, other.folded) }))
      .filter(
        ({ apart, folded: other }) =>
          apart <= (Math.min(folded.length, other.length) >= 8 ? 2 : Math.min(folded.length, other.length) >= 4 ? 1 : 0),
      )
      .sort((a, b) => a.apart - b.apart || b.times - a.times);
    return near[0] ? [{ name, perhaps: near[0].name }] : [];
  });
}

/** Letters put in, left out, changed or exchanged with a neighbour that lead from one word to the other; more than two are not counted on. */
export function lettersApart(a: string, b: string): number {
  if (Math.abs(a.length - b.length) > 2 || a.length > 100 || b.length > 100) return 3;
  let [before, last] = [[] as number[], Array.from({ length: b.length + 1 }, (_, at) => at)];
  for (let x = 1; x <= a.length; x++) {
    const row = [x];
    for (let y = 1; y <= b.length; y++) {
      const same = a[x - 1] === b[y - 1];
      let least = Math.min(last[y]! + 1, row[y - 1]! + 1, last[y - 1]! + (same ? 0 : 1));
      if (x > 1 && y > 1 && a[x - 1] === b[y - 2] && a[x - 2] === b[y - 1]) least = Math.min(least, before[y - 2]! + 1);
      row.push(least);
    }
    [before, last] = [last, row];
  }
  return Math.min(3, last[b.length]!);
}
