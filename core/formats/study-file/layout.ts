import * as z from 'zod';
import { CountSchema, LineSchema, TimeSchema } from '../../model/fields';
import { IdSchema } from '../../model/ids';
import type { TableType } from '../../model/record-types';

/** Name of the format in the manifest, and the version of its layout (not of the records: that is `dataVersion`). */
export const FORMAT = 'filum study';
export const LAYOUT_VERSION = 1;

/** Where each table lies in the archive. */
export const TABLE_FILES: Readonly<Record<TableType, string>> = {
  coder: 'coders.json',
  folder: 'folders.json',
  document: 'documents.json',
  case: 'cases.json',
  attribute: 'attributes.json',
  code: 'codebook.json',
  memo: 'memos.json',
  query: 'queries.json',
  question: 'questions.json',
  set: 'sets.json',
  gloss: 'glosses.json',
  codeSet: 'code-sets.json',
  relation: 'relations.json',
  sorting: 'sorting-tables.json',
  proposal: 'proposals.json',
  logEntry: 'log-entries.json',
};
export const MANIFEST_FILE = 'manifest.json';
export const STUDY_FILE = 'study.json';
export const JOURNAL_FILE = 'journal.json';
export const HISTORY_FILE = 'history.json';
export const textFile = (documentId: string): string => `texts/${documentId}.txt`;
export const structureFile = (documentId: string): string => `texts/${documentId}.json`;
export const passagesFile = (documentId: string): string => `passages/${documentId}.json`;

/** Nothing else may lie in a study file. */
export const ALLOWED_FILE =
  /^(manifest|study|journal|history|coders|folders|documents|cases|attributes|codebook|memos|queries|questions|sets|glosses|code-sets|relations|sorting-tables|proposals|log-entries)\.json$|^texts\/[0-9a-f-]{36}\.(txt|json)$|^passages\/[0-9a-f-]{36}\.json$/;

/** The first file of the archive: what it is, and a check sum of every other file. */
export const ManifestSchema = z.strictObject({
  format: z.literal(FORMAT),
  layout: z.number().int().min(1),
  dataVersion: z.number().int().min(1),
  studyId: IdSchema,
  title: LineSchema,
  savedAt: TimeSchema,
  files: z.record(z.string().max(200), z.strictObject({ bytes: CountSchema, sha256: z.string().regex(/^[0-9a-f]{64}$/) })),
});
export type Manifest = z.infer<typeof ManifestSchema>;
