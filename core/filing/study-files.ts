import { asCopy } from '../formats/study-file/as-copy';
import { mediaSpokenOf } from '../formats/study-file/bundle';
import { readStudyFile, StudyFileError } from '../formats/study-file/read-study-file';
import { writeStudyFile, type LeftOut } from '../formats/study-file/write-study-file';
import { randomId, type Id } from '../model/ids';
import { NewerVersionError } from '../model/schema-version';
import { RequestEndedError, type Tell } from '../requests/requests';
import type { Shelf } from './shelf';

/** What became of a study file. */
export type StudyFileOutcome =
  | { readonly opened: Id }
  /** A study with this id is here already; nothing was stored. */
  | { readonly alreadyHere: Id; readonly title: string }
  | { readonly trouble: string };

/** Opens a study file onto the shelf: all of it, or nothing. @throws RequestEndedError if `tell` does, and then nothing is stored */
export async function openStudyFile(shelf: Shelf, file: Blob, ifHere: 'ask' | 'copy', tell: Tell): Promise<StudyFileOutcome> {
  try {
    let bundle = await readStudyFile(file, tell);
    const { id, title } = bundle.state.study;
    if (await shelf.has(id)) {
      if (ifHere === 'ask') return { alreadyHere: id, title };
      bundle = asCopy(bundle, randomId(), await shelf.titles());
    }
    await shelf.add(bundle, true);
    return { opened: bundle.state.study.id };
  } catch (error) {
    if (error instanceof RequestEndedError) throw error;
    if (error instanceof StudyFileError || error instanceof NewerVersionError) return { trouble: error.message };
    return { trouble: `The study could not be stored (${error instanceof Error ? error.message : String(error)}). Nothing was changed.` };
  }
}

/** A study file that was written. */
export interface WrittenStudy {
  readonly file: Blob;
  /** The journal number it goes through. */
  readonly through: number;
  /** Recordings and pictures that the study keeps and this browser has not: they are not in the file. */
  readonly missing: number;
}

/** A study file of a study, from one moment of it, and the journal number it goes through. */
export async function studyFileOf(shelf: Shelf, studyId: Id, leave: LeftOut, tell: Tell): Promise<WrittenStudy> {
  const study = await shelf.take(studyId);
  try {
    const bundle = await study.whole();
    const missing = [...mediaSpokenOf(bundle.state, []).values()].filter(({ sha256, outside }) => !outside && !bundle.media.has(sha256));
    return { file: await writeStudyFile(bundle, Date.now(), tell, leave), through: bundle.history.seq, missing: missing.length };
  } finally {
    study.putBack();
  }
}

/** What the demo study is built from, as it ships with the application. */
export interface DemoFiles {
  /** Its texts and tables, by their paths. */
  texts(): Promise<ReadonlyMap<string, string>>;
  /** A recording or a picture of it. */
  media(path: string): Promise<Blob>;
}

/** Builds the demo study, if it is not there yet. */
export async function openDemo(shelf: Shelf, files: DemoFiles): Promise<Id> {
  const [{ buildDemoStudy, demoMedia }, sources] = await Promise.all([import('../sample/demo-study'), files.texts()]);
  const bundle = buildDemoStudy(sources);
  if (await shelf.has(bundle.state.study.id)) return bundle.state.study.id;
  const media = Array.from(demoMedia(sources), async ([sha256, { path, type }]): Promise<[string, Blob]> => {
    const file = await files.media(path);
    return [sha256, file.slice(0, file.size, type)];
  });
  await shelf.add({ ...bundle, media: new Map(await Promise.all(media)) }, false);
  return bundle.state.study.id;
}
