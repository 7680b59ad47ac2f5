import { strToU8 } from 'fflate';
import { RECORDS, TABLE_TYPES } from '../../model/records';
import { SCHEMA_VERSION } from '../../model/schema-version';
import type { Tell } from '../../requests/requests';
import { unpackPassages } from '../../passages/columns';
import { sha256 } from '../sha256';
import { mediaSpokenOf, type StudyBundle } from './bundle';
import { writeArchive } from './study-archive';
import {
  FORMAT,
  HISTORY_FILE,
  JOURNAL_FILE,
  LAYOUT_VERSION,
  MANIFEST_FILE,
  mediaFile,
  passagesFile,
  structureFile,
  textFile,
  type Manifest,
} from './layout';

/** What a study file is written without. */
export interface LeftOut {
  /** What records were before: the log keeps its sentences, and nothing can be undone in the copy. */
  readonly history?: boolean;
  /** Recordings and pictures that the study keeps: the copy knows them, and can be shown where they are. */
  readonly media?: boolean;
}

/**
 * Writes a study as one file: a zip archive of JSON and plain texts, and of media as they are (`docs/study-file.md`).
 * @param savedAt milliseconds since 1970, for the manifest
 * @param tell told the share done, 0 to 1
 */
export async function writeStudyFile(
  bundle: StudyBundle,
  savedAt: number,
  tell: Tell = () => undefined,
  leave: LeftOut = {},
): Promise<Blob> {
  const { state } = bundle;
  const files = new Map<string, Uint8Array>();
  const put = (name: string, value: unknown): void => void files.set(name, strToU8(`${JSON.stringify(value, null, 1)}\n`));
  put(RECORDS.study.file, state.study);
  for (const type of TABLE_TYPES) put(RECORDS[type].file, Object.values(state.tables[type]));
  for (const columns of Object.values(state.passages)) {
    put(passagesFile(columns.documentId), unpackPassages(columns));
    await tell(0);
  }
  for (const { id, text, ...structure } of bundle.texts.values()) {
    files.set(textFile(id), strToU8(text));
    files.set(structureFile(id), strToU8(JSON.stringify(structure)));
  }
  put(JOURNAL_FILE, leave.history ? bundle.journal.map((entry) => ({ ...entry, kind: 'note', of: null, change: [] })) : bundle.journal);
  put(HISTORY_FILE, leave.history ? { seq: bundle.history.seq, undo: [], redo: [] } : bundle.history);

  const manifest: Manifest = {
    format: FORMAT,
    layout: LAYOUT_VERSION,
    dataVersion: SCHEMA_VERSION,
    studyId: state.study.id,
    title: state.study.title,
    savedAt,
    files: {},
  };
  const spokenOf = mediaSpokenOf(state, leave.history ? [] : bundle.journal);
  const media = new Map<string, Blob>();
  const leftOut: string[] = [];
  for (const { sha256: sum, outside } of spokenOf.values()) {
    if (outside) continue;
    const blob = bundle.media.get(sum);
    // a study that came without them has none to give
    if (!blob || leave.media) {
      leftOut.push(sum);
      continue;
    }
    media.set(mediaFile(sum), blob);
    manifest.files[mediaFile(sum)] = { bytes: blob.size, sha256: sum };
  }
  if (leftOut.length > 0) manifest.mediaLeftOut = leftOut;
  let done = 0;
  for (const [name, bytes] of files) {
    manifest.files[name] = { bytes: bytes.length, sha256: await sha256(bytes) };
    if (++done % 20 === 0) await tell((0.3 * done) / files.size);
  }
  await tell(0.3);
  const inOrder = new Map([[MANIFEST_FILE, strToU8(JSON.stringify(manifest, null, 1))], ...files]);
  return writeArchive(inOrder, media, savedAt, (share) => tell(0.3 + 0.7 * share));
}
