import { quoted } from '../../text/quoted';
import * as z from 'zod';
import { HistorySchema, JournalEntrySchema } from '../../change/journal-schema';
import { danglingMended } from '../../integrity/mend';
import { checkStudy } from '../../integrity/check-study';
import { hasText, TextSchema, type Document, type Text } from '../../model/document';
import type { Id } from '../../model/ids';
import { PassageSchema, type Passage } from '../../model/passage';
import { isMendable } from '../../model/mendable';
import { RECORDS, schemaOf, TABLE_TYPES, type TableType } from '../../model/records';
import { migrate, migrateEntry, migrateRecord, NewerVersionError, SCHEMA_VERSION } from '../../model/schema-version';
import { emptyState, type StudyState } from '../../model/study-state';
import { StudySchema } from '../../model/study';
import type { Tell } from '../../requests/requests';
import { packPassages } from '../../passages/columns';
import type { PassageColumns } from '../../model/passage-columns';
import { ArchiveError } from '../archive';
import { sha256, sha256OfFile } from '../sha256';
import { mediaSpokenOf, type BundleWithoutMedia, type StudyBundle } from './bundle';
import {
  FORMAT,
  HISTORY_FILE,
  JOURNAL_FILE,
  LAYOUT_VERSION,
  MANIFEST_FILE,
  ManifestSchema,
  mayLieIn,
  mediaFile,
  passagesFile,
  structureFile,
  textFile,
  type Manifest,
} from './layout';
import { JsonError, parseJson } from './parse-json';
import { openArchive } from './study-archive';

const LIMITS = { entries: 400_000, entryBytes: 500_000_000, totalBytes: 2_000_000_000, ratio: 200 };

/** A study file cannot be opened. The message says why and that nothing was changed. */
export class StudyFileError extends Error {
  constructor(reason: string) {
    super(`${reason} Nothing was changed.`);
    this.name = 'StudyFileError';
  }
}

/**
 * Reads a study file whole, checks it, and only then returns it: the check sums, the shape of every record, and
 * that the records hold together.
 * @param tell told the share done, 0 to 1
 * @throws StudyFileError for a damaged or hostile file; NewerVersionError for one of a later version
 */
export async function readStudyFile(file: Blob, tell: Tell = () => undefined): Promise<StudyBundle> {
  try {
    const { files, media } = await openArchive(file, LIMITS);
    await tell(0.2);
    const manifest = readManifest(files);
    await checkFiles(files, media, manifest, tell);
    await tell(0.4);
    return withMedia(await readBundle(files, manifest, tell), media, new Set(manifest.mediaLeftOut));
  } catch (error) {
    if (error instanceof StudyFileError || error instanceof NewerVersionError) throw error;
    if (error instanceof ArchiveError || error instanceof JsonError)
      throw new StudyFileError(`This study file cannot be opened. ${error.message}`);
    throw error;
  }
}

function readManifest(files: ReadonlyMap<string, Uint8Array>): Manifest {
  const bytes = files.get(MANIFEST_FILE);
  if (!bytes) throw new StudyFileError('This archive is not a study file: it has no manifest.');
  const raw = parseJson(bytes, MANIFEST_FILE);
  const head = z.object({ format: z.literal(FORMAT), layout: z.number(), dataVersion: z.number() }).safeParse(raw);
  if (!head.success) throw new StudyFileError('This archive is not a study file: its manifest is of another kind.');
  if (head.data.layout > LAYOUT_VERSION) throw new NewerVersionError(head.data.layout);
  if (head.data.dataVersion > SCHEMA_VERSION) throw new NewerVersionError(head.data.dataVersion);
  return parse(ManifestSchema, raw, MANIFEST_FILE);
}

async function checkFiles(
  files: ReadonlyMap<string, Uint8Array>,
  media: ReadonlyMap<string, Blob>,
  manifest: Manifest,
  tell: Tell,
): Promise<void> {
  for (const name of [...files.keys(), ...media.keys()]) {
    if (!mayLieIn(name)) throw new StudyFileError(`It holds a file that does not belong in a study file: “${name.slice(0, 80)}”.`);
    if (name !== MANIFEST_FILE && !Object.hasOwn(manifest.files, name))
      throw new StudyFileError(`${quoted(name)} in it is not listed in its manifest.`);
  }
  for (const [name, { bytes, sha256: sum }] of Object.entries(manifest.files)) {
    const kept = media.get(name);
    if (kept) {
      const sumOfKept = kept.size === bytes ? await sha256OfFile(kept, (read) => tell(0.2 + (0.2 * read) / kept.size)) : '';
      if (sumOfKept !== sum || mediaFile(sum) !== name)
        throw new StudyFileError('The study file is damaged: a recording or picture in it is not as it was saved. Use another copy.');
      continue;
    }
    const file = files.get(name);
    if (!file) throw new StudyFileError(`The study file is damaged: ${quoted(name)} is missing.`);
    if (file.length !== bytes || (await sha256(file)) !== sum)
      throw new StudyFileError(`The study file is damaged: ${quoted(name)} is not as it was saved. Use another copy.`);
  }
}

/**
 * A study with the media it keeps.
 * @param leftOut those that the file says it was written without
 * @throws StudyFileError where another that it speaks of is missing or not as it says
 */
function withMedia(bundle: BundleWithoutMedia, media: ReadonlyMap<string, Blob>, leftOut: ReadonlySet<string>): StudyBundle {
  const kept = new Map<string, Blob>();
  for (const { sha256: sum, bytes, type, outside } of mediaSpokenOf(bundle.state, bundle.journal).values()) {
    const blob = media.get(mediaFile(sum));
    if (!blob && (outside || leftOut.has(sum))) continue;
    if (blob?.size !== bytes) throw new StudyFileError('The study file is damaged: a recording or picture of the study is missing.');
    kept.set(sum, blob.slice(0, blob.size, type));
  }
  return { ...bundle, media: kept };
}

async function readBundle(files: ReadonlyMap<string, Uint8Array>, manifest: Manifest, tell: Tell): Promise<BundleWithoutMedia> {
  const json = (name: string): unknown => {
    const bytes = files.get(name);
    if (!bytes) throw new StudyFileError(`The study file is damaged: ${quoted(name)} is missing.`);
    return parseJson(bytes, name);
  };
  const records: Record<string, readonly unknown[]> = { study: [json(RECORDS.study.file)] };
  for (const type of TABLE_TYPES) {
    // a table that the file's version did not know yet
    const missing = manifest.dataVersion < SCHEMA_VERSION && !files.has(RECORDS[type].file);
    records[type] = missing ? [] : parse(z.array(z.unknown()), json(RECORDS[type].file), RECORDS[type].file);
  }
  const migrated = migrate(records, manifest.dataVersion);

  const study = parse(StudySchema, migrated['study']?.[0], RECORDS.study.file);
  const tables: Record<string, Record<Id, unknown>> = {};
  for (const type of TABLE_TYPES) {
    tables[type] = readTable(type, migrated[type] ?? []);
    await tell(0.4);
  }
  const state: StudyState = { ...emptyState(study), tables: tables as unknown as StudyState['tables'] };

  const texts = new Map<Id, Text>();
  const passages: Record<Id, PassageColumns> = {};
  const documentIds = Object.keys(state.tables.document);
  for (const [at, id] of documentIds.entries()) {
    const document = state.tables.document[id]!;
    if (files.has(passagesFile(id)))
      passages[id] = packPassagesOf(document, readPassages(json(passagesFile(id)), id, manifest.dataVersion));
    if (at % 20 === 0) await tell(0.4 + (0.5 * at) / documentIds.length);
    if (!hasText(document)) continue;
    const bytes = files.get(textFile(id));
    if (!bytes) throw new StudyFileError(`The study file is damaged: the text of ${quoted(document.title)} is missing.`);
    const structure = parse(StructureSchema, migrateRecord('text', json(structureFile(id)), manifest.dataVersion), structureFile(id));
    // ignoreBOM keeps a U+FEFF that is part of the text
    texts.set(id, { id, text: new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes), ...structure });
  }
  const journal = parse(
    z.array(JournalEntrySchema),
    parse(z.array(z.unknown()), json(JOURNAL_FILE), JOURNAL_FILE).map((entry) => migrateEntry(entry, manifest.dataVersion)),
    JOURNAL_FILE,
  );
  const history = parse(HistorySchema, json(HISTORY_FILE), HISTORY_FILE);
  if (history.seq !== (journal.at(-1)?.seq ?? 0))
    throw new StudyFileError('The study file does not hold together: its journal and its history differ.');
  const stored: BundleWithoutMedia = { state: { ...state, passages }, texts, journal, history };
  const bundle = manifest.dataVersion < SCHEMA_VERSION ? mended(stored, manifest.savedAt) : stored;
  const faults = checkStudy(bundle.state, texts);
  if (faults.length > 0)
    throw new StudyFileError(
      `The study file does not hold together: ${faults[0]}${faults.length > 1 ? ` (and ${faults.length - 1} more faults)` : ''}`,
    );
  await tell(1);
  return bundle;
}

/** A study of an earlier version without links that lead nowhere. @param now when that is said to have happened, ms since 1970 */
function mended(bundle: BundleWithoutMedia, now: number): BundleWithoutMedia {
  const without = danglingMended(bundle.state, bundle.history, now);
  return without ? { ...bundle, state: without.state, history: without.history, journal: [...bundle.journal, without.entry] } : bundle;
}

function packPassagesOf(document: Document, passages: readonly Passage[]): PassageColumns {
  try {
    return packPassages(document.id, passages, document.ground.of);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new StudyFileError(`The study file does not hold together: a passage of ${quoted(document.title)} stands in another ground.`);
  }
}

const readPassages = (raw: unknown, documentId: Id, version: number): Passage[] =>
  parse(
    z.array(PassageSchema),
    parse(z.array(z.unknown()), raw, passagesFile(documentId)).map((one) => migrateRecord('passage', one, version)),
    passagesFile(documentId),
  );

/** What a text has beside its words. */
const StructureSchema = TextSchema.omit({ id: true, text: true });

function readTable(type: TableType, records: readonly unknown[]): Record<Id, unknown> {
  const table: Record<Id, unknown> = {};
  for (const raw of records) {
    const record = parse(schemaOf(type) as z.ZodType<{ id: Id }>, raw, RECORDS[type].file);
    if (Object.hasOwn(table, record.id))
      throw new StudyFileError(`The study file does not hold together: “${RECORDS[type].file}” has the same record twice.`);
    table[record.id] = record;
  }
  return table;
}

function parse<T>(schema: z.ZodType<T>, value: unknown, name: string): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  // a value that an earlier version let in: the study opens with it and says so
  if (result.error.issues.every(isMendable)) return value as T;
  const issue = result.error.issues[0]!;
  const where = issue.path.length > 0 ? ` at ${issue.path.map(String).join('.')}` : '';
  throw new StudyFileError(`${quoted(name)} in the study file is not as it should be${where}: ${issue.message}.`);
}
