/**
 * Version of the records' schemas. It is stored with every study and in every study file.
 * Raise it with any change of a stored shape, and add the step to `MIGRATIONS`.
 */
export const SCHEMA_VERSION = 1;

/** Records as they were stored, before they are known to fit the current schemas. */
export type StoredRecords = Readonly<Record<string, readonly unknown[]>>;

/** `MIGRATIONS[n]` takes the records of version n to version n + 1. It never drops what it does not know. */
export const MIGRATIONS: Readonly<Record<number, (records: StoredRecords) => StoredRecords>> = {};

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
 * Brings stored records to the current schema version, step by step.
 * @param version the version they were stored with, from 1.
 * @throws NewerVersionError for a version above the current one; RangeError where a step is missing.
 */
export function migrate(records: StoredRecords, version: number, steps = MIGRATIONS, current = SCHEMA_VERSION): StoredRecords {
  if (version > current) throw new NewerVersionError(version);
  let migrated = records;
  for (let at = version; at < current; at++) {
    const step = steps[at];
    if (!step) throw new RangeError(`There is no migration from data version ${at}.`);
    migrated = step(migrated);
  }
  return migrated;
}
