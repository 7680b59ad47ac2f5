import { lengthOf, type Grounded } from '../model/document';
import type { PassageColumns } from '../model/passage-columns';
import { pixelsCovered } from './pixels';

/** How much of a document lies in at least one passage, in the measure of its ground. */
export interface Covered {
  readonly measure: 'characters' | 'milliseconds' | 'pixels';
  readonly covered: number;
  readonly all: number;
}

/** What the passages of a document cover of it; of a text in characters, since words need the text itself: see `coverage`. */
export function coveredOf(document: Grounded, columns: PassageColumns | undefined): Covered {
  const { ground } = document;
  if (ground.of === 'picture') {
    const areas = columns?.ground === 'picture' ? columns.areas : [];
    // of what was cut away nothing counts, neither what is coded of it nor how much of it there is
    const crop = ground.shown?.crop;
    if (!crop) return { measure: 'pixels', covered: pixelsCovered(areas), all: ground.width * ground.height };
    return { measure: 'pixels', covered: pixelsCovered(areas, crop), all: (crop.right - crop.left) * (crop.bottom - crop.top) };
  }
  return {
    measure: ground.of === 'text' ? 'characters' : 'milliseconds',
    covered: columns ? lengthOfUnion(columns) : 0,
    all: lengthOf(document),
  };
}

/** How long the union of the passages is; they are sorted by where they begin. A plain loop: it is walked for every document of a study. */
function lengthOfUnion({ starts, ends }: PassageColumns): number {
  let covered = 0;
  let reached = 0;
  for (let row = 0; row < starts.length; row++) {
    const end = ends[row]!;
    if (end <= reached) continue;
    covered += end - Math.max(starts[row]!, reached);
    reached = end;
  }
  return covered;
}

/** The share that is covered, 0 to 1; nothing is covered of nothing. */
export const shareCovered = ({ covered, all }: Covered): number => (all === 0 ? 0 : covered / all);
