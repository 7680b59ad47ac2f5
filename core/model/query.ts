import * as z from 'zod';
import { LineSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** A question about passages, as data. How it is answered: `core/queries`. */
export const QuestionSchema = z.strictObject({
  /** The passage carries every one of these. */
  all: z.array(pointsTo('code', 'placeholder')),
  /** …and at least one of these, where any are named. */
  any: z.array(pointsTo('code', 'placeholder')),
  /** …and not one of these. */
  none: z.array(pointsTo('code', 'placeholder')),
  /** A code stands for itself and every code under it. */
  withCodesUnder: z.boolean(),
  /** `passage`: codes on the passage itself count. `overlap`: also those of passages that overlap it. */
  reach: z.enum(['passage', 'overlap']),
  /** Only these documents; null for all in scope. */
  documentIds: z.array(pointsTo('document', 'placeholder')).nullable(),
  /** Names of what it asks for that is gone, by id. */
  gone: z.record(IdSchema, LineSchema).optional(),
});
export type Question = z.infer<typeof QuestionSchema>;

/** A saved question. */
export const QuerySchema = z.strictObject({ id: IdSchema, name: LineSchema, question: QuestionSchema, createdAt: TimeSchema });
export type Query = z.infer<typeof QuerySchema>;
