import type { JournalEntry } from '../change/journal-schema';
import { fold } from '../text/fold';
import { testOf, type Condition } from '../conditions/condition';
import type { Id } from '../model/ids';
import type { LogEntry } from '../model/log-entry';
import { kindOf, type LogKind } from './group-log';

/** What is looked for in the log. Every part that is given must hold. */
export interface LogWish {
  readonly coderId?: Id | undefined;
  readonly kind?: LogKind | undefined;
  /** Folded; each must be somewhere in the sentence. */
  readonly words?: readonly string[] | undefined;
  /** ms since 1970, the end not included. */
  readonly from?: number | undefined;
  readonly to?: number | undefined;
}

/** An entry of the journal as it lies there; what it changed is asked for only where it has to be known. */
export interface LoggedEntry extends Pick<JournalEntry, 'at' | 'coderId' | 'sentence'> {
  readonly change: () => JournalEntry['change'];
}

type Of = 'at' | 'coder' | 'sentence' | 'kind';

/** Whether an entry is what is looked for; what costs most is asked last. */
export function wishTest({ coderId, kind, words = [], from, to }: LogWish): (entry: LoggedEntry) => boolean {
  const all: Condition<Of>[] = [
    ...(from === undefined ? [] : [{ none: [{ of: 'at' as const, comparison: 'is under' as const, value: from }] }]),
    ...(to === undefined ? [] : [{ of: 'at' as const, comparison: 'is under' as const, value: to }]),
    ...(coderId ? [{ of: 'coder' as const, comparison: 'is' as const, value: coderId }] : []),
    ...words.map((word) => ({ of: 'sentence' as const, comparison: 'holds' as const, value: word })),
    ...(kind ? [{ of: 'kind' as const, comparison: 'is' as const, value: kind }] : []),
  ];
  return testOf<Of, LoggedEntry>({ all }, { read: (of) => READ[of], fold });
}

const READ: Readonly<Record<Of, (entry: LoggedEntry) => string | number>> = {
  at: (entry) => entry.at,
  coder: (entry) => entry.coderId,
  sentence: (entry) => entry.sentence,
  kind: (entry) => kindOf({ sentence: entry.sentence, change: entry.change() }),
};

/**
 * Whether an entry that the researcher wrote is what is looked for: its words may stand in its text or its tags.
 * @param from the first day that is wanted, `YYYY-MM-DD`; empty for all
 */
export function ownEntryTest({ coderId, words = [] }: LogWish, from: string): (entry: LogEntry) => boolean {
  const all: Condition<'day' | 'coder' | 'words'>[] = [
    ...(from ? [{ none: [{ of: 'day' as const, comparison: 'is under' as const, value: from }] }] : []),
    ...(coderId ? [{ of: 'coder' as const, comparison: 'is' as const, value: coderId }] : []),
    ...words.map((word) => ({ of: 'words' as const, comparison: 'holds' as const, value: word })),
  ];
  const read = { day: (entry: LogEntry) => entry.day, coder: (entry: LogEntry) => entry.coderId, words: wordsOf };
  return testOf<'day' | 'coder' | 'words', LogEntry>({ all }, { read: (of) => read[of], fold });
}

const wordsOf = (entry: LogEntry): string => `${entry.text} ${entry.tags.join(' ')}`;
