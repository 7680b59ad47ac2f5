import type { Position } from '@core/change/moves-in';

/** Places remembered behind the reader; older ones are forgotten. */
const LONGEST = 200;

/** Where the reader has jumped from, to go back and forward as in a browser, within a document and between documents. */
export class Trail {
  private readonly past: Position[] = [];
  private readonly ahead: Position[] = [];

  /** Remembers the place that is left by a jump. What was ahead is given up. */
  leave(place: Position): void {
    this.ahead.length = 0;
    const last = this.past.at(-1);
    if (last?.documentId === place.documentId && last.position === place.position) return;
    this.past.push(place);
    if (this.past.length > LONGEST) this.past.shift();
  }

  /** Follows places that have moved, and forgets those of documents that are gone. @param at where a place is now, or null */
  follow(at: (place: Position) => Position | null): void {
    for (const places of [this.past, this.ahead]) {
      const now = places.flatMap((place) => at(place) ?? []);
      places.splice(0, places.length, ...now);
    }
  }

  /** The place jumped from last, or undefined; the one given is then ahead. */
  back(from: Position): Position | undefined {
    return step(this.past, this.ahead, from);
  }

  /** The place gone back from last, or undefined. */
  forward(from: Position): Position | undefined {
    return step(this.ahead, this.past, from);
  }
}

function step(source: Position[], target: Position[], from: Position): Position | undefined {
  const to = source.pop();
  if (to) target.push(from);
  return to;
}
