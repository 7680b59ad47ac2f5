import { provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideStore } from '@ngrx/store';
import { routes } from './routes';
import { studyFeature } from './state/study.reducer';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding()),
    // frozen objects are checked by types; freezing is impossible for the typed arrays in the state
    provideStore(
      { [studyFeature.name]: studyFeature.reducer },
      { runtimeChecks: { strictStateImmutability: false, strictActionImmutability: false } },
    ),
  ],
};
