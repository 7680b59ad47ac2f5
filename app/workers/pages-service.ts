import { Injectable, InjectionToken, inject } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { PagesWorker } from './pages.worker';
import type { PdfPages, SeenPage } from './pdf-pages';

/** Makes what draws pages when it is first needed. */
export const PAGES = new InjectionToken<() => Pick<Remote<PagesWorker>, 'page'> | Pick<PdfPages, 'page'>>('PAGES', {
  providedIn: 'root',
  factory: () => () => wrap<PagesWorker>(new Worker(new URL('./pages.worker', import.meta.url), { type: 'module' })),
});

/** Draws pages of PDFs in a worker. */
@Injectable({ providedIn: 'root' })
export class PagesService {
  private readonly make = inject(PAGES);
  private end: ReturnType<typeof this.make> | null = null;

  /** @returns null where the page cannot be drawn */
  async page(sha256: string, file: Blob, number: number): Promise<SeenPage | null> {
    this.end ??= this.make();
    return this.end.page(sha256, file, number);
  }
}
