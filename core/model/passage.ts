import * as z from 'zod';
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
});
export type Coding = z.infer<typeof CodingSchema>;

/** A marked stretch of a text with its codings (none, one or many) and possibly a comment. */
export const PassageSchema = z
  .strictObject({
    id: IdSchema,
    documentId: pointsTo('document'),
    start: CountSchema,
    end: CountSchema,
    /** Empty when there is none. */
    comment: ProseSchema,
    /** The comment is a question to come back to. */
    open: z.literal(true).optional(),
    coderId: pointsTo('coder', 'refused'),
    createdAt: TimeSchema,
    codings: z.array(CodingSchema),
  })
  .refine((passage) => passage.start < passage.end, 'ends before it starts');
export type Passage = z.infer<typeof PassageSchema>;
