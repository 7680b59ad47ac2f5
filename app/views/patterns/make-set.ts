import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { addSet } from '@core/commands/sets';
import type { Id } from '@core/model/ids';
import { counted } from '@core/text/counted';
import { StudySession } from '../../state/study-session';
import { selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';

/** Makes sets of what a number of a pattern counts. */
@Injectable({ providedIn: 'root' })
export class MakeSet {
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly study = inject(Store).selectSignal(selectStudy);

  /** So many documents or cases, in words. */
  words(of: 'document' | 'case', count: number): string {
    return counted(count, of === 'case' ? (this.study()?.caseWord ?? 'case') : of);
  }

  /** Asks what the set is called, beginning with what was counted, and makes it. */
  async of(of: 'document' | 'case', ids: readonly Id[], title: string): Promise<void> {
    await this.ask.keep(
      `Make a set of ${this.words(of, ids.length)}`,
      'Name of the set',
      title.slice(0, 200),
      'Make the set',
      (name) => this.session.attempt(addSet(of, name, [...ids])).refused,
    );
  }
}
