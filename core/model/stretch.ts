import type { Area } from './area';

/** A stretch of one text in characters, or a span of one recording in milliseconds: start inclusive, end exclusive, not empty. */
export interface Stretch {
  readonly start: number;
  readonly end: number;
}

/** Where a passage stands in its document. Of an area of a picture, start and end are the rows of pixels it reaches over. */
export interface Place extends Stretch {
  readonly area?: Area | undefined;
}

/** A place of which can be said what comes before and after it: areas of a picture have no such order. */
export interface OrderedPlace extends Stretch {
  readonly area?: undefined;
}
