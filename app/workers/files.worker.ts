/// <reference lib="webworker" />
import { expose } from 'comlink';
import { Filing } from '@core/filing/filing';
import type { Shelf } from '@core/filing/shelf';
import type { DemoFiles } from '@core/filing/study-files';
import { listStudies, studyExists } from '../storage/study-list';
import { StudyStorage } from '../storage/study-storage';

/** The studies in this browser. */
const shelf: Shelf = {
  has: studyExists,
  titles: async () => new Set((await listStudies()).map((one) => one.study.title)),
  add: (bundle, backedUp) => StudyStorage.create(bundle, backedUp ? { at: Date.now(), through: bundle.history.seq } : null),
  take: async (studyId) => {
    const storage = await StudyStorage.of(studyId);
    return {
      state: async () => (await storage.open()).state,
      texts: (documentIds) => storage.texts(documentIds),
      whole: () => storage.bundle(),
      write: (entry, after, media) => storage.commit(entry, after, media),
      putBack: () => storage.close(),
    };
  },
};

/** What the demo study is built from. `scripts/pack-demo.mjs` puts its texts into one file. */
const demoFiles: DemoFiles = {
  texts: async () => new Map(Object.entries((await (await shipped('demo.json')).json()) as Record<string, string>)),
  media: async (path) => (await shipped(`demo/${path}`)).blob(),
};

async function shipped(path: string): Promise<Response> {
  const response = await fetch(new URL(`/${path}`, self.location.origin));
  if (!response.ok) throw new Error(`${path}, which the demo study is built from, is missing.`);
  return response;
}

/** The work on files, with a way for readers to put in what they read. */
class FilesWorker extends Filing {
  /** Keeps what a reader reads. @param port leads to the reader */
  keepFrom(port: MessagePort): void {
    expose({ keepText: this.keepText.bind(this), keepTable: this.keepTable.bind(this) }, port);
  }
}

export type { FilesWorker };
expose(new FilesWorker(shelf, demoFiles));
