/// <reference lib="webworker" />
import { expose, transfer } from 'comlink';
import { PdfPages, type SeenPage } from './pdf-pages';

/** Hands the drawn page over and keeps nothing of it. */
class PagesWorker extends PdfPages {
  override async page(sha256: string, file: Blob, number: number): Promise<SeenPage | null> {
    const seen = await super.page(sha256, file, number);
    return seen && transfer(seen, [seen.bitmap]);
  }
}

export type { PagesWorker };
expose(new PagesWorker(new URL('/character-maps/', self.location.origin).href));
