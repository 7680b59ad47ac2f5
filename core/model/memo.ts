import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';

/** Kinds on offer from the start; a study may use its own words as well. */
export const MEMO_KINDS = ['analytic', 'method', 'reflection', 'theory'] as const;

/** What a memo is attached to. A passage is named with its document, since passages are kept by document. */
export const MemoSubjectSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('passage'), id: IdSchema, documentId: IdSchema }),
  z.strictObject({ type: z.literal('code'), id: IdSchema }),
  z.strictObject({ type: z.literal('document'), id: IdSchema }),
  z.strictObject({ type: z.literal('case'), id: IdSchema }),
]);
export type MemoSubject = z.infer<typeof MemoSubjectSchema>;

export const MemoEntrySchema = z.strictObject({ id: IdSchema, writtenAt: TimeSchema, coderId: IdSchema, text: ProseSchema });
export type MemoEntry = z.infer<typeof MemoEntrySchema>;

/** Dated writing by the researcher, attached to one thing or to nothing. */
export const MemoSchema = z.strictObject({
  id: IdSchema,
  title: LineSchema,
  kind: LineSchema,
  about: MemoSubjectSchema.nullable(),
  entries: z.array(MemoEntrySchema),
  createdAt: TimeSchema,
});
export type Memo = z.infer<typeof MemoSchema>;
