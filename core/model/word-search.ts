import * as z from 'zod';

/** What a hit is: the words themselves, or the unit that holds them. */
export const HIT_UNITS = ['words', 'sentence', 'paragraph', 'turn', 'document'] as const;
export type HitUnit = (typeof HIT_UNITS)[number];

/** How words are compared: as they are, as parts of longer ones, in all their forms; or what is typed is a regular expression. */
export const WORD_MATCHES = ['whole words', 'parts of words', 'all forms', 'regular expression'] as const;
export type WordMatch = (typeof WORD_MATCHES)[number];

/** Words that are looked for in texts. What may be typed: `core/words/expression.ts`. */
export const WordSearchSchema = z.strictObject({
  typed: z.string().max(2_000),
  match: z.enum(WORD_MATCHES),
  capitals: z.boolean(),
  accents: z.boolean(),
  unit: z.enum(HIT_UNITS),
});
export type WordSearch = z.infer<typeof WordSearchSchema>;

/** Words that passages can be asked for: no regular expressions, which may run away and are ended where they are run alone. */
export const HeldWordsSchema = WordSearchSchema.extend({ match: z.enum(WORD_MATCHES).exclude(['regular expression']) });
