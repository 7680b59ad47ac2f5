import { strToU8, zipSync, type Zippable } from 'fflate';
import { RECORDS, TABLE_TYPES } from '../../model/records';
import { SCHEMA_VERSION } from '../../model/schema-version';
import { unpackPassages } from '../../passages/columns';
import { sha256 } from '../sha256';
import type { StudyBundle } from './bundle';
import {
  FORMAT,
  HISTORY_FILE,
  JOURNAL_FILE,
  LAYOUT_VERSION,
  MANIFEST_FILE,
  passagesFile,
  structureFile,
  textFile,
  type Manifest,
} from './layout';

/**
 * Writes a study as one file: a zip archive of JSON and plain texts (`docs/study-file.md`).
 * @param savedAt milliseconds since 1970, for the manifest
 * @param progress called with the share done, 0 to 1
 * @param withoutHistory leaves out what records were before: the log keeps its sentences, and nothing can be undone in the copy
 */
export async function writeStudyFile(
  bundle: StudyBundle,
  savedAt: number,
  progress: (share: number) => void = () => undefined,
  withoutHistory = false,
): Promise<Uint8Array> {
  const { state } = bundle;
  const files = new Map<string, Uint8Array>();
  const put = (name: string, value: unknown): void => void files.set(name, strToU8(`${JSON.stringify(value, null, 1)}\n`));
  put(RECORDS.study.file, state.study);
  for (const type of TABLE_TYPES) put(RECORDS[type].file, Object.values(state.tables[type]));
  for (const columns of Object.values(state.passages)) put(passagesFile(columns.documentId), unpackPassages(columns));
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
  let done = 0;
  for (const [name, bytes] of files) {
    manifest.files[name] = { bytes: bytes.length, sha256: await sha256(bytes) };
    if (++done % 100 === 0) progress((0.5 * done) / files.size);
  }
  progress(0.5);
  const archive: Zippable = { [MANIFEST_FILE]: strToU8(JSON.stringify(manifest, null, 1)) };
  for (const [name, bytes] of files) archive[name] = bytes;
  // the zip format knows no year before 1980
  return zipSync(archive, { level: 6, mtime: new Date(Math.max(savedAt, Date.UTC(1980, 1))) });
}
