import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { StudyActions } from '../state/study.actions';
import { studyFeature } from '../state/study.reducer';
import { advance } from '@core/change/journal';
import type { OpenedStudy } from '../storage/study-storage';
import { PAST } from './past';

/** A store in which no study is open yet. */
export function emptyStore(): Store {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideStore({ study: studyFeature.reducer }, { runtimeChecks: { strictStateImmutability: false, strictActionImmutability: false } }),
    ],
  });
  return TestBed.inject(Store);
}

/** A store with this study open for work, as components find it. */
export function openInStore(opened: OpenedStudy): void {
  const store = emptyStore();
  const past = [...TestBed.inject(PAST)].sort((a, b) => a.seq - b.seq);
  const history = past.reduce(advance, opened.history);
  store.dispatch(StudyActions.opened({ opened: { ...opened, history }, role: 'writer' }));
}
