import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { PassageAtSchema, pointsTo } from './pointing';

/** A code somebody wishes for while the codebook is frozen, to be taken on or declined later. */
export const ProposalSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  definition: ProseSchema,
  parentId: pointsTo('code').nullable(),
  /** Passages that would carry it. */
  places: z.array(PassageAtSchema),
  coderId: pointsTo('coder', 'refused'),
  createdAt: TimeSchema,
});
export type Proposal = z.infer<typeof ProposalSchema>;
