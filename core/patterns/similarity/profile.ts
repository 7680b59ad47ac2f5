/** What one thing has: its features by number, each once, and how often it has each, never 0. */
export interface Profile {
  readonly features: Uint32Array;
  readonly counts: Float64Array;
}

/** A profile of how often a thing has which features. */
export const profileOf = (counts: ReadonlyMap<number, number>): Profile => ({
  features: Uint32Array.from(counts.keys()),
  counts: Float64Array.from(counts.values()),
});

/**
 * The other way round: what each feature is had by, and how often, the things by their places in ascending order.
 * @param features how many there are: more than the number of any
 */
export function turned(things: readonly Profile[], features: number): Profile[] {
  const having = new Uint32Array(features);
  for (const thing of things) for (const feature of thing.features) having[feature]!++;
  const all = Array.from(having, (count): Profile => ({ features: new Uint32Array(count), counts: new Float64Array(count) }));
  const next = new Uint32Array(features);
  things.forEach((thing, place) => {
    for (let at = 0; at < thing.features.length; at++) {
      const feature = thing.features[at]!;
      const to = next[feature]!++;
      all[feature]!.features[to] = place;
      all[feature]!.counts[to] = thing.counts[at]!;
    }
  });
  return all;
}

/** One more than the highest number of a feature. */
export function featuresIn(things: readonly Profile[]): number {
  let most = 0;
  for (const { features } of things) for (const feature of features) most = Math.max(most, feature + 1);
  return most;
}
