/** A stretch of one text: start inclusive, end exclusive, not empty. */
export interface Stretch {
  readonly start: number;
  readonly end: number;
}
