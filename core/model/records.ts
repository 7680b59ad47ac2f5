import type * as z from 'zod';
import { AttributeSchema, CaseSchema, type Attribute, type Case } from './case';
import { AskedQuestionSchema, type AskedQuestion } from './asked-question';
import { CodeSchema, type Code } from './code';
import { CodeSetSchema, type CodeSet } from './code-set';
import { DocumentSchema, TextSchema, type Document, type Text } from './document';
import { GlossSchema, type Gloss } from './gloss';
import { LogEntrySchema, type LogEntry } from './log-entry';
import { MemoSchema, type Memo } from './memo';
import { PassageSchema, type Passage } from './passage';
import { ProposalSchema, type Proposal } from './proposal';
import { QuerySchema, type Query } from './query';
import { RelationSchema, type Relation } from './relation';
import { MemberSetSchema, type MemberSet } from './set';
import { SortingSchema, type Sorting } from './sorting';
import { CoderSchema, FolderSchema, StudySchema, type Coder, type Folder, type Study } from './study';

/** Every record type with its TypeScript shape. */
export interface RecordShapes {
  study: Study;
  coder: Coder;
  folder: Folder;
  document: Document;
  text: Text;
  case: Case;
  attribute: Attribute;
  code: Code;
  passage: Passage;
  memo: Memo;
  query: Query;
  question: AskedQuestion;
  set: MemberSet;
  gloss: Gloss;
  codeSet: CodeSet;
  relation: Relation;
  sorting: Sorting;
  proposal: Proposal;
  logEntry: LogEntry;
}
export type RecordType = keyof RecordShapes;

/** The schema of each record type: data from outside is parsed with it at the border and trusted inside. */
export const RECORD_SCHEMAS: { readonly [K in RecordType]: z.ZodType<RecordShapes[K]> } = {
  study: StudySchema,
  coder: CoderSchema,
  folder: FolderSchema,
  document: DocumentSchema,
  text: TextSchema,
  case: CaseSchema,
  attribute: AttributeSchema,
  code: CodeSchema,
  passage: PassageSchema,
  memo: MemoSchema,
  query: QuerySchema,
  question: AskedQuestionSchema,
  set: MemberSetSchema,
  gloss: GlossSchema,
  codeSet: CodeSetSchema,
  relation: RelationSchema,
  sorting: SortingSchema,
  proposal: ProposalSchema,
  logEntry: LogEntrySchema,
};
