import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { JournalEntry } from '@core/change/journal';
import { AnalysisService } from '../workers/analysis-service';
import { MovedHere } from './moved-here';
import { StudyActions } from './study.actions';
import { TextCache } from './text-cache';

/**
 * The one way of an entry onto the screen, whoever made it: its texts first, so that nobody sees new places in an old
 * text; then the store; then whatever remembers things without being part of the study.
 */
@Injectable({ providedIn: 'root' })
export class Entrance {
  private readonly store = inject(Store);
  private readonly texts = inject(TextCache);
  private readonly analysis = inject(AnalysisService);
  private readonly moved = inject(MovedHere);

  /** @param made by this tab (or a worker of it), or by another tab that this one follows */
  enter(entry: JournalEntry, made: 'here' | 'elsewhere'): void {
    for (const change of entry.change) {
      if (change.type !== 'text') continue;
      this.texts.put(change.after, change.before);
      if (change.after) this.analysis.textChanged(change.after);
    }
    this.store.dispatch(made === 'here' ? StudyActions.acted({ entry }) : StudyActions.followed({ entry }));
    this.moved.tell(entry.change);
  }
}
