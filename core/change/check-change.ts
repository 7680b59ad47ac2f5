import { quoted } from '../text/quoted';
import type * as z from 'zod';
import { entryOf, nameOfRecord, schemaOf } from '../model/records';
import type { Passage } from '../model/passage';
import type { Change, RecordChange } from './change';
import { CommandError, short } from './command';

type Issue = z.core.$ZodIssue;

/**
 * Checks that every record a change makes fits its schema, before it is applied: what does not fit could be stored,
 * but no study file that holds it could be opened again.
 * A value that stood there before and does not fit is let be, so that the rest of such a record can still be changed.
 * @throws CommandError that names the record and what is wrong with it
 */
export function checkChange(change: Change): void {
  for (const one of change) {
    if (one.after === null || fitsAtSight(one)) continue;
    const parsed = schemaOf(one.type).safeParse(one.after);
    if (parsed.success) continue;
    const issue = parsed.error.issues.find((each) => !stoodBefore(one, each.path));
    if (issue) throw new CommandError(`${nameOf(one)} cannot be stored: ${wordsOf(issue)}. Nothing was changed.`);
  }
}

/** What is wrong, in words: "its title is longer than 500 characters". */
export function wordsOf(issue: Issue): string {
  const field = issue.path.map(String).filter((part) => !/^\d+$|^[0-9a-f-]{36}$/.test(part));
  const name = FIELD_WORDS[field.at(-1) ?? ''] ?? field.at(-1);
  return `${name ? `its ${name}` : 'it'} ${messageOf(issue)}`;
}

const messageOf = (issue: Issue): string =>
  issue.code === 'invalid_union' && issue.errors.flat()[0] ? messageOf(issue.errors.flat()[0]!) : lowerFirst(issue.message);

const lowerFirst = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);

/** Fields whose names in the records are not those of the interface. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  useWhen: '“use when”',
  doNotUseWhen: '“do not use when”',
  caseWord: 'word for a case',
  entries: 'text',
  values: 'value',
  readTo: 'reading place',
};

function nameOf({ type, after }: RecordChange): string {
  const name = nameOfRecord(after!);
  return `The ${entryOf(type).called}${name ? ` ${quoted(short(name))}` : ''}`;
}

/** Whether the value at a path was the same in the record before. */
function stoodBefore({ before, after }: RecordChange, path: readonly PropertyKey[]): boolean {
  if (!before) return false;
  const at = (record: unknown): unknown =>
    path.reduce<unknown>(
      (value, key) => (value !== null && typeof value === 'object' ? (value as Record<PropertyKey, unknown>)[key] : undefined),
      record,
    );
  return at(after) !== undefined && JSON.stringify(at(before)) === JSON.stringify(at(after));
}

/**
 * Whether nothing of a passage changed but codes that were given or taken: the commonest change of all, tens of
 * thousands at a time when codes are joined, and one that needs no schema.
 */
function fitsAtSight(one: RecordChange): boolean {
  if (one.type !== 'passage' || !one.before || !one.after) return false;
  const [before, after] = [one.before as unknown as Record<string, unknown>, one.after as unknown as Record<string, unknown>];
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)]))
    if (key !== 'codings' && before[key] !== after[key]) return false;
  return one.after.codings.every(fitsCoding);
}

/** The latest moment a date can be, ms since 1970 (ECMA-262). */
const LATEST = 8.64e15;

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

const fitsCoding = ({ codeId, coderId, createdAt, rating, swept, ...rest }: Passage['codings'][number]): boolean =>
  ID.test(codeId) &&
  ID.test(coderId) &&
  Number.isInteger(createdAt) &&
  createdAt >= 0 &&
  createdAt <= LATEST &&
  (rating === undefined || (Number.isInteger(rating) && rating >= 1 && rating <= 10)) &&
  // a stored one may hold anything
  [true, undefined].includes(swept as true | undefined) &&
  Object.keys(rest).length === 0;
