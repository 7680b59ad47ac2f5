import * as z from 'zod';
import { LineSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { SeenAnswerSchema } from './query';
import { WordSearchSchema } from './word-search';

/** A search for words under a name. It asks for word lists by what they are called, as whoever typed it did. */
export const KeptSearchSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  search: WordSearchSchema,
  createdAt: TimeSchema,
  /** What it had found when the researcher last had seen all of it; absent until then. Its signs are of hits: `core/words/seen-hits.ts`. */
  seen: SeenAnswerSchema.optional(),
});
export type KeptSearch = z.infer<typeof KeptSearchSchema>;
