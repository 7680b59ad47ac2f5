/// <reference lib="webworker" />
import { expose } from 'comlink';
import { readFile, type ReadFile, type ReadOptions } from '@core/formats/read-file';
import { UnreadableFileError } from '@core/formats/reading';
import { asCopy } from '@core/formats/study-file/as-copy';
import { readStudyFile, StudyFileError } from '@core/formats/study-file/read-study-file';
import { writeStudyFile } from '@core/formats/study-file/write-study-file';
import { randomId, type Id } from '@core/model/ids';
import { NewerVersionError } from '@core/model/schema-version';
import { buildDemoStudy, demoSourcePaths } from '@core/sample/demo-study';
import { studyExists } from '../storage/study-list';
import { StudyStorage } from '../storage/study-storage';

/** A file that was read, or why it was not. */
export type FileOutcome = { readonly read: ReadFile } | { readonly trouble: string; readonly encodings: readonly string[] };

/** What became of a study file. */
export type StudyFileOutcome =
  | { readonly opened: Id }
  /** A study with this id is here already; nothing was stored. */
  | { readonly alreadyHere: Id; readonly title: string }
  | { readonly trouble: string };

/** Work on files, away from the interface. */
const files = {
  /** Reads one file for the import's preview; nothing is stored. */
  async read(name: string, bytes: Uint8Array, options: ReadOptions): Promise<FileOutcome> {
    try {
      return { read: await readFile(name, bytes, options) };
    } catch (error) {
      if (!(error instanceof UnreadableFileError)) return { trouble: `The file cannot be read (${String(error)}).`, encodings: [] };
      return { trouble: error.message, encodings: error.encodings };
    }
  },

  /** Opens a study file into this browser: all of it, or nothing. */
  async openStudyFile(bytes: Uint8Array, ifHere: 'ask' | 'copy', progress: (share: number) => void): Promise<StudyFileOutcome> {
    try {
      let bundle = await readStudyFile(bytes, progress);
      const { id, title } = bundle.state.study;
      if (await studyExists(id)) {
        if (ifHere === 'ask') return { alreadyHere: id, title };
        bundle = asCopy(bundle, randomId());
      }
      await StudyStorage.create(bundle, { at: Date.now(), through: bundle.history.seq });
      return { opened: bundle.state.study.id };
    } catch (error) {
      if (error instanceof StudyFileError || error instanceof NewerVersionError) return { trouble: error.message };
      return { trouble: `The study could not be stored (${error instanceof Error ? error.message : String(error)}). Nothing was changed.` };
    }
  },

  /** Makes a study file of a study in this browser, from one moment of it. */
  async writeStudyFile(studyId: Id, progress: (share: number) => void): Promise<{ bytes: Uint8Array; through: number }> {
    const storage = await StudyStorage.of(studyId);
    try {
      const bundle = await storage.bundle();
      return { bytes: await writeStudyFile(bundle, Date.now(), progress), through: bundle.history.seq };
    } finally {
      storage.close();
    }
  },

  /** Builds the demo study from the sources that ship with the application. */
  async openDemo(): Promise<Id> {
    const sources = await Promise.all(
      demoSourcePaths().map(async (path): Promise<[string, string]> => {
        const response = await fetch(new URL(`/demo/${path}`, self.location.origin));
        if (!response.ok) throw new Error(`The demo study’s source ${path} is missing.`);
        return [path, await response.text()];
      }),
    );
    const bundle = buildDemoStudy(new Map(sources));
    if (!(await studyExists(bundle.state.study.id))) await StudyStorage.create(bundle);
    return bundle.state.study.id;
  },
};

export type FilesWorker = typeof files;
expose(files);
