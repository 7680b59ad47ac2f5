import * as z from 'zod';
import { MOST_PIXELS } from './area';

/** A file that the study keeps as it is, by what is in it. The bytes are kept once, whoever speaks of them. */
export const MediaSchema = z.strictObject({
  /** SHA-256 of the bytes, in hexadecimal. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  bytes: z.number().int().min(1).max(Number.MAX_SAFE_INTEGER),
  /** Its media type (RFC 6838). */
  type: z
    .string()
    .max(127)
    .regex(/^(audio|video|image)\/[a-z0-9][a-z0-9.+-]*$|^application\/pdf$/, 'is not a recording, a picture or a PDF'),
  /**
   * The bytes stay where the researcher has them, in a file of this name, and the study only knows what is in it;
   * absent where the study keeps them.
   */
  outside: z.strictObject({ name: z.string().min(1).max(1000) }).optional(),
});
export type Media = z.infer<typeof MediaSchema>;

/** A picture is shown otherwise than it is: first cut, then mirrored left to right, then turned. */
export const ShownSchema = z.strictObject({
  /** The part of it that is shown, in its own pixels. */
  crop: z
    .strictObject({
      left: z.number().int().min(0).max(MOST_PIXELS),
      top: z.number().int().min(0).max(MOST_PIXELS),
      right: z.number().int().min(1).max(MOST_PIXELS),
      bottom: z.number().int().min(1).max(MOST_PIXELS),
    })
    .refine((box) => box.left < box.right && box.top < box.bottom, 'is empty')
    .optional(),
  mirrored: z.literal(true).optional(),
  /** Quarter turns clockwise. */
  turned: z.union([z.literal(1), z.literal(2), z.literal(3)]).optional(),
});
export type Shown = z.infer<typeof ShownSchema>;

/**
 * What the passages of a document stand in: the characters of its text, the time of its recording, or the pixels of
 * its picture. A document has one ground; its words, times or areas are never mixed.
 */
export const GroundSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('text') }),
  z.strictObject({
    of: z.literal('time'),
    /** How long the recording is. */
    milliseconds: z.number().int().min(1).max(0xffffffff),
    media: MediaSchema,
  }),
  z.strictObject({
    of: z.literal('picture'),
    /** In pixels, upright. */
    width: z.number().int().min(1).max(MOST_PIXELS),
    height: z.number().int().min(1).max(MOST_PIXELS),
    media: MediaSchema,
    /** Of a PDF the page that is seen, from 1. */
    page: z.number().int().min(1).max(100_000).optional(),
    /** How it is shown; its areas stay in its own pixels, however that is. Absent where it is shown whole, as it is. */
    shown: ShownSchema.optional(),
  }),
]);
export type Ground = z.infer<typeof GroundSchema>;
export type GroundName = Ground['of'];
