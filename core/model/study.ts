import * as z from 'zod';
import { LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** What the checks of the codebook look for. */
export const FINDING_KINDS = ['never used', 'similar names', 'similar passages', 'too broad', 'one child'] as const;

/** One research project. Everything else belongs to exactly one. */
export const StudySchema = z.strictObject({
  id: IdSchema,
  title: LineSchema,
  description: ProseSchema,
  /** BCP 47 tag of the main language of the material: decides where sentences end and how names sort. */
  language: z.string().min(2).max(35),
  /** What this study calls its unit of analysis: "participant", "household", "site"… */
  caseWord: LineSchema,
  createdAt: TimeSchema,
  /** Codings are rated from 1 to this number; absent where the study does not rate. */
  ratings: z.number().int().min(2).max(10).optional(),
  /** The codebook is locked: new codes are collected as proposals. */
  frozen: z.strictObject({ at: TimeSchema, coderId: pointsTo('coder', 'refused') }).optional(),
  /** Kinds of memo with their colours (entries of the palette), where the researcher has chosen them. */
  memoKinds: z
    .array(z.strictObject({ name: LineSchema, colour: z.number().int().min(0).max(39) }))
    .max(100)
    .optional(),
  /** What is typed for what while transcribing: words that come often, and the study's signs for pauses, overlap, laughter. */
  shortForms: z
    .array(z.strictObject({ short: z.string().min(1).max(40).regex(/^\S+$/), long: z.string().min(1).max(500) }))
    .max(500)
    .optional(),
  /** Findings of the checks of the codebook that were looked at and left as they are. */
  checksLeft: z
    .array(z.strictObject({ kind: z.enum(FINDING_KINDS), codeIds: z.array(pointsTo('code', 'whole list')).min(1).max(2) }))
    .max(5_000)
    .optional(),
  /** The coder whose name new work carries on this machine. */
  currentCoderId: pointsTo('coder', 'refused'),
});
export type Study = z.infer<typeof StudySchema>;

/** A person who codes. */
export const CoderSchema = z.strictObject({ id: IdSchema, name: LineSchema });
export type Coder = z.infer<typeof CoderSchema>;

/** Where documents lie. Folders nest; `parentId` null means the top. */
export const FolderSchema = z.strictObject({ id: IdSchema, name: LineSchema, parentId: pointsTo('folder').nullable() });
export type Folder = z.infer<typeof FolderSchema>;
