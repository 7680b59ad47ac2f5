import type { Id } from '@core/model/ids';

const KEY = 'filum-last-places';
const KEPT = 300;

/** Where the reader was in each document, kept in this browser. A convenience: losing it loses nothing of the study. */
class LastPlaces {
  private readonly places: Map<Id, number>;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    let stored: unknown = [];
    try {
      stored = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    } catch {
      // written by something else: begin anew
    }
    this.places = new Map(Array.isArray(stored) ? (stored as [Id, number][]) : []);
  }

  read(documentId: Id, position: number): void {
    this.places.delete(documentId);
    this.places.set(documentId, position);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => localStorage.setItem(KEY, JSON.stringify([...this.places].slice(-KEPT))), 500);
  }

  placeIn(documentId: Id): number {
    return this.places.get(documentId) ?? 0;
  }

  lastDocument(): Id | undefined {
    return [...this.places.keys()].at(-1);
  }
}

export const lastPlaces = new LastPlaces();
