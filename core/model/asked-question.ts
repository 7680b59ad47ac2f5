import * as z from 'zod';
import { IdSchema } from './ids';

/** A question that several documents put in the same or like words: a survey's, or an interview guide's. */
export const AskedQuestionSchema = z.strictObject({
  id: IdSchema,
  /** Its wording for the whole study. */
  text: z.string().min(1).max(5_000),
  /** Place in the list: ascending, not necessarily whole. */
  order: z.number(),
});
export type AskedQuestion = z.infer<typeof AskedQuestionSchema>;
