import { JournalEntrySchema } from '@core/change/journal-schema';
import { RECORD_SCHEMAS } from '@core/model/records';
import { TABLE_TYPES } from '@core/model/record-types';
import { migrateEntry, migrateRecord, NewerVersionError, SCHEMA_VERSION } from '@core/model/schema-version';
import { fromRow, toRow, type StudyDatabase } from './study-database';

/**
 * Brings what an earlier version stored to the current one: all records and the journal in one transaction,
 * so that a study is never of two versions at once.
 * @throws NewerVersionError
 */
export async function upgradeStudy(db: StudyDatabase, version: number): Promise<void> {
  if (version > SCHEMA_VERSION) throw new NewerVersionError(version);
  await db.transaction('rw', db.tables, async () => {
    for (const type of [...TABLE_TYPES, 'text'] as const) {
      const table = db.table(type);
      const records: unknown[] = await table.toArray();
      await table.bulkPut(records.map((record) => RECORD_SCHEMAS[type].parse(migrateRecord(type, record, version))));
    }
    const rows = await db.journal.toArray();
    await db.journal.bulkPut(rows.map((row) => toRow(JournalEntrySchema.parse(migrateEntry(fromRow(row), version)))));
    // made from the journal as it was
    await db.logDigest.clear();
    await db.meta.put({ key: 'dataVersion', value: SCHEMA_VERSION });
  });
}
