import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** Kinds of relation on offer from the start; a study may use its own words as well. */
export const RELATION_KINDS = ['leads to', 'stands against', 'is an example of', 'belongs with'] as const;

/** A named link from one code to another, drawn by the researcher. */
export const RelationSchema = z.strictObject({
  id: IdSchema,
  fromId: pointsTo('code'),
  toId: pointsTo('code'),
  /** Read from the first code to the second: "Cost of going leads to Staying home". */
  kind: LineSchema,
  note: ProseSchema,
  coderId: pointsTo('coder', 'refused'),
  createdAt: TimeSchema,
});
export type Relation = z.infer<typeof RelationSchema>;
