import * as z from 'zod';
import { LineSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import {
  AnswersSchema,
  DatedSchema,
  FactSchema,
  GivenSchema,
  LiesInSchema,
  OfCasesSchema,
  OfKindSchema,
  PlacedSchema,
  SpokenBySchema,
} from './passage-condition';

/** What a scope can ask of the material: each says it of a place in a document, whether or not a passage is there. */
export const ScopePartSchema = z.union([
  OfKindSchema,
  LiesInSchema,
  OfCasesSchema,
  FactSchema,
  SpokenBySchema,
  AnswersSchema,
  DatedSchema,
  PlacedSchema,
]);
export type ScopePart = z.infer<typeof ScopePartSchema>;

/** Whose codings are looked at, and those of which days. What is absent is not asked. */
export const ScopeGivenSchema = GivenSchema.pick({ coderIds: true, from: true, to: true });
export type ScopeGiven = z.infer<typeof ScopeGivenSchema>;

/** What everything looks at: the material of which every part holds, and codings given so. How it is worked out: `core/queries/narrowing.ts`. */
export const ScopeSchema = z.strictObject({
  parts: z.array(ScopePartSchema).max(50),
  given: ScopeGivenSchema.optional(),
  /** Names of what it asks for that is gone, by id. */
  gone: z.record(IdSchema, LineSchema).optional(),
});
export type Scope = z.infer<typeof ScopeSchema>;

/** The whole study. */
export const EVERYTHING: Scope = { parts: [] };

/** Whether a scope leaves nothing out. */
export const isEverything = ({ parts, given }: Scope): boolean => parts.length === 0 && given === undefined;

/** A scope under a name. */
export const KeptScopeSchema = z.strictObject({ id: IdSchema, name: LineSchema, scope: ScopeSchema, createdAt: TimeSchema });
export type KeptScope = z.infer<typeof KeptScopeSchema>;
