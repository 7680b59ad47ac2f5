import type { Comparison as StoredComparison } from '../model/set';

/** How what a record has is held against what is asked for. */
export type Comparison = StoredComparison | 'is one of';

/** What a record has of something: a value, or several of which one is enough; undefined where nothing is known of it. */
export type Had = string | number | boolean | readonly (string | number)[] | undefined;

/** One thing asked of a record: what of it, and how that is held against a value. */
export interface Part<Of> {
  readonly of: Of;
  readonly comparison: Comparison;
  /** Of `is one of` the values; not looked at for `is known` and `is not known`. */
  readonly value: Had;
}

/** What is asked of a record: parts, and nests of them. `none` holds where not one of its conditions does. */
export type Condition<Of> =
  | Part<Of>
  | { readonly all: readonly Condition<Of>[] }
  | { readonly any: readonly Condition<Of>[] }
  | { readonly none: readonly Condition<Of>[] };

/** How to ask records of a kind. */
export interface Asking<Of, R> {
  /** Makes ready to read one thing of many records. */
  readonly read: (of: Of) => (record: R) => Had;
  /** Which of two values comes first, for `is over` and `is under`; numbers and words by themselves where it is not given. */
  readonly compare?: (of: Of, a: string | number | boolean, b: string | number | boolean) => number;
  /** How words are made alike for `holds`; upper and lower case where it is not given. */
  readonly fold?: (words: string) => string;
}

/**
 * A condition as a test of records: the one way in which live sets, sets of codes, the log and questions about passages
 * are answered. What is not known of a record meets `is not known` and `is not`, and nothing else.
 */
export function testOf<Of, R>(condition: Condition<Of>, asking: Asking<Of, R>): (record: R) => boolean {
  if ('of' in condition) return partTest(condition, asking);
  if ('all' in condition) {
    const tests = condition.all.map((one) => testOf(one, asking));
    return tests.length === 1 ? tests[0]! : (record) => meetsEvery(tests, record);
  }
  if ('any' in condition) {
    const tests = condition.any.map((one) => testOf(one, asking));
    return tests.length === 1 ? tests[0]! : (record) => tests.some((test) => test(record));
  }
  const tests = condition.none.map((one) => testOf(one, asking));
  return (record) => !tests.some((test) => test(record));
}

/** A plain loop: it is walked for every record of a study. */
function meetsEvery<R>(tests: readonly ((record: R) => boolean)[], record: R): boolean {
  for (const test of tests) if (!test(record)) return false;
  return true;
}

function partTest<Of, R>({ of, comparison, value }: Part<Of>, asking: Asking<Of, R>): (record: R) => boolean {
  const read = asking.read(of);
  const holds = heldAgainst(of, comparison, value, asking);
  return (record) => {
    const had = read(record);
    if (had === undefined) return comparison === 'is not known' || comparison === 'is not';
    if (typeof had !== 'object') return holds(had);
    // of several values none may be the one that is excluded
    if (comparison === 'is not') return had.every(holds);
    for (const one of had) if (holds(one)) return true;
    return false;
  };
}

type One = string | number | boolean;

function heldAgainst<Of, R>(
  of: Of,
  comparison: Comparison,
  value: Had,
  { compare = (_, a, b) => natural(a, b), fold = lowerCase }: Asking<Of, R>,
): (had: One) => boolean {
  switch (comparison) {
    case 'is':
      return (had) => had === value;
    case 'is not':
      return (had) => had !== value;
    case 'is one of': {
      const values = new Set<One>(typeof value === 'object' ? value : []);
      return (had) => values.has(had);
    }
    case 'holds': {
      const wanted = fold(String(value));
      return (had) => fold(String(had)).includes(wanted);
    }
    case 'is over':
      return (had) => compare(of, had, value as One) > 0;
    case 'is under':
      return (had) => compare(of, had, value as One) < 0;
    case 'is known':
      return () => true;
    case 'is not known':
      return () => false;
  }
}

const lowerCase = (words: string): string => words.toLocaleLowerCase();

const natural = (a: One, b: One): number => (a < b ? -1 : a > b ? 1 : 0);
