import * as z from 'zod';
import { AttributeValueSchema } from './case';
import { DocumentKindSchema } from './document';
import { CountSchema, DaySchema, LineSchema } from './fields';
import { pointsTo } from './pointing';
import { COMPARISONS } from './set';
import { HeldWordsSchema } from './word-search';

/** Parts that can lie within each other; deeper than anybody reads. */
export const DEEPEST = 12;

/** Parts that can stand beside each other. */
const MOST_PARTS = 100;

/** The codes that are meant: single ones, each with what is under it or alone, and sets of codes, each standing for any in it. */
export const CodesAskedSchema = z.strictObject({
  codeIds: z.array(pointsTo('code', 'placeholder')).max(10_000),
  setIds: z.array(pointsTo('codeSet', 'placeholder')).max(1_000),
  withUnder: z.boolean(),
});
export type CodesAsked = z.infer<typeof CodesAskedSchema>;

/** Which codings count: by whom, when and how strongly they were given. What is absent is not asked. */
export const GivenSchema = z.strictObject({
  coderIds: z.array(pointsTo('coder', 'placeholder')).min(1).max(1_000).optional(),
  /** Days of the researcher's calendar, both included. */
  from: DaySchema.optional(),
  to: DaySchema.optional(),
  /** Ratings, both included; a coding without one is not within. */
  ratedFrom: z.number().int().min(1).max(10).optional(),
  ratedTo: z.number().int().min(1).max(10).optional(),
  /** Swept and not looked at yet, or not so. */
  swept: z.boolean().optional(),
});
export type Given = z.infer<typeof GivenSchema>;

/** The passage carries some of the codes named, or, where none are named, any code at all. */
export const CarriesSchema = z.strictObject({
  carries: z.enum(['any', 'all', 'none', 'at least']),
  /** How many, for `at least`. */
  number: CountSchema.max(10_000).optional(),
  codes: CodesAskedSchema,
  /** `passage`: codes on the passage itself count. `overlap`: also those of passages that overlap it. */
  reach: z.enum(['passage', 'overlap']),
  given: GivenSchema.optional(),
});
export type Carries = z.infer<typeof CarriesSchema>;

/** How a passage can stand to another of its document (`core/passages/relations.ts`); `near`: within some units of it, on either side. */
export const STANDINGS = ['overlaps', 'same place', 'inside', 'around', 'near', 'before', 'after'] as const;
export type Standing = (typeof STANDINGS)[number];

/** What nearness is counted in. */
export const NEARNESS_UNITS = ['sentence', 'paragraph', 'turn', 'second'] as const;
export type NearnessUnit = (typeof NEARNESS_UNITS)[number];
export const WithinSchema = z.strictObject({ count: CountSchema.max(1_000_000), unit: z.enum(NEARNESS_UNITS) });
export type Within = z.infer<typeof WithinSchema>;

/** Whose words a passage begins with. */
export const SpokenBySchema = z.strictObject({
  spokenBy: z.enum(['interviewers', 'others', 'these']),
  caseIds: z.array(pointsTo('case', 'placeholder')).max(10_000),
  /** Names of speakers, for those who are no case. */
  names: z.array(LineSchema).max(1_000),
});
export type SpokenBy = z.infer<typeof SpokenBySchema>;

export const AnswersSchema = z.strictObject({ answers: z.array(pointsTo('question', 'placeholder')).max(10_000) });

export const CommentedSchema = z.strictObject({
  comment: z.enum(['some', 'none', 'open question', 'holds']),
  /** Words it holds, for `holds`. */
  words: LineSchema,
});

/** The passage holds words; what is typed holds within the passage, whatever the unit. */
export const HasWordsSchema = z.strictObject({ hasWords: HeldWordsSchema });
export type HasWords = z.infer<typeof HasWordsSchema>;

/** The passage has a memo of its own, or none. */
export const MemoedSchema = z.strictObject({ memo: z.boolean() });

/** An attribute of the case whose words the passage is, or of its document. */
export const FactSchema = z.strictObject({
  attributeId: pointsTo('attribute', 'placeholder'),
  comparison: z.enum([...COMPARISONS, 'is one of']),
  /** One value, but for `is one of`; not looked at for `is known` and `is not known`. */
  values: z.array(AttributeValueSchema).max(1_000),
});
export type Fact = z.infer<typeof FactSchema>;

/** Where the passage is: in one of the documents, folders (with those under them) and sets named. */
export const LiesInSchema = z.strictObject({
  liesIn: z.strictObject({
    documentIds: z.array(pointsTo('document', 'placeholder')).max(100_000),
    folderIds: z.array(pointsTo('folder', 'placeholder')).max(10_000),
    setIds: z.array(pointsTo('set', 'placeholder')).max(10_000),
    /** Folders are meant without those under them. */
    foldersAlone: z.literal(true).optional(),
  }),
});
export type LiesIn = z.infer<typeof LiesInSchema>['liesIn'];

/** The passage is of one of the cases named: its speaker's, those that own the stretch, else those that own the document. */
export const OfCasesSchema = z.strictObject({ ofCases: z.array(pointsTo('case', 'placeholder')).max(100_000) });

/** The passage lies in a document with a date, of the days named: both included, and what is absent is not asked. */
export const DatedSchema = z.strictObject({ dated: z.strictObject({ from: DaySchema.optional(), to: DaySchema.optional() }) });

/** What a place can be in or of, whichever. */
export const PLACED = ['in a folder', 'in a set', 'of a case', 'in an answer', 'by a speaker'] as const;
/** The passage is in some folder, set or answer, is of some case, or is said by somebody with a name. */
export const PlacedSchema = z.strictObject({ placed: z.enum(PLACED) });

export const OfKindSchema = z.strictObject({ kinds: z.array(DocumentKindSchema).max(100) });
export const OfGroundSchema = z.strictObject({ grounds: z.array(z.enum(['text', 'time', 'picture'])).max(3) });

/** The passage answers a kept query. */
export const AsInQuerySchema = z.strictObject({ queryId: pointsTo('query', 'placeholder') });

/**
 * What is asked of a passage: parts, and nests of them, as deep as {@link DEEPEST}. Each option has a field that no other has.
 * How it is answered: `core/queries`; as JSON: `docs/queries.md`.
 */
export type PassageCondition =
  | Carries
  | { standing: Standing; to: PassageCondition; within?: Within }
  | SpokenBy
  | z.infer<typeof AnswersSchema>
  | z.infer<typeof CommentedSchema>
  | HasWords
  | z.infer<typeof MemoedSchema>
  | Fact
  | z.infer<typeof LiesInSchema>
  | z.infer<typeof OfCasesSchema>
  | z.infer<typeof DatedSchema>
  | z.infer<typeof PlacedSchema>
  | z.infer<typeof OfKindSchema>
  | z.infer<typeof OfGroundSchema>
  | z.infer<typeof AsInQuerySchema>
  | { all: PassageCondition[] }
  | { any: PassageCondition[] }
  | { none: PassageCondition[] };

const within = z.lazy((): z.ZodType<PassageCondition, PassageCondition> => PassageConditionSchema);
const several = z.array(within).max(MOST_PARTS);

/** The passage stands so to one of its document that itself answers a condition. */
export const StandsSchema = z.strictObject({
  standing: z.enum(STANDINGS),
  to: within,
  /** How far at most; always there for `near`, and only for what has an order. */
  within: WithinSchema.optional(),
});
export type Stands = Extract<PassageCondition, { standing: Standing }>;

export const PassageConditionSchema: z.ZodType<PassageCondition, PassageCondition> = z.union([
  CarriesSchema,
  StandsSchema,
  SpokenBySchema,
  AnswersSchema,
  CommentedSchema,
  HasWordsSchema,
  MemoedSchema,
  FactSchema,
  LiesInSchema,
  OfCasesSchema,
  DatedSchema,
  PlacedSchema,
  OfKindSchema,
  OfGroundSchema,
  AsInQuerySchema,
  z.strictObject({ all: several }),
  z.strictObject({ any: several }),
  z.strictObject({ none: several }),
]);

/** How a nest puts its parts together, and its parts; null for what is none. */
export function nestOf(
  condition: PassageCondition,
): { readonly how: 'all' | 'any' | 'none'; readonly parts: readonly PassageCondition[] } | null {
  if ('all' in condition) return { how: 'all', parts: condition.all };
  if ('any' in condition) return { how: 'any', parts: condition.any };
  return 'none' in condition ? { how: 'none', parts: condition.none } : null;
}

/** Parts put together. */
export const nestFrom = (how: 'all' | 'any' | 'none', parts: readonly PassageCondition[]): PassageCondition =>
  ({ [how]: [...parts] }) as unknown as PassageCondition;

/** The conditions within a condition, one step down. */
export const partsWithin = (condition: PassageCondition): readonly PassageCondition[] =>
  nestOf(condition)?.parts ?? ('to' in condition ? [condition.to] : []);

/** How deep conditions lie within each other: 1 for a part alone. */
export const depthOf = (condition: PassageCondition): number => 1 + Math.max(0, ...partsWithin(condition).map(depthOf));

/** A condition with each part within it, however deep, and itself replaced; null takes a part away, and a nest with nothing left. */
export function rewritten(
  condition: PassageCondition,
  change: (part: PassageCondition) => PassageCondition | null,
): PassageCondition | null {
  const nest = nestOf(condition);
  if (nest) {
    const now = nest.parts.flatMap((one) => rewritten(one, change) ?? []);
    return nest.parts.length > 0 && now.length === 0 ? null : change(nestFrom(nest.how, now));
  }
  if (!('to' in condition)) return change(condition);
  const to = rewritten(condition.to, change);
  return to && change({ ...condition, to });
}
