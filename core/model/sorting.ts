import * as z from 'zod';
import { LineSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** A position on the table, in CSS pixels from its top left corner. */
const Coordinate = z.number().min(-100_000).max(100_000);

/** A group on a sorting table: slips laid together, with a name. */
export const SortingGroupSchema = z.strictObject({ id: IdSchema, name: LineSchema, x: Coordinate, y: Coordinate });
export type SortingGroup = z.infer<typeof SortingGroupSchema>;

/** A slip that was laid down: in a group, or freely at a place. */
export const SortingSlipSchema = z.strictObject({ codeId: pointsTo('code'), groupId: IdSchema.nullable(), x: Coordinate, y: Coordinate });
export type SortingSlip = z.infer<typeof SortingSlipSchema>;

/** A table on which codes are sorted as slips. It leaves the codebook alone until the researcher says so. */
export const SortingSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  /** The codes to be sorted. Those without a slip are not placed yet. */
  codeIds: z.array(pointsTo('code')),
  groups: z.array(SortingGroupSchema).max(1_000),
  slips: z.array(SortingSlipSchema),
  createdAt: TimeSchema,
});
export type Sorting = z.infer<typeof SortingSchema>;
