import { Filing } from '@core/filing/filing';
import { readMaterial, type FileOutcome } from '@core/filing/read-material';
import type { Shelf } from '@core/filing/shelf';
import type { ReadOptions } from '@core/formats/read-file';
import type { TableOptions } from '@core/formats/table/table';
import type { Text } from '@core/model/document';
import type { StudyState } from '@core/model/study-state';

/** The work on files itself, done here and not in workers, over a study that is open and kept nowhere. */
export class FilesAtHand extends Filing {
  /** Files whose reading does not end until it is stopped. */
  endless: readonly string[] = [];
  private readonly stopped: (() => void)[] = [];

  /** @param texts those of the open study */
  constructor(open: () => StudyState, texts: () => readonly Text[]) {
    const none = (): Promise<never> => Promise.reject(new Error('The demo study is not built here.'));
    super(shelfOf(open, texts), { texts: none, media: none });
  }

  read(key: number, name: string, file: Blob, options: ReadOptions & TableOptions): Promise<FileOutcome | null> {
    if (this.endless.includes(name)) return new Promise((resolve) => this.stopped.push(() => resolve(null)));
    return readMaterial(key, name, file, options, this);
  }

  stopReading(): void {
    for (const stop of this.stopped.splice(0)) stop();
  }

  override async storeMaterial(...asked: Parameters<Filing['storeMaterial']>): ReturnType<Filing['storeMaterial']> {
    return this.whole(await super.storeMaterial(...asked));
  }

  override async storeTable(...asked: Parameters<Filing['storeTable']>): ReturnType<Filing['storeTable']> {
    return this.whole(await super.storeTable(...asked));
  }

  /** An entry with its records, as it comes back from a worker. */
  private whole(entry: Awaited<ReturnType<Filing['storeMaterial']>>): typeof entry {
    const change = [];
    for (let some = this.takeStored(); some.length > 0; some = this.takeStored()) change.push(...some);
    return { ...entry, change };
  }
}

/** A shelf with nothing on it but the open study, which takes every entry. */
function shelfOf(open: () => StudyState, texts: () => readonly Text[]): Shelf {
  return {
    has: () => Promise.resolve(false),
    titles: () => Promise.resolve(new Set()),
    add: () => Promise.reject(new Error('There is no shelf.')),
    take: () =>
      Promise.resolve({
        state: () => Promise.resolve(open()),
        texts: (ids) => Promise.resolve(texts().filter((text) => ids.includes(text.id))),
        whole: () => Promise.reject(new Error('There is no shelf.')),
        write: () => Promise.resolve(),
        putBack: () => undefined,
      }),
  };
}
