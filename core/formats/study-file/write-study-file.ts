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

/**
 * Writes a study as one file: a zip archive of JSON and plain texts, and of media as they are (`docs/study-file.md`).
 * @param savedAt milliseconds since 1970, for the manifest
 * @param tell told the share done, 0 to 1
 * @param withoutHistory leaves out what records were before: the log keeps its sentences, and nothing can be undone in the copy
 */
export async function writeStudyFile(
  bundle: StudyBundle,
  savedAt: number,
  tell: Tell = () => undefined,
  withoutHistory = false,
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
  put(JOURNAL_FILE, withoutHistory ? bundle.journal.map((entry) => ({ ...entry, kind: 'note', of: null, change: [] })) : bundle.journal);
  put(HISTORY_FILE, withoutHistory ? { seq: bundle.history.seq, undo: [], redo: [] } : bundle.history);

  const manifest: Manifest = {
    format: FORMAT,
    layout: LAYOUT_VERSION,
    dataVersion: SCHEMA_VERSION,
    studyId: state.study.id,
    title: state.study.title,
    savedAt,
    files: {},
  };
  const spokenOf = mediaSpokenOf(state, withoutHistory ? [] : bundle.journal);
  const media = new Map<string, Blob>();
  for (const { sha256: sum } of spokenOf.values()) {
    const blob = bundle.media.get(sum);
    if (!blob) throw new Error('A recording or picture of the study is not there: the study file would not be whole.');
    media.set(mediaFile(sum), blob);
    manifest.files[mediaFile(sum)] = { bytes: blob.size, sha256: sum };
  }
  let done = 0;
  for (const [name, bytes] of files) {
    manifest.files[name] = { bytes: bytes.length, sha256: await sha256(bytes) };
    if (++done % 20 === 0) await tell((0.3 * done) / files.size);
  }
  await tell(0.3);
  const inOrder = new Map([[MANIFEST_FILE, strToU8(JSON.stringify(manifest, null, 1))], ...files]);
  return writeArchive(inOrder, media, savedAt, (share) => tell(0.3 + 0.7 * share));
}
