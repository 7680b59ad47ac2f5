import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** The meaning of a word that the participants use, defined once and shown wherever the word occurs. */
export const GlossSchema = z.strictObject({
  id: IdSchema,
  /** The word or phrase itself. */
  term: LineSchema,
  /** Other forms in which it occurs, as the researcher lists them: "ferries", "ferried". */
  forms: z.array(LineSchema).max(100),
  meaning: ProseSchema,
  coderId: pointsTo('coder', 'refused'),
  createdAt: TimeSchema,
});
export type Gloss = z.infer<typeof GlossSchema>;
