import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, type Params } from '@angular/router';

/** What an address says beside the place: which part of it is shown, and what stands in its halves. */
const SAID = ['view', 'left', 'right'] as const;

/** The part of each place that was shown last, while a study is open: who comes back to a place from another comes back to it. */
@Injectable({ providedIn: 'root' })
export class LastParts {
  private readonly left = signal<ReadonlyMap<string, Params>>(new Map());
  private readonly here = signal('');
  private studyId: string | undefined;

  constructor() {
    const router = inject(Router);
    router.events.pipe(takeUntilDestroyed()).subscribe((event) => {
      if (event instanceof NavigationEnd) this.arrive(router, event.urlAfterRedirects);
    });
  }

  /** What the way to a place says: from the place itself it leads to its first part. */
  of(place: string): Params {
    return place === this.here() ? {} : (this.left().get(place) ?? {});
  }

  private arrive(router: Router, url: string): void {
    const { root, queryParams } = router.parseUrl(url);
    const [study, id, place, within] = root.children['primary']?.segments.map((segment) => segment.path) ?? [];
    const studyId = study === 'study' ? id : undefined;
    if (studyId !== this.studyId) this.left.set(new Map());
    this.studyId = studyId;
    if (studyId === undefined || place === undefined) return;
    this.here.set(place);
    // what lies deeper in a place is no part of it
    if (within !== undefined) return;
    const said = Object.fromEntries(SAID.flatMap((name) => (queryParams[name] === undefined ? [] : [[name, queryParams[name] as string]])));
    this.left.update((left) => new Map(left).set(place, said));
  }
}
