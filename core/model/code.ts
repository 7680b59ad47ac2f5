import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { PassageAtSchema, pointsTo } from './pointing';

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
  parentId: pointsTo('code').nullable(),
  /** Place among its siblings: ascending, not necessarily whole or consecutive. */
  order: z.number(),
  definition: ProseSchema,
  useWhen: ProseSchema,
  doNotUseWhen: ProseSchema,
  example: ProseSchema,
  /** The researcher's working remarks, not part of the definition. */
  notes: ProseSchema.optional(),
  /** Real passages chosen to stand for the code. */
  anchors: z.array(PassageAtSchema).max(100).optional(),
  /** Kept with its passages, but no longer offered for coding. */
  retired: z.literal(true).optional(),
  /** Names of the codes that were joined into this one. */
  joined: z.array(LineSchema).max(1_000).optional(),
  createdAt: TimeSchema,
  coderId: pointsTo('coder', 'refused'),
});
export type Code = z.infer<typeof CodeSchema>;
