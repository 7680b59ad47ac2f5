import { RECORDS, type RecordType } from './records';

/**
 * Version of the records' schemas. It is stored with every study and in every study file.
 * Raise it with any change of a stored shape, and add the step to the `migrations` of the types it concerns.
 *
 * 2: attributes of documents, questions and answers, stretches owned by cases, pages and times, an order of attributes.
 * 3: glosses; ratings of codings and how far a document is read, which may be absent.
 * 4: sets of codes, relations, sorting tables, proposals, the researcher's own log entries; fields that may be absent.
 * 5: findings of checks that were left as they are, which may be absent.
 * 6: names of what a query asks for that is gone, which may be absent; no record points at what is not there.
 * 7: grounds of documents: recordings and pictures with their media; areas; what a document belongs to.
 * 8: media that stay where they are, services that made a transcript, words they were not sure of, what is typed for what; how
 *    pictures are shown, pages of a PDF. All of it may be absent.
 * 9: queries as conditions within conditions, and what they had found when their answer was last seen; codings that a sweep
 *    gave. The last two may be absent.
 * 10: kept scopes, word lists, kept searches, propositions; conditions that ask for cases; words looked for by a regular
 *    expression.
 * 11: kept patterns.
 * 12: what was expected and not found; kept patterns of similarity and of attributes.
 * 13: kept patterns of who takes a theme up; how a pattern is shown; conditions that ask for the day of a document, for a folder
 *    alone, and whether something is in or of anything. What is new in patterns of before may be absent.
 * 14: live sets that ask for what kept queries find; how counts of who takes a theme up are shown, which may be absent.
 */
export const SCHEMA_VERSION = 14;

/** Records as they were stored, before they are known to fit the current schemas. */
export type StoredRecords = Readonly<Record<string, readonly unknown[]>>;

/** The migrations of the types, as records have them. */
type Migrating = Readonly<Record<string, { readonly migrations?: Readonly<Record<number, (record: object) => object>> }>>;

/** A study was stored by a later version of Filum than this one. */
export class NewerVersionError extends Error {
  constructor(readonly found: number) {
    super(
      `This study was saved by a newer version of Filum (data version ${found}; this one reads up to ${SCHEMA_VERSION}). Update Filum and open it again. Nothing was changed.`,
    );
    this.name = 'NewerVersionError';
  }
}

/**
 * Brings one stored record to the current schema version, step by step. It works record by record, since the journal
 * holds records as well, and an undo must bring back what fits the current version. What is not a record is left for
 * the schema to refuse.
 * @param version the version it was stored with, from 1.
 * @throws NewerVersionError for a version above the current one; RangeError for one that never was
 */
export function migrateRecord(
  type: RecordType | (string & {}),
  record: unknown,
  version: number,
  records: Migrating = RECORDS,
  current = SCHEMA_VERSION,
): unknown {
  if (version > current) throw new NewerVersionError(version);
  if (!(version >= 1)) throw new RangeError(`There is no data version ${version}.`);
  if (typeof record !== 'object' || record === null) return record;
  const migrations = Object.hasOwn(records, type) ? records[type]!.migrations : undefined;
  let migrated = record;
  for (let at = version; at < current; at++) migrated = migrations?.[at]?.(migrated) ?? migrated;
  return migrated;
}

/** Brings records of all types to the current schema version. @throws as {@link migrateRecord} */
export function migrate(records: StoredRecords, version: number): StoredRecords {
  return Object.fromEntries(Object.entries(records).map(([type, some]) => [type, some.map((one) => migrateRecord(type, one, version))]));
}

/** A stored journal entry with the records in its change brought to the current schema version. @throws as {@link migrateRecord} */
export function migrateEntry(entry: unknown, version: number): unknown {
  if (version === SCHEMA_VERSION || typeof entry !== 'object' || entry === null || !('change' in entry) || !Array.isArray(entry.change))
    return entry;
  const change = (entry.change as readonly unknown[]).map((one) => {
    if (typeof one !== 'object' || one === null || !('type' in one)) return one;
    const { type, before = null, after = null } = one as { type: unknown; before?: unknown; after?: unknown };
    return {
      ...one,
      before: migrateRecord(String(type), before, version),
      after: migrateRecord(String(type), after, version),
    };
  });
  return { ...entry, change };
}
