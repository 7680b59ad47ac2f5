import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { StudyActions } from '../state/study.actions';
import { studyFeature } from '../state/study.reducer';
import type { OpenedStudy } from '../storage/study-storage';

/** A store with this study open for work, as components find it. */
export function openInStore(opened: OpenedStudy): void {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideStore({ study: studyFeature.reducer }, { runtimeChecks: { strictStateImmutability: false, strictActionImmutability: false } }),
    ],
  });
  TestBed.inject(Store).dispatch(StudyActions.opened({ opened, role: 'writer' }));
}
