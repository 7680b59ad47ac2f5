/** What one run of documents brought. */
export interface Run {
  /** Place of its last document in the order. */
  readonly last: number;
  /** Codes in it that no document before it has. */
  readonly fresh: number;
  /** Of the codes of the base: `fresh ÷ base`. */
  readonly share: number;
}

/** Where saturation is met, by the method of base and run. */
export interface BaseAndRun {
  /** Distinct codes in the base documents. */
  readonly base: number;
  readonly runs: readonly Run[];
  /** Place of the last document of the first run at or under the threshold; null where it is not met. */
  readonly metAt: number | null;
}

/**
 * Saturation by base and run (Guest, Namey & Chen 2020, “A simple method to assess and report thematic saturation in
 * qualitative research”): the new codes of each run of documents after the base, one document further each time, as a
 * share of all codes of the base. It is met with the first run whose share is at or under the threshold.
 * @param fresh new codes by document, in their order
 * @param threshold 0 to 1
 * @returns null where there are fewer documents than base and one run, or no code in the base: nothing can be said
 */
export function baseAndRun(
  fresh: readonly number[],
  { base, run, threshold }: { readonly base: number; readonly run: number; readonly threshold: number },
): BaseAndRun | null {
  const inBase = fresh.slice(0, base).reduce((sum, one) => sum + one, 0);
  if (fresh.length < base + run || inBase === 0) return null;
  const runs: Run[] = [];
  for (let from = base; from + run <= fresh.length; from++) {
    const found = fresh.slice(from, from + run).reduce((sum, one) => sum + one, 0);
    runs.push({ last: from + run - 1, fresh: found, share: found / inBase });
  }
  return { base: inBase, runs, metAt: runs.find((one) => one.share <= threshold)?.last ?? null };
}
