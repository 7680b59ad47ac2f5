import type { Likeness } from './likeness';

/** Two parts that become one. Things are numbered from 0; what comes of the first merge has the number after the last thing. */
export interface Merge {
  readonly first: number;
  readonly second: number;
  /** The dissimilarity at which they become one: the mean of 1 − likeness over every thing of the one and every thing of the other. */
  readonly height: number;
}

/**
 * Puts things together step by step, always the two nearest parts: agglomerative clustering by average linkage (UPGMA;
 * Sokal & Michener 1958). Worked out along chains of nearest neighbours, which gives the same tree in the square of the
 * number of things (Murtagh 1983, The Computer Journal 26, 354–359).
 * @returns one merge less than there are things, from the lowest up
 */
export function treeOf(likeness: Likeness, size: number): Merge[] {
  const distances = likeness.map((one) => 1 - one);
  const sizes = new Uint32Array(size).fill(1);
  const open = new Uint8Array(size).fill(1);
  /** Each part goes by the lowest of its things. */
  const joined: { readonly first: number; readonly second: number; readonly height: number }[] = [];
  const chain: number[] = [];
  while (joined.length < size - 1) {
    if (chain.length === 0) chain.push(open.indexOf(1));
    const last = chain.at(-1)!;
    const before = chain.at(-2);
    // of several as near the one it came from: else a chain could go in circles
    let nearest = before ?? -1;
    for (let other = 0; other < size; other++)
      if (open[other] && other !== last && (nearest < 0 || distances[last * size + other]! < distances[last * size + nearest]!))
        nearest = other;
    if (nearest !== before) {
      chain.push(nearest);
      continue;
    }
    chain.length -= 2;
    const [kept, gone] = [Math.min(last, nearest), Math.max(last, nearest)];
    joined.push({ first: kept, second: gone, height: distances[kept * size + gone]! });
    open[gone] = 0;
    for (let other = 0; other < size; other++) {
      if (!open[other] || other === kept) continue;
      const mean =
        (sizes[kept]! * distances[kept * size + other]! + sizes[gone]! * distances[gone * size + other]!) / (sizes[kept]! + sizes[gone]!);
      distances[kept * size + other] = distances[other * size + kept] = mean;
    }
    sizes[kept]! += sizes[gone]!;
  }
  return numbered(joined, size);
}

/** Merges in order of their heights, with what they are made of by its number. */
function numbered(joined: readonly { readonly first: number; readonly second: number; readonly height: number }[], size: number): Merge[] {
  const heightOf = new Float64Array(size);
  // rounding can put a part a breath below one that lies within it; each comes after what lies within it, also at one height
  const raised = joined.map(({ first, second, height }) => {
    const now = Math.max(height, heightOf[first]!, heightOf[second]!);
    heightOf[first] = now;
    return { first, second, height: now };
  });
  const nodeOf = Int32Array.from({ length: size }, (_, at) => at);
  return raised
    .sort((a, b) => a.height - b.height)
    .map(({ first, second, height }, at) => {
      const merge = { first: nodeOf[first]!, second: nodeOf[second]!, height };
      nodeOf[first] = size + at;
      return merge;
    });
}

/** Things from top to bottom as the tree draws them, so that no branch crosses another. */
export function leavesOf(merges: readonly Merge[], size: number): number[] {
  if (merges.length === 0) return Array.from({ length: size }, (_, at) => at);
  const leaves: number[] = [];
  const open = [size + merges.length - 1];
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    const merge = merges[node - size];
    if (merge) open.push(merge.second, merge.first);
    else leaves.push(node);
  }
  return leaves;
}

/** The part each thing is in when the tree is cut into so many parts, numbered from 0 as they stand from top to bottom. */
export function partsOf(merges: readonly Merge[], size: number, parts: number): Uint16Array {
  const top = Int32Array.from({ length: size + merges.length }, (_, at) => at);
  const rootOf = (node: number): number => {
    let root = node;
    while (top[root] !== root) root = top[root]!;
    return root;
  };
  for (let at = 0; at < Math.max(0, size - Math.max(1, parts)); at++) {
    const { first, second } = merges[at]!;
    top[first] = top[second] = size + at;
  }
  const numbers = new Map<number, number>();
  const partOf = new Uint16Array(size);
  for (const leaf of leavesOf(merges, size)) {
    const root = rootOf(leaf);
    if (!numbers.has(root)) numbers.set(root, numbers.size);
    partOf[leaf] = numbers.get(root)!;
  }
  return partOf;
}
