import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';

/** Number of entries in the code palette; `colour` is an index into it. */
export const PALETTE_SIZE = 40;

/** Entries of one colour family: the palette is family after family. */
export const FAMILY_SIZE = 5;

/** A code of the codebook. A category is a code that holds codes. */
export const CodeSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  /** One to three characters that tell the code without colour. */
  mark: z.string().min(1).max(6),
  colour: z
    .number()
    .int()
    .min(0)
    .max(PALETTE_SIZE - 1),
  parentId: IdSchema.nullable(),
  /** Place among its siblings: ascending, not necessarily whole or consecutive. */
  order: z.number(),
  definition: ProseSchema,
  useWhen: ProseSchema,
  doNotUseWhen: ProseSchema,
  example: ProseSchema,
  createdAt: TimeSchema,
  coderId: IdSchema,
});
export type Code = z.infer<typeof CodeSchema>;
