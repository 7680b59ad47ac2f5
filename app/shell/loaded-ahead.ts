import { Injectable } from '@angular/core';
import type { PreloadingStrategy, Route } from '@angular/router';
import { EMPTY, type Observable } from 'rxjs';

/** Where one goes first is loaded while one still looks at the studies, or a study is opened: places that say so (`ahead`). */
@Injectable({ providedIn: 'root' })
export class LoadedAhead implements PreloadingStrategy {
  preload(route: Route, load: () => Observable<unknown>): Observable<unknown> {
    return route.data?.['ahead'] ? load() : EMPTY;
  }
}
