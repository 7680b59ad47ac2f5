import * as z from 'zod';
import { LineSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';

/** Words that stand for one thing, kept under a name by which a search asks for any of them (`core/words/expression.ts`). */
export const WordListSchema = z.strictObject({
  id: IdSchema,
  /** Without brackets: it is written between them. */
  name: LineSchema.regex(/^[^[\]]*$/, 'has brackets in it'),
  /** Words and phrases, each of which may have wildcards. */
  words: z.array(LineSchema).max(500),
  createdAt: TimeSchema,
});
export type WordList = z.infer<typeof WordListSchema>;
