import type * as z from 'zod';
import { AttributeSchema, CaseSchema, type Attribute, type Case } from './case';
import { AskedQuestionSchema, type AskedQuestion } from './asked-question';
import { CodeSchema, type Code } from './code';
import { DocumentSchema, TextSchema, type Document, type Text } from './document';
import { GlossSchema, type Gloss } from './gloss';
import { MemoSchema, type Memo } from './memo';
import { PassageSchema, type Passage } from './passage';
import { QuerySchema, type Query } from './query';
import { MemberSetSchema, type MemberSet } from './set';
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
};
