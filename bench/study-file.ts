import type { StudyBundle } from '../core/formats/study-file/bundle';
import { writeStudyFile } from '../core/formats/study-file/write-study-file';

/** The bytes of a study file, the same for the same study. */
export const studyFileOf = async (study: StudyBundle): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await (await writeStudyFile(study, Date.UTC(2025, 0, 1))).arrayBuffer());
