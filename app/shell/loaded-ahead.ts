import { inject, Injectable } from '@angular/core';
import { Router, type PreloadingStrategy, type Route } from '@angular/router';
import { EMPTY, from, switchMap, type Observable } from 'rxjs';

/**
 * Where one goes first is loaded while one still looks at the studies: places that say so (`ahead`). It waits until
 * their list is drawn with all that belongs to it, and elsewhere nothing is loaded, since it would be in the way of what
 * is shown.
 */
@Injectable({ providedIn: 'root' })
export class LoadedAhead implements PreloadingStrategy {
  private readonly router = inject(Router);

  preload(route: Route, load: () => Observable<unknown>): Observable<unknown> {
    const wanted = (): boolean => Boolean(route.data?.['ahead']) && this.router.url === '/';
    return wanted() ? from(atRest()).pipe(switchMap(() => (wanted() ? load() : EMPTY))) : EMPTY;
  }
}

/** How long a browser that does not tell when it is at rest is given, milliseconds. */
const REST = 200;

/** Done when the page is drawn, its fonts are there, and nothing else is to be done. */
async function atRest(): Promise<void> {
  const whenIdle = globalThis.requestIdleCallback as typeof requestIdleCallback | undefined;
  await new Promise<unknown>((resolve) => (whenIdle ? whenIdle(resolve) : setTimeout(resolve, REST)));
  await document.fonts.ready;
}
