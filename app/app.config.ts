import { provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { REMOVE_STYLES_ON_COMPONENT_DESTROY } from '@angular/platform-browser';
import { provideRouter, RouteReuseStrategy, withComponentInputBinding, withPreloading, withRouterConfig } from '@angular/router';
import { provideStore } from '@ngrx/store';
import { routes } from './routes';
import { KeptViews } from './shell/kept-views';
import { LoadedAhead } from './shell/loaded-ahead';
import { studyFeature } from './state/study.reducer';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    // a view's styles stay when it is left: adding them again would make the browser match every rule of the page anew
    { provide: REMOVE_STYLES_ON_COMPONENT_DESTROY, useValue: false },
    provideRouter(
      routes,
      withComponentInputBinding(),
      withPreloading(LoadedAhead),
      withRouterConfig({ canceledNavigationResolution: 'computed' }),
    ),
    { provide: RouteReuseStrategy, useExisting: KeptViews },
    // frozen objects are checked by types; freezing is impossible for the typed arrays in the state
    provideStore(
      { [studyFeature.name]: studyFeature.reducer },
      { runtimeChecks: { strictStateImmutability: false, strictActionImmutability: false } },
    ),
  ],
};
