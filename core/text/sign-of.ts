/** A sign of a value made of plain records and lists: the same for whatever holds the same, in whatever order fields were written. */
export const signOf = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  );
