import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { nameOf, type Entry } from '@core/patterns/axis';

/** What stands at the head of a row or column, or in a picture: what it is called, and the mark of its code. */
export interface TableHead {
  readonly key: string;
  readonly name: string;
  /** What is said of it on hovering and to screen readers: how large a group is. */
  readonly note?: string;
  readonly code?: Pick<Code, 'mark' | 'colour'> | undefined;
}

/** The head of an entry. */
export const headOf = (entry: Entry, codes: Readonly<Record<Id, Code>>): TableHead => ({
  key: entry.key,
  name: nameOf(entry),
  code: codes[entry.id ?? ''],
});
