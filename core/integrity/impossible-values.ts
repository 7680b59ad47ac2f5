import { wordsOf } from '../change/check-change';
import { schemaOf, TABLE_TYPES, type TableType } from '../model/records';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';

/** A value of a record that its schema does not allow: an earlier Filum, or another program, let it in. */
export interface ImpossibleValue {
  readonly type: TableType | 'study';
  readonly id: Id;
  readonly name: string;
  /** What is wrong: "its date is not a day there is". */
  readonly what: string;
}

/**
 * Values that a study should not hold but can be worked with all the same: too long, empty, or a day there is not.
 * @returns at most `most`, in the order of the record types
 */
export function impossibleValues(state: Pick<StudyState, 'study' | 'tables'>, most = 100): ImpossibleValue[] {
  const found: ImpossibleValue[] = [];
  const look = (type: TableType | 'study', record: { readonly id: Id }): void => {
    const parsed = schemaOf(type).safeParse(record);
    if (parsed.success) return;
    const { name, title, term } = record as { name?: string; title?: string; term?: string };
    found.push({ type, id: record.id, name: (title ?? name ?? term ?? '').slice(0, 80), what: wordsOf(parsed.error.issues[0]!) });
  };
  look('study', state.study);
  for (const type of TABLE_TYPES) for (const record of Object.values(state.tables[type])) if (found.length < most) look(type, record);
  return found;
}
