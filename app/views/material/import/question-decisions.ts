import type { LinedUp, LineUp } from '@core/questions/line-up';

/** Questions that are not the one they were taken for, by `file key:place in the file`. */
export type Decisions = ReadonlyMap<string, 'own'>;

/** The line-up after the researcher's decisions: a question that is one of its own gets a row of its own. */
export function takenFor(lineUp: LineUp, keys: readonly number[], decisions: Decisions): { list: string[]; files: LinedUp[][] } {
  const list = [...lineUp.list];
  const files = lineUp.files.map((file, at) =>
    file.map((one, place): LinedUp => {
      if (decisions.get(`${keys[at]}:${place}`) !== 'own') return one;
      return { ...one, row: list.push(one.wording) - 1, likeness: 'new' };
    }),
  );
  return { list, files };
}

/** Questions that one file alone asks, where several are brought in and the study does not know them; by the file's key. */
export function askedOnce(lineUp: LineUp, keys: readonly number[], decisions: Decisions, known: number): Map<number, string[]> {
  const { files } = takenFor(lineUp, keys, decisions);
  if (files.length < 2) return new Map();
  const asking = Map.groupBy(
    files.flatMap((file, at) => file.map((one) => ({ ...one, key: keys[at]! }))),
    (one) => one.row,
  );
  const once = [...asking].flatMap(([row, some]) => (row >= known && some.length === 1 ? [some[0]!] : []));
  return new Map([...Map.groupBy(once, (one) => one.key)].map(([key, some]) => [key, some.map((one) => one.wording)]));
}
