import * as z from 'zod';

/** A moment, in milliseconds since 1970-01-01T00:00Z. */
export const TimeSchema = z.number().int().min(0).max(8.64e15);

/** A calendar day as `YYYY-MM-DD`, without a time zone. */
export const DaySchema = z.iso.date('is not a day there is, written as 2025-01-31');

/** One line of the researcher's own words: a name or a title. Shown as text, never as markup. */
export const LineSchema = z
  .string()
  .min(1, 'is empty')
  .max(500, 'is longer than 500 characters')
  // eslint-disable-next-line no-control-regex -- the point is to keep control characters out of names
  .regex(/^[^\u0000-\u001f\u007f]*$/, 'holds a control character');

/** Longer writing: definitions, comments, memo entries. */
export const ProseSchema = z.string().max(2_000_000, 'is longer than two million characters');

/** A count of UTF-16 code units or words, or a position in a text. */
export const CountSchema = z.number().int().min(0).max(0xffffffff);
