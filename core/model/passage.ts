import * as z from 'zod';
import { AreaSchema, rowsOf } from './area';
import { CountSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** One code on one passage, by one coder at one time. The three ids together identify it. */
export const CodingSchema = z.strictObject({
  codeId: pointsTo('code'),
  coderId: pointsTo('coder', 'refused'),
  createdAt: TimeSchema,
  /** How strongly, from 1, where the study uses ratings; absent where none was given. */
  rating: z.number().int().min(1).max(10).optional(),
  /** Given by a sweep and not looked at yet; absent once it was kept. */
  swept: z.literal(true).optional(),
});
export type Coding = z.infer<typeof CodingSchema>;

/**
 * A marked place of a document with its codings (none, one or many) and possibly a comment: characters `[start, end)` of
 * a text, milliseconds `[start, end)` of a recording, or an area of a picture, whose rows of pixels are `[start, end)`.
 */
export const PassageSchema = z
  .strictObject({
    id: IdSchema,
    documentId: pointsTo('document'),
    start: CountSchema,
    end: CountSchema,
    /** Only of a passage of a picture. */
    area: AreaSchema.optional(),
    /** Empty when there is none. */
    comment: ProseSchema,
    /** The comment is a question to come back to. */
    open: z.literal(true).optional(),
    coderId: pointsTo('coder', 'refused'),
    createdAt: TimeSchema,
    codings: z.array(CodingSchema),
  })
  .refine((passage) => passage.start < passage.end, 'ends before it starts')
  .refine(({ start, end, area }) => {
    const rows = area && rowsOf(area);
    return !rows || (rows.start === start && rows.end === end);
  }, 'does not reach over the rows of its area');
export type Passage = z.infer<typeof PassageSchema>;
