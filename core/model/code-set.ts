import * as z from 'zod';
import { CountSchema, LineSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/**
 * What can be asked of a code. Counts are of distinct passages, cases and documents that carry the code itself;
 * days are counted back from the moment of asking.
 */
export const CodeConditionSchema = z
  .discriminatedUnion('about', [
    z.strictObject({ about: z.literal('passages fewer than'), number: CountSchema, opposite: z.boolean() }),
    z.strictObject({ about: z.literal('cases fewer than'), number: CountSchema, opposite: z.boolean() }),
    z.strictObject({ about: z.literal('documents fewer than'), number: CountSchema, opposite: z.boolean() }),
    z.strictObject({ about: z.literal('made in the last days'), number: CountSchema, opposite: z.boolean() }),
    z.strictObject({ about: z.literal('used in folder'), id: pointsTo('folder', 'settled'), opposite: z.boolean() }),
    z.strictObject({ about: z.literal('under'), id: pointsTo('code', 'settled'), opposite: z.boolean() }),
    z.strictObject({ about: z.literal('without definition'), opposite: z.boolean() }),
    z.strictObject({ about: z.literal('without memo'), opposite: z.boolean() }),
    z.strictObject({ about: z.literal('at the top'), opposite: z.boolean() }),
    z.strictObject({ about: z.literal('retired'), opposite: z.boolean() }),
  ])
  .readonly();
export type CodeCondition = z.infer<typeof CodeConditionSchema>;

/** A cross-cutting group of codes that leaves their tree alone. A live set is defined by conditions and fills itself. */
export const CodeSetSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  /** Members chosen by hand; empty for a live set. */
  codeIds: z.array(pointsTo('code')),
  /** All must hold; null for a set filled by hand. */
  conditions: z.array(CodeConditionSchema).min(1).max(50).nullable(),
  createdAt: TimeSchema,
});
export type CodeSet = z.infer<typeof CodeSetSchema>;
