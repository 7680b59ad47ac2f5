import type { Id } from '@core/model/ids';

const KEY = 'filum-last-places';
const KEPT = 300;

/** Where the reader was in each document, kept in this browser. A convenience: losing it loses nothing of the study. */
class LastPlaces {
  /** Position, and when it was read (ms since 1970; 0 where it was kept before that was noted). */
  private readonly places: Map<Id, readonly [position: number, at: number]>;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    let stored: unknown = [];
    try {
      stored = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    } catch {
      // written by something else: begin anew
    }
    const entries = Array.isArray(stored) ? (stored as [Id, number | [number, number]][]) : [];
    this.places = new Map(entries.map(([id, place]) => [id, typeof place === 'number' ? [place, 0] : place]));
  }

  read(documentId: Id, position: number): void {
    this.places.delete(documentId);
    this.places.set(documentId, [position, Date.now()]);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => localStorage.setItem(KEY, JSON.stringify([...this.places].slice(-KEPT))), 500);
  }

  /** Follows places that have moved, and forgets those of documents that are gone. @param at where a place is now, or null */
  follow(at: (place: { documentId: Id; position: number }) => { documentId: Id; position: number } | null): void {
    for (const [documentId, [position, time]] of [...this.places]) {
      const now = at({ documentId, position });
      if (now?.documentId === documentId) continue;
      this.places.delete(documentId);
      if (now && !this.places.has(now.documentId)) this.places.set(now.documentId, [now.position, time]);
    }
  }

  placeIn(documentId: Id): number {
    return this.places.get(documentId)?.[0] ?? 0;
  }

  /** When a document was last read in this browser, ms since 1970, or null. */
  readAt(documentId: Id): number | null {
    return this.places.get(documentId)?.[1] || null;
  }

  lastDocument(): Id | undefined {
    return [...this.places.keys()].at(-1);
  }
}

export const lastPlaces = new LastPlaces();
