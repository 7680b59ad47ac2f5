import type { Id } from '@core/model/ids';

/** A place in a document, to be come back to. */
export interface TrailPlace {
  readonly documentId: Id;
  /** First position in view, in characters. */
  readonly position: number;
}

/** Places remembered behind the reader; older ones are forgotten. */
const LONGEST = 200;

/** Where the reader has jumped from, to go back and forward as in a browser, within a document and between documents. */
export class Trail {
  private readonly past: TrailPlace[] = [];
  private readonly ahead: TrailPlace[] = [];

  /** Remembers the place that is left by a jump. What was ahead is given up. */
  leave(place: TrailPlace): void {
    this.ahead.length = 0;
    const last = this.past.at(-1);
    if (last?.documentId === place.documentId && last.position === place.position) return;
    this.past.push(place);
    if (this.past.length > LONGEST) this.past.shift();
  }

  /** Follows places that have moved, and forgets those of documents that are gone. @param at where a place is now, or null */
  follow(at: (place: TrailPlace) => TrailPlace | null): void {
    for (const places of [this.past, this.ahead]) {
      const now = places.flatMap((place) => at(place) ?? []);
      places.splice(0, places.length, ...now);
    }
  }

  /** The place jumped from last, or undefined; the one given is then ahead. */
  back(from: TrailPlace): TrailPlace | undefined {
    return step(this.past, this.ahead, from);
  }

  /** The place gone back from last, or undefined. */
  forward(from: TrailPlace): TrailPlace | undefined {
    return step(this.ahead, this.past, from);
  }
}

function step(source: TrailPlace[], target: TrailPlace[], from: TrailPlace): TrailPlace | undefined {
  const to = source.pop();
  if (to) target.push(from);
  return to;
}
