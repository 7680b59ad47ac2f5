import type { History } from '@core/change/journal';
import { danglingMended } from '@core/integrity/mend';
import type { Study } from '@core/model/study';
import { toState } from './to-state';
import { JournalEntrySchema } from '@core/change/journal-schema';
import { isMendable } from '@core/model/mendable';
import { PassageSchema } from '@core/model/passage';
import { RECORD_TYPES, RECORDS, schemaOf, TABLE_TYPES, type RecordType } from '@core/model/records';
import { migrateEntry, migrateRecord, NewerVersionError, SCHEMA_VERSION } from '@core/model/schema-version';
import { packPassages, unpackPassages } from '@core/passages/columns';
import type { PassageColumns } from '@core/model/passage-columns';
import { Packs } from './packs';
import { fromRow, toRow, type StudyDatabase } from './study-database';

/**
 * Brings what an earlier version stored to the current one: every record, wherever it is kept, and the journal, in one
 * transaction, so that a study is never of two versions at once.
 * @throws NewerVersionError
 */
export async function upgradeStudy(db: StudyDatabase, version: number): Promise<void> {
  if (version > SCHEMA_VERSION) throw new NewerVersionError(version);
  await db.transaction('rw', db.tables, async () => {
    // another tab may have done it while this one waited
    const there = Number((await db.meta.get('dataVersion'))?.value ?? version);
    if (there > SCHEMA_VERSION) throw new NewerVersionError(there);
    if (there === SCHEMA_VERSION) return;
    await new Packs(db).unpackAll();
    for (const type of RECORD_TYPES) await upgradeRecords(db, type, there);
    const rows = await db.journal.toArray();
    await db.journal.bulkPut(rows.map((row) => toRow(JournalEntrySchema.parse(migrateEntry(fromRow(row), there)))));
    // made from the journal as it was
    await Promise.all([db.logDigest.clear(), db.touched.clear()]);
    await mend(db);
    await db.meta.put({ key: 'dataVersion', value: SCHEMA_VERSION });
  });
}

/** Takes off links that lead nowhere, as an entry of the log. */
async function mend(db: StudyDatabase): Promise<void> {
  const study = (await db.meta.get('study'))?.value as Study | undefined;
  const history = (await db.meta.get('history'))?.value as History | undefined;
  if (!study || !history) return;
  const stored: Record<string, readonly unknown[]> = {};
  for (const type of TABLE_TYPES) stored[type] = await db.records(type).toArray();
  const mended = danglingMended(toState(study, stored, await db.passages.toArray()), history, Date.now());
  if (!mended) return;
  for (const { type, before, after } of mended.entry.change) {
    if (type === 'study') await db.meta.put({ key: 'study', value: after });
    else if (after) await db.table(type).put(after);
    else await db.table(type).delete(before!.id);
  }
  await db.journal.add(toRow(mended.entry));
  await db.meta.put({ key: 'history', value: mended.history });
}

async function upgradeRecords(db: StudyDatabase, type: RecordType, version: number): Promise<void> {
  switch (RECORDS[type].kept) {
    case 'study': {
      const row = await db.meta.get('study');
      if (row) await db.meta.put({ ...row, value: upgraded(type, row.value, version) });
      return;
    }
    case 'columns': {
      const all: PassageColumns[] = await db.passages.toArray();
      await db.passages.bulkPut(
        all.map((columns) =>
          packPassages(
            columns.documentId,
            unpackPassages(columns).map((passage) => PassageSchema.parse(migrateRecord(type, passage, version))),
            groundOf(columns),
          ),
        ),
      );
      return;
    }
    default: {
      const table = db.table(type);
      const records: unknown[] = await table.toArray();
      await table.bulkPut(records.map((record) => upgraded(type, record, version)));
    }
  }
}

/** What stored passages stand in: before version 7 there were texts only, and columns did not say. */
const groundOf = (columns: { readonly ground?: PassageColumns['ground'] }): PassageColumns['ground'] => columns.ground ?? 'text';

/** A record of this version; a value that an earlier one let in stays as it is, and the study says so when it is opened. */
function upgraded(type: RecordType, record: unknown, version: number): unknown {
  const migrated = migrateRecord(type, record, version);
  const parsed = schemaOf(type).safeParse(migrated);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues.find((one) => !isMendable(one));
  if (issue) throw parsed.error;
  return migrated;
}
