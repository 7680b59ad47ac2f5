import type * as z from 'zod';
import { AbsenceSchema } from './absence';
import { AskedQuestionSchema } from './asked-question';
import { AttributeSchema, CaseSchema } from './case';
import { CodeSchema } from './code';
import { CodeSetSchema } from './code-set';
import { DocumentSchema, TextSchema } from './document';
import { GlossSchema } from './gloss';
import { KeptSearchSchema } from './kept-search';
import { LogEntrySchema } from './log-entry';
import { MemoSchema } from './memo';
import { PassageSchema } from './passage';
import { KeptPatternSchema } from './pattern';
import { ProposalSchema } from './proposal';
import { PropositionSchema } from './proposition';
import { nested, QuerySchema } from './query';
import { RelationSchema } from './relation';
import { KeptScopeSchema } from './scope';
import { MemberSetSchema } from './set';
import { SortingSchema } from './sorting';
import { CoderSchema, FolderSchema, StudySchema } from './study';
import { WordListSchema } from './word-list';

/** All that has to be said of a type of record. What it holds and points at, its schema says. */
interface RecordEntry<T = never> {
  /** Data from outside is parsed with it at the border and trusted inside. */
  readonly schema: z.ZodType<T>;
  /** What it is called in a sentence. */
  readonly called: string;
  /** `row`: one row each, all in memory while a study is open. The others are kept apart, each in its own way. */
  readonly kept: 'row' | 'study' | 'text' | 'columns';
  /** Its file in a study file; of texts and passages, the folder that has a file for each document. */
  readonly file: string;
  /** The data version that brought it. */
  readonly since: number;
  /** `[n]` takes a record of data version n to n + 1. It never drops what it does not know. */
  readonly migrations?: Readonly<Record<number, (record: object) => object>>;
  /** Makes whole again what has been moved onto itself; null where nothing is left. */
  readonly whole?: (record: T) => T | null;
}

const entry = <T>(one: RecordEntry<T>): RecordEntry<T> => one;

/** Of several things of one key the first. */
const distinct = <T>(some: readonly T[], key: (one: T) => string): T[] => {
  const seen = new Set<string>();
  return some.filter((one) => !seen.has(key(one)) && seen.add(key(one)));
};

/** Every type of record: what a study consists of. A new type is a file for its schema and an entry here. */
export const RECORDS = {
  study: entry({
    schema: StudySchema,
    called: 'study',
    kept: 'study',
    file: 'study.json',
    since: 1,
    whole: (study) =>
      study.checksLeft
        ? {
            ...study,
            checksLeft: distinct(
              study.checksLeft.filter(({ codeIds }) => new Set(codeIds).size === codeIds.length),
              ({ kind, codeIds }) => [kind, ...codeIds].join(' '),
            ),
          }
        : study,
  }),
  coder: entry({ schema: CoderSchema, called: 'coder', kept: 'row', file: 'coders.json', since: 1 }),
  folder: entry({ schema: FolderSchema, called: 'folder', kept: 'row', file: 'folders.json', since: 1 }),
  document: entry({
    schema: DocumentSchema,
    called: 'document',
    kept: 'row',
    file: 'documents.json',
    since: 1,
    migrations: {
      1: (record) => ({ ...record, values: {}, answers: [] }),
      6: (record) => ({ ground: { of: 'text' }, ...record }),
    },
    // put together with what belonged to it, it belongs to nothing
    whole: ({ belongsTo, ...document }) => ({ ...document, ...(belongsTo && belongsTo !== document.id && { belongsTo }) }),
  }),
  text: entry({
    schema: TextSchema,
    called: 'text',
    kept: 'text',
    file: 'texts',
    since: 1,
    migrations: { 1: (record) => ({ ...record, marks: [] }) },
  }),
  case: entry({
    schema: CaseSchema,
    called: 'case',
    kept: 'row',
    file: 'cases.json',
    since: 1,
    migrations: { 1: (record) => ({ ...record, stretches: [] }) },
  }),
  attribute: entry({
    schema: AttributeSchema,
    called: 'attribute',
    kept: 'row',
    file: 'attributes.json',
    since: 1,
    migrations: { 1: (record) => ({ ...record, order: 0 }) },
  }),
  code: entry({
    schema: CodeSchema,
    called: 'code',
    kept: 'row',
    file: 'codebook.json',
    since: 1,
    whole: (code) => (code.anchors ? { ...code, anchors: distinct(code.anchors, (one) => one.passageId) } : code),
  }),
  passage: entry({
    schema: PassageSchema,
    called: 'passage',
    kept: 'columns',
    file: 'passages',
    since: 1,
    whole: (passage) => ({ ...passage, codings: distinct(passage.codings, (one) => one.codeId + one.coderId) }),
  }),
  memo: entry({
    schema: MemoSchema,
    called: 'memo',
    kept: 'row',
    file: 'memos.json',
    since: 1,
    // nothing twice, and what it is about first
    whole: ({ also, ...memo }) => {
      const all = distinct([...(memo.about ? [memo.about] : []), ...(also ?? [])], (one) => `${one.type} ${one.id}`);
      return { ...memo, about: all[0] ?? null, ...((also || all.length > 1) && { also: all.slice(1) }) };
    },
  }),
  query: entry({
    schema: QuerySchema,
    called: 'query',
    kept: 'row',
    file: 'queries.json',
    since: 1,
    migrations: { 8: (record) => ('question' in record ? { ...record, question: nested(record.question) } : record) },
  }),
  question: entry({ schema: AskedQuestionSchema, called: 'question', kept: 'row', file: 'questions.json', since: 2 }),
  set: entry({ schema: MemberSetSchema, called: 'set', kept: 'row', file: 'sets.json', since: 2 }),
  gloss: entry({ schema: GlossSchema, called: 'word of the glossary', kept: 'row', file: 'glosses.json', since: 3 }),
  codeSet: entry({ schema: CodeSetSchema, called: 'set of codes', kept: 'row', file: 'code-sets.json', since: 4 }),
  relation: entry({
    schema: RelationSchema,
    called: 'relation',
    kept: 'row',
    file: 'relations.json',
    since: 4,
    whole: (relation) => (relation.fromId === relation.toId ? null : relation),
  }),
  sorting: entry({
    schema: SortingSchema,
    called: 'sorting table',
    kept: 'row',
    file: 'sorting-tables.json',
    since: 4,
    whole: (sorting) => ({ ...sorting, slips: distinct(sorting.slips, (slip) => slip.codeId) }),
  }),
  proposal: entry({ schema: ProposalSchema, called: 'proposed code', kept: 'row', file: 'proposals.json', since: 4 }),
  logEntry: entry({ schema: LogEntrySchema, called: 'entry of the log', kept: 'row', file: 'log-entries.json', since: 4 }),
  scope: entry({ schema: KeptScopeSchema, called: 'kept scope', kept: 'row', file: 'scopes.json', since: 10 }),
  wordList: entry({ schema: WordListSchema, called: 'word list', kept: 'row', file: 'word-lists.json', since: 10 }),
  search: entry({ schema: KeptSearchSchema, called: 'kept search', kept: 'row', file: 'searches.json', since: 10 }),
  proposition: entry({
    schema: PropositionSchema,
    called: 'proposition',
    kept: 'row',
    file: 'propositions.json',
    since: 10,
    whole: ({ seen, ...proposition }) => ({
      ...proposition,
      notes: distinct(proposition.notes, (one) => one.caseId),
      ...(seen && {
        seen: { ...seen, speakFor: distinct(seen.speakFor, (one) => one), against: distinct(seen.against, (one) => one) },
      }),
    }),
  }),
  pattern: entry({ schema: KeptPatternSchema, called: 'kept pattern', kept: 'row', file: 'patterns.json', since: 11 }),
  absence: entry({ schema: AbsenceSchema, called: 'absence', kept: 'row', file: 'absences.json', since: 12 }),
};

export type RecordType = keyof typeof RECORDS;

/** Every record type with its TypeScript shape. */
export type RecordShapes = { [K in RecordType]: (typeof RECORDS)[K] extends RecordEntry<infer T> ? T : never };

/** Record types that are small enough to be all in memory while a study is open, one row each in storage. */
export type TableType = Exclude<RecordType, 'study' | 'text' | 'passage'>;

/** Names of all record types. */
export const RECORD_TYPES = Object.keys(RECORDS) as RecordType[];
export const TABLE_TYPES = RECORD_TYPES.filter((type): type is TableType => RECORDS[type].kept === 'row');

/** The entry of a type that is known at run time only. */
export const entryOf = <K extends RecordType>(type: K): RecordEntry<RecordShapes[K]> =>
  RECORDS[type] as unknown as RecordEntry<RecordShapes[K]>;

/** The schema of a record type. */
export const schemaOf = <K extends RecordType>(type: K): z.ZodType<RecordShapes[K]> => entryOf(type).schema;

/** What a record is called: “Missing the boat”. Empty where it has no name. */
export function nameOfRecord(record: object): string {
  const { title, name, term } = record as { readonly title?: unknown; readonly name?: unknown; readonly term?: unknown };
  return String([title, name, term].find((one) => typeof one === 'string') ?? '');
}
