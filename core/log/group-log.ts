import type { JournalEntry } from '../change/journal-schema';
import type { Id } from '../model/ids';

/** What an entry of the journal is about, coarsely. */
export const LOG_KINDS = ['coded', 'codebook', 'material', 'memos', 'queries', 'exports', 'other'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

/** What kind of work an entry was. A passage coded with a code made on the way counts as coding. */
export function kindOf(entry: Pick<JournalEntry, 'change' | 'sentence'>): LogKind {
  if (/^exported/.test(entry.sentence)) return 'exports';
  const types = new Set(entry.change.map((one) => one.type));
  if (
    types.has('document') ||
    types.has('text') ||
    types.has('folder') ||
    types.has('case') ||
    types.has('attribute') ||
    types.has('question') ||
    types.has('set')
  )
    return 'material';
  if (types.has('memo') || types.has('logEntry')) return 'memos';
  if (types.has('passage')) return entry.change.some((one) => one.type === 'code' && one.after === null) ? 'codebook' : 'coded';
  if (['code', 'codeSet', 'relation', 'sorting', 'proposal', 'study'].some((type) => types.has(type as never))) return 'codebook';
  return types.has('query') ? 'queries' : 'other';
}

/** Several entries that read as one line: 500 codings of an afternoon. */
export interface LogGroup {
  readonly kind: LogKind;
  readonly coderId: Id;
  /** The newest first. */
  readonly entries: readonly JournalEntry[];
}

/** Entries closer together than this can be one group, in ms. */
const SAME_SITTING = 3 * 60 * 60 * 1_000;

/**
 * Gathers entries that follow each other, are of one kind and by one coder, and lie within a sitting of one day.
 * @param entries the newest first
 */
export function groupLog(entries: readonly JournalEntry[], kinds: (entry: JournalEntry) => LogKind = kindOf): LogGroup[] {
  const groups: { kind: LogKind; coderId: Id; entries: JournalEntry[] }[] = [];
  for (const entry of entries) {
    const kind = kinds(entry);
    const last = groups.at(-1);
    const newer = last?.entries.at(-1);
    const joins =
      last &&
      newer &&
      last.kind === kind &&
      last.coderId === entry.coderId &&
      dayOf(newer.at) === dayOf(entry.at) &&
      newer.at - entry.at < SAME_SITTING;
    if (joins) last.entries.push(entry);
    else groups.push({ kind, coderId: entry.coderId, entries: [entry] });
  }
  return groups;
}

/** A group as a sentence: "gave 312 codings in 4 documents". */
export function groupSentence(group: LogGroup): string {
  const [first] = group.entries;
  const count = group.entries.length;
  if (count === 1) return first!.sentence;
  const documents = new Set(
    group.entries.flatMap((entry) =>
      entry.change.flatMap((one) => (one.type === 'passage' ? [(one.after ?? one.before)!.documentId] : [])),
    ),
  );
  switch (group.kind) {
    case 'coded':
      return `worked on passages ${count} times in ${documents.size} ${documents.size === 1 ? 'document' : 'documents'}`;
    case 'codebook':
      return `worked on the codebook ${count} times`;
    case 'material':
      return `worked on the material ${count} times`;
    case 'memos':
      return `wrote ${count} times`;
    default:
      return `${first!.sentence}, and ${count - 1} more`;
  }
}

/** When the day of a moment ends, ms since 1970, in local time: days on which clocks change are an hour shorter or longer. */
export const endOfDay = (time: number): number => new Date(time).setHours(24, 0, 0, 0);

/** Day of a moment in local time, `YYYY-MM-DD`. */
export function dayOf(time: number): string {
  const date = new Date(time);
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
}

/** Numbers of a study at one moment. */
export interface StudyNumbers {
  readonly documents: number;
  readonly codes: number;
  readonly passages: number;
  readonly codings: number;
  readonly memos: number;
  readonly cases: number;
}

/**
 * The numbers of a study before some entries were made.
 * @param now the numbers after them
 * @param entries those made since, in any order
 */
export function numbersBefore(now: StudyNumbers, entries: Iterable<JournalEntry>): StudyNumbers {
  const numbers = { ...now };
  const keys = { document: 'documents', code: 'codes', memo: 'memos', case: 'cases' } as const;
  for (const entry of entries)
    for (const one of entry.change) {
      const added = Number(one.after !== null) - Number(one.before !== null);
      if (one.type === 'passage') {
        numbers.passages -= added;
        numbers.codings -= (one.after?.codings.length ?? 0) - (one.before?.codings.length ?? 0);
      } else if (one.type in keys) numbers[keys[one.type as keyof typeof keys]] -= added;
    }
  return numbers;
}
