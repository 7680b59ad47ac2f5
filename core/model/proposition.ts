import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { DEEPEST, depthOf, PassageConditionSchema } from './passage-condition';
import { pointsTo } from './pointing';

/** What is said of a case: it has passages that answer a condition, or has none. */
export const ClaimSchema = z.strictObject({
  has: z.boolean(),
  that: PassageConditionSchema.refine((that) => depthOf(that) <= DEEPEST, `has parts within parts, deeper than ${DEEPEST}`),
});
export type Claim = z.infer<typeof ClaimSchema>;

/**
 * A sentence about cases that the material can support or speak against: cases of which every claim of `where` holds, also
 * meet every claim of `then`. How it is held against the cases: `core/queries/proposition.ts`.
 */
export const PropositionSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  where: z.array(ClaimSchema).max(50),
  then: z.array(ClaimSchema).max(50),
  /** What the researcher has to say of single cases, mostly of those that speak against it. */
  notes: z.array(z.strictObject({ caseId: pointsTo('case'), note: ProseSchema })).max(100_000),
  createdAt: TimeSchema,
  /** What it said when the researcher last had seen all of it; absent until then, and where it has come to say something else. */
  seen: z
    .strictObject({
      at: TimeSchema,
      speakFor: z.array(pointsTo('case')).max(100_000),
      against: z.array(pointsTo('case')).max(100_000),
    })
    .optional(),
  /** Names of what it asks for that is gone, by id. */
  gone: z.record(IdSchema, LineSchema).optional(),
});
export type Proposition = z.infer<typeof PropositionSchema>;
