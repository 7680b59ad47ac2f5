import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';

/** A code somebody wishes for while the codebook is frozen, to be taken on or declined later. */
export const ProposalSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  definition: ProseSchema,
  parentId: IdSchema.nullable(),
  /** Passages that would carry it. One that is gone by then is passed over. */
  places: z.array(z.strictObject({ documentId: IdSchema, passageId: IdSchema })),
  coderId: IdSchema,
  createdAt: TimeSchema,
});
export type Proposal = z.infer<typeof ProposalSchema>;
