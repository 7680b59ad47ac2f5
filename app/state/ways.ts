import { inject, Injectable } from '@angular/core';
import { Router, type NavigationExtras } from '@angular/router';
import { Store } from '@ngrx/store';
import { selectStudy } from './study.selectors';

/** The ways about the open study. Whoever goes somewhere in it need not know which study it is. */
@Injectable({ providedIn: 'root' })
export class Ways {
  private readonly router = inject(Router);
  private readonly study = inject(Store).selectSignal(selectStudy);

  /** Goes to a view of the open study, or to what is shown in it: `go('reading', documentId)`. */
  go(parts: readonly string[], extras?: NavigationExtras): void {
    const study = this.study();
    if (study) void this.router.navigate(['/study', study.id, ...parts], extras);
  }
}
