import * as z from 'zod';
import { LineSchema, TimeSchema } from '../../model/fields';
import { IdSchema } from '../../model/ids';
import { RECORDS, TABLE_TYPES } from '../../model/records';

/** Name of the format in the manifest, and the version of its layout (not of the records: that is `dataVersion`). */
export const FORMAT = 'filum study';
export const LAYOUT_VERSION = 1;

export const MANIFEST_FILE = 'manifest.json';
export const JOURNAL_FILE = 'journal.json';
export const HISTORY_FILE = 'history.json';
export const textFile = (documentId: string): string => `${RECORDS.text.file}/${documentId}.txt`;
export const structureFile = (documentId: string): string => `${RECORDS.text.file}/${documentId}.json`;
export const passagesFile = (documentId: string): string => `${RECORDS.passage.file}/${documentId}.json`;

export const mediaFile = (sha256: string): string => `media/${sha256}`;
/** Whether a file of a study file is one that is kept as it is. */
export const isMediaFile = (file: string): boolean => /^media\/[0-9a-f]{64}$/.test(file);

const ALONE = new Set([MANIFEST_FILE, JOURNAL_FILE, HISTORY_FILE, RECORDS.study.file, ...TABLE_TYPES.map((type) => RECORDS[type].file)]);
const BY_DOCUMENT = new RegExp(`^(${RECORDS.text.file}/[0-9a-f-]{36}\\.(txt|json)|${RECORDS.passage.file}/[0-9a-f-]{36}\\.json)$`);

/** Whether a file may lie in a study file: nothing but what its records need. */
export const mayLieIn = (file: string): boolean => ALONE.has(file) || BY_DOCUMENT.test(file) || isMediaFile(file);

/** The first file of the archive: what it is, and a check sum of every other file. */
export const ManifestSchema = z.strictObject({
  format: z.literal(FORMAT),
  layout: z.number().int().min(1),
  dataVersion: z.number().int().min(1),
  studyId: IdSchema,
  title: LineSchema,
  savedAt: TimeSchema,
  files: z.record(
    z.string().max(200),
    z.strictObject({ bytes: z.number().int().min(0).max(Number.MAX_SAFE_INTEGER), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  ),
  /** Media that the study keeps and this file was written without, by the SHA-256 of their bytes; absent where it holds all. */
  mediaLeftOut: z.array(z.string().regex(/^[0-9a-f]{64}$/)).optional(),
});
export type Manifest = z.infer<typeof ManifestSchema>;
