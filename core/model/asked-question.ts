import * as z from 'zod';
import { IdSchema } from './ids';

/** A question that several documents put in the same or like words: a survey's, or an interview guide's. */
export const AskedQuestionSchema = z.strictObject({
  id: IdSchema,
  /** Its wording for the whole study. */
  text: z.string().min(1, 'is empty').max(5_000, 'is longer than 5,000 characters'),
  /** Place in the list: ascending, not necessarily whole. */
  order: z.number(),
});
export type AskedQuestion = z.infer<typeof AskedQuestionSchema>;
