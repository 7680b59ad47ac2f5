import { Injectable, signal } from '@angular/core';

/** Something that a place leaves out or shows otherwise, in words, and how to end it. */
export interface ShownHere {
  readonly words: string;
  readonly off: () => void;
}

/** What the present place adds to the scope sentence, so that no setting works unseen. A place clears it when it is left. */
@Injectable({ providedIn: 'root' })
export class ShownHereList {
  readonly parts = signal<readonly ShownHere[]>([]);
}
