import { afterNextRender, inject, Injectable, Injector, untracked } from '@angular/core';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { lastPlaces } from '../../state/last-places';
import { Notices } from '../../state/notices';
import { Visits } from '../../state/visits';
import { Ways } from '../../state/ways';
import { ReadingHere } from './reading-here';

/** How the reader comes to a place in a document, leaves it, and finds back. */
@Injectable()
export class Travelling {
  private readonly here = inject(ReadingHere);
  private readonly ways = inject(Ways);
  private readonly notices = inject(Notices);
  private readonly visits = inject(Visits);
  private readonly injector = inject(Injector);
  private arrivedIn: Id | undefined;
  private shownId: Id | undefined;
  private travellingTo: Id | undefined;

  /**
   * Shows the passage that the address names, or else where the reader was; again whenever the text or the address is
   * another.
   * @param words the words that the address names, as "start-end" in characters
   * @param settle puts away what belongs to what was shown before
   */
  arrive(documentId: Id | undefined, passageId: Id | undefined, words: string | undefined, settle: () => void): void {
    const text = this.here.text();
    const surface = this.here.surface();
    this.visits.count();
    this.arrivedIn = undefined;
    if (!text || !surface || text.id !== documentId) return;
    untracked(() => {
      const passage = this.here.passages().find((one) => one.id === passageId);
      const found = passage ? null : stretchIn(words, text.text.length);
      // coming back to the same document, the reader finds what was chosen there
      if (passage || this.shownId !== text.id) this.here.chosenId.set(passage?.id ?? null);
      this.shownId = text.id;
      settle();
      // the surface takes the text in in an effect of its own, after this one; the place is found before anything is painted
      const bringThere = (): void => {
        if (passage) surface.goTo(passage);
        else if (found) {
          surface.goTo(found);
          surface.select(found);
          // a selection is seen where the caret is
          surface.focus();
        } else surface.scrollTo(lastPlaces.placeIn(text.id));
        this.arrivedIn = text.id;
      };
      afterNextRender({ write: bringThere }, { injector: this.injector });
    });
  }

  /** Another document comes up: what is left can be come back to, unless the reader is on the way back already. */
  leaveFor(documentId: Id | undefined): void {
    const left = this.here.documentId();
    if (left && documentId && left !== documentId && this.travellingTo !== documentId)
      this.here.trail.leave({ documentId: left, position: lastPlaces.placeIn(left) });
    this.travellingTo = undefined;
  }

  /** Goes back to where the reader jumped from, or forward again. */
  travel(way: 'back' | 'forward'): void {
    const { trail, documentId } = this.here;
    const to = trail[way](this.here.place());
    if (!to) return this.notices.say(way === 'back' ? 'There is nothing further back.' : 'There is nothing further on.');
    if (to.documentId === documentId()) return this.here.surface()?.scrollTo(to.position);
    lastPlaces.read(to.documentId, to.position);
    this.travellingTo = to.documentId;
    this.ways.go(['reading', to.documentId]);
  }

  /** Shows a position that was clicked in the line at the foot. */
  jump(position: number): void {
    this.here.trail.leave(this.here.place());
    this.here.surface()?.scrollTo(position);
  }

  /** The reader has come to a position. */
  reached(position: number, documentId: Id | undefined): void {
    this.here.at.set(position);
    // until the reader has been brought to where they were, the position is not theirs
    if (this.arrivedIn === documentId) lastPlaces.read(this.arrivedIn!, position);
  }
}

/** Words that an address names, where the text has them. */
function stretchIn(words: string | undefined, length: number): Stretch | null {
  const [start = NaN, end = NaN] = (words ?? '').split('-').map(Number);
  return Number.isInteger(start) && Number.isInteger(end) && 0 <= start && start < end && end <= length ? { start, end } : null;
}
