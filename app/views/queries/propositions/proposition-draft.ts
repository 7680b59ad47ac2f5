import { Injectable, signal } from '@angular/core';
import type { Id } from '@core/model/ids';
import { onNextVisit } from '../../../state/visit';

/** Which proposition is looked at, kept while the researcher goes to a passage and back. */
@Injectable({ providedIn: 'root' })
export class PropositionDraft {
  readonly id = signal<Id | null>(null);

  constructor() {
    onNextVisit(() => this.id.set(null));
  }
}
