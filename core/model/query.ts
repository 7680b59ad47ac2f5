import * as z from 'zod';
import { CountSchema, LineSchema, TimeSchema } from './fields';
import { IdSchema, type Id } from './ids';
import { DEEPEST, depthOf, PassageConditionSchema, type PassageCondition } from './passage-condition';

/** A question about passages, as data. How it is answered: `core/queries`. */
export const QuestionSchema = z.strictObject({
  /** Every part must hold. Where there are none, nothing is asked. */
  all: z
    .array(PassageConditionSchema)
    .max(100)
    .refine((all) => all.every((one) => depthOf(one) <= DEEPEST), `has parts within parts, deeper than ${DEEPEST}`),
  /** Names of what it asks for that is gone, by id. */
  gone: z.record(IdSchema, LineSchema).optional(),
});
export type Question = z.infer<typeof QuestionSchema>;

/** What a kept query found when the researcher last had seen all of it. */
export const SeenAnswerSchema = z.strictObject({
  at: TimeSchema,
  passages: CountSchema,
  /** A sign of each passage, eight digits each, ascending: enough to tell what is new and what is gone (`core/queries/seen.ts`). */
  signs: z.string().regex(/^([0-9a-f]{8})*$/),
});
export type SeenAnswer = z.infer<typeof SeenAnswerSchema>;

/** A kept question. */
export const QuerySchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  question: QuestionSchema,
  createdAt: TimeSchema,
  /** Absent until an answer was said to be seen. */
  seen: SeenAnswerSchema.optional(),
});
export type Query = z.infer<typeof QuerySchema>;

/** A question as data version 8 and those before it kept it. */
interface FlatQuestion {
  readonly all: readonly Id[];
  readonly any: readonly Id[];
  readonly none: readonly Id[];
  readonly withCodesUnder: boolean;
  readonly reach: 'passage' | 'overlap';
  readonly documentIds: readonly Id[] | null;
  readonly gone?: Question['gone'];
}

/** The same question as a condition. What does not look like one is given back as it is, for the schema to refuse. */
export function nested(stored: unknown): unknown {
  const { all, any, none, withCodesUnder, reach, documentIds, gone } = stored as FlatQuestion;
  if (![all, any, none].every(Array.isArray)) return stored;
  const carries = (
    how: 'any' | 'all' | 'none',
    codeIds: readonly Id[],
    over: 'passage' | 'overlap' = reach,
  ): readonly PassageCondition[] =>
    codeIds.length === 0 ? [] : [{ carries: how, codes: { codeIds: [...codeIds], setIds: [], withUnder: withCodesUnder }, reach: over }];
  return {
    all: [
      // where codes of overlapping passages count, it must carry one of those asked for itself
      ...(reach === 'overlap' ? carries('any', [...new Set([...all, ...any])], 'passage') : []),
      ...carries('all', all),
      ...carries('any', any),
      ...carries('none', none),
      ...(documentIds
        ? [documentIds.length > 0 ? { liesIn: { documentIds: [...documentIds], folderIds: [], setIds: [] } } : { any: [] }]
        : []),
    ],
    ...(gone && { gone }),
  };
}
