import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { marked, pointsTo } from './pointing';

/** Kinds on offer from the start; a study may use its own words as well. */
export const MEMO_KINDS = ['analytic', 'method', 'reflection', 'theory'] as const;

/** What a memo is attached to. A passage is named with its document, since passages are kept by document. */
export const MemoSubjectSchema = z.discriminatedUnion('type', [
  marked(z.strictObject({ type: z.literal('passage'), id: IdSchema, documentId: IdSchema }), {
    holds: 'passage',
    document: 'documentId',
    id: 'id',
    whenGone: 'emptied',
    insteadDocument: 'type',
  }),
  z.strictObject({ type: z.literal('code'), id: pointsTo('code') }),
  z.strictObject({ type: z.literal('document'), id: pointsTo('document') }),
  z.strictObject({ type: z.literal('case'), id: pointsTo('case') }),
  z.strictObject({ type: z.literal('query'), id: pointsTo('query') }),
]);
export type MemoSubject = z.infer<typeof MemoSubjectSchema>;

/** What was written at one time, as Markdown. */
export const MemoEntrySchema = z.strictObject({
  id: IdSchema,
  writtenAt: TimeSchema,
  coderId: pointsTo('coder', 'refused'),
  text: marked(ProseSchema.clone(), { holds: 'links' }),
  /** When it was changed after the day it was written; absent if it never was. */
  editedAt: TimeSchema.optional(),
});
export type MemoEntry = z.infer<typeof MemoEntrySchema>;

/** Things beside the first that a memo can be linked to. */
export const MOST_LINKS = 500;

/** Dated writing by the researcher, attached to one thing or to nothing. */
export const MemoSchema = z.strictObject({
  id: IdSchema,
  title: LineSchema,
  kind: LineSchema,
  about: MemoSubjectSchema.nullable(),
  /** More things it is linked to. */
  also: z.array(MemoSubjectSchema).max(MOST_LINKS).optional(),
  tags: z.array(LineSchema).max(50).optional(),
  pinned: z.literal(true).optional(),
  archived: z.literal(true).optional(),
  /** A question to come back to: still open, or answered. */
  question: z.enum(['open', 'answered']).optional(),
  entries: z.array(MemoEntrySchema),
  createdAt: TimeSchema,
});
export type Memo = z.infer<typeof MemoSchema>;
