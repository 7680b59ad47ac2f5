import type { Id } from '@core/model/ids';
import { TABLE_TYPES } from '@core/model/records';
import type { Study } from '@core/model/study';
import { emptyState, type StudyState } from '@core/model/study-state';
import type { PassageColumns } from '@core/model/passage-columns';

/** What is stored was parsed when it came in, and when it was brought to this version: it is not parsed again. */
export function toState(
  study: Study,
  stored: Readonly<Record<string, readonly unknown[]>>,
  passages: readonly PassageColumns[],
): StudyState {
  const tables: Record<string, Record<Id, unknown>> = {};
  for (const type of TABLE_TYPES) {
    const table: Record<Id, unknown> = {};
    for (const record of stored[type] ?? []) table[(record as { id: Id }).id] = record;
    tables[type] = table;
  }
  const byDocument: Record<Id, PassageColumns> = {};
  for (const columns of passages) byDocument[columns.documentId] = columns;
  return { ...emptyState(study), tables: tables as unknown as StudyState['tables'], passages: byDocument };
}
