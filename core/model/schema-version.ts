import type { RecordType } from './records';

/**
 * Version of the records' schemas. It is stored with every study and in every study file.
 * Raise it with any change of a stored shape, and add the step to `MIGRATIONS`.
 */
export const SCHEMA_VERSION = 5;

/** Records as they were stored, before they are known to fit the current schemas. */
export type StoredRecords = Readonly<Record<string, readonly unknown[]>>;

/** What one version changes in records of a type. It never drops what it does not know. */
export type Migration = Readonly<Partial<Record<RecordType, (record: object) => object>>>;

/**
 * `MIGRATIONS[n]` takes records of version n to version n + 1. It works record by record, since the
 * journal holds records as well, and an undo must bring back what fits the current version.
 */
export const MIGRATIONS: Readonly<Record<number, Migration>> = {
  // attributes of documents, questions and answers, stretches owned by cases, pages and times, an order of attributes
  1: {
    document: (record) => ({ ...record, values: {}, answers: [] }),
    text: (record) => ({ ...record, marks: [] }),
    case: (record) => ({ ...record, stretches: [] }),
    attribute: (record) => ({ ...record, order: 0 }),
  },
  // glosses, and fields that may be absent: ratings of codings, how far a document is read
  2: {},
  // sets of codes, relations, sorting tables, proposals, the researcher's own log entries, and fields that may be absent
  3: {},
  // findings of checks that were left as they are, which may be absent
  4: {},
};

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
 * Brings one stored record to the current schema version, step by step. What is not a record is left for
 * the schema to refuse.
 * @param version the version it was stored with, from 1.
 * @throws NewerVersionError for a version above the current one; RangeError where a step is missing.
 */
export function migrateRecord(type: string, record: unknown, version: number, steps = MIGRATIONS, current = SCHEMA_VERSION): unknown {
  if (version > current) throw new NewerVersionError(version);
  let migrated = record;
  for (let at = version; at < current; at++) {
    const step = steps[at];
    if (!step) throw new RangeError(`There is no migration from data version ${at}.`);
    const change = Object.hasOwn(step, type) ? step[type as RecordType] : undefined;
    if (change && typeof migrated === 'object' && migrated !== null) migrated = change(migrated);
  }
  return migrated;
}

/** Brings records of all types to the current schema version. @throws as {@link migrateRecord} */
export function migrate(records: StoredRecords, version: number, steps = MIGRATIONS, current = SCHEMA_VERSION): StoredRecords {
  return Object.fromEntries(
    Object.entries(records).map(([type, some]) => [type, some.map((one) => migrateRecord(type, one, version, steps, current))]),
  );
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
