/** A pattern that says how it is shown; the usual way is not said, so that one that was kept before is known again. */
export function shownAs<S extends string, A extends { shown?: S | undefined }>(
  asked: A,
  shown: S,
  usual: S,
): Omit<A, 'shown'> & { shown?: S } {
  const { shown: _, ...rest } = asked;
  return shown === usual ? rest : { ...rest, shown };
}
