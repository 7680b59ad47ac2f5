import type { Command } from '../change/command';
import type { Id } from '../model/ids';
import type { TableType } from '../model/records';
import type { StudyState } from '../model/study-state';
import type { Bench } from './make';

/** Numbers by which a command chooses among what there is. */
export type Choice = readonly [number, number, number];

/** One of a table, by a number; empty where there is none. */
export const one = (state: StudyState, type: TableType, at: number): Id => {
  const ids = Object.keys(state.tables[type]);
  return ids[at % Math.max(1, ids.length)] ?? '';
};
/** One, or none where there are none. */
export const named = (state: StudyState, type: TableType, at: number): Id[] => [one(state, type, at)].filter(Boolean);

/** What can be done to a study, on whatever the numbers choose. */
export type Acts = Readonly<Record<string, (bench: Bench, choice: Choice) => Command>>;
