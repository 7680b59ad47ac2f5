import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { columnsOfCoder } from '@core/passages/by-coder';
import { ScopeActions } from './study.actions';
import { selectPassages, selectStudy } from './study.selectors';

/** Codings of which those of one coder are sorted out between two frames: a few milliseconds. */
const AT_ONCE = 6_000;

/**
 * Narrows the scope to one coder. What they leave of a large study is sorted out between the frames first, and
 * remembered with its passages: then every number of the scope changes in one step, and nothing waits for any.
 */
@Injectable({ providedIn: 'root' })
export class CoderScope {
  private readonly store = inject(Store);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly study = this.store.selectSignal(selectStudy);
  private choice = 0;

  /** @param coderId null for everybody @returns done when the scope has changed, or another was chosen meanwhile */
  async choose(coderId: Id | null): Promise<void> {
    const choice = ++this.choice;
    const studyId = this.study()?.id;
    let codings = 0;
    for (const columns of coderId === null ? [] : Object.values(this.passages())) {
      columnsOfCoder(columns, coderId!);
      codings += columns.codingRow.length;
      if (codings < AT_ONCE) continue;
      codings = 0;
      await new Promise((resolve) => setTimeout(resolve));
      if (choice !== this.choice || this.study()?.id !== studyId) return;
    }
    this.store.dispatch(ScopeActions.coderChosen({ coderId }));
  }
}
