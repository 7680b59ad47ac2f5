/** Jaccard's coefficient of community (Jaccard 1901): what both have of what either has, 0 to 1; 0 where neither has anything. */
export const jaccard = ({ both, either }: { readonly both: number; readonly either: number }): number => (either === 0 ? 0 : both / either);
