import { inject, Injectable } from '@angular/core';
import { Router, type PreloadingStrategy, type Route } from '@angular/router';
import { EMPTY, type Observable } from 'rxjs';

/**
 * Where one goes first is loaded while one still looks at the studies, or a study is opened: places that say so (`ahead`).
 * Elsewhere nothing is, since it would be in the way of what is shown.
 */
@Injectable({ providedIn: 'root' })
export class LoadedAhead implements PreloadingStrategy {
  private readonly router = inject(Router);

  preload(route: Route, load: () => Observable<unknown>): Observable<unknown> {
    return route.data?.['ahead'] && this.router.url === '/' ? load() : EMPTY;
  }
}
