import { effect, inject, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { selectStudy } from './study.selectors';

/**
 * Forgets what was remembered during a visit of a study when the next begins: of another study, or of the same once more,
 * which may have been deleted and opened from an older file meanwhile. To be called where effects may be made.
 */
export function onNextVisit(forget: () => void): void {
  const study = inject(Store).selectSignal(selectStudy);
  let visited = untracked(study)?.id ?? null;
  effect(() => {
    const id = study()?.id ?? null;
    const isNext = id !== null && id !== visited;
    visited = id;
    if (isNext) untracked(forget);
  });
}
