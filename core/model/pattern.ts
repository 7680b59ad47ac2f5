import * as z from 'zod';
import { DaySchema, LineSchema, TimeSchema, CountSchema } from './fields';
import { IdSchema } from './ids';
import { NEARNESS_UNITS } from './passage-condition';
import { marked, pointsTo } from './pointing';
import { ScopeSchema } from './scope';

/** What a number counts. Defined in `docs/calculations.md`. */
export const COUNTED = ['passages', 'codings', 'cases', 'documents', 'words', 'seconds'] as const;
export type Counting = (typeof COUNTED)[number];

/**
 * How codings of several coders count: `together`, passages of one code by different coders that overlap count once;
 * `each passage`, every marked passage counts.
 */
export const CODERS_COUNT = ['together', 'each passage'] as const;
export type CodersCount = (typeof CODERS_COUNT)[number];

/** What is looked for: chosen ones, or, where a list is null, all there are. */
export const RowsSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('codes'), codeIds: z.array(pointsTo('code')).max(10_000).nullable(), withUnder: z.boolean() }),
  /** The codes at the top of the codebook, each with what is under it. */
  z.strictObject({ of: z.literal('top codes') }),
  z.strictObject({ of: z.literal('code sets'), setIds: z.array(pointsTo('codeSet')).max(1_000).nullable() }),
  z.strictObject({ of: z.literal('queries'), queryIds: z.array(pointsTo('query')).max(1_000).nullable() }),
]);
export type RowsAsked = z.infer<typeof RowsSchema>;

/** An attribute on an axis, and where numbers or dates are cut into bands: each cut begins the next band. Absent: as they are. */
export const NestedSchema = z.strictObject({
  attributeId: pointsTo('attribute'),
  cuts: z
    .array(z.union([z.number(), DaySchema]))
    .max(50)
    .optional(),
});
export type Nested = z.infer<typeof NestedSchema>;

export const GROUPED_BY = ['everything', 'document', 'case', 'folder', 'kind', 'set', 'speaker', 'question', 'coder', 'month'] as const;

/** Attributes that can be nested on an axis. */
export const MOST_NESTED = 3;

/** By what the material is divided. Attributes are nested, the first the outermost; with none left all is one group. */
export const GroupsSchema = z.union([
  z.strictObject({ by: z.enum(GROUPED_BY) }),
  z.strictObject({ nested: z.array(NestedSchema).max(MOST_NESTED) }),
]);
export type GroupsAsked = z.infer<typeof GroupsSchema>;

/** What groups that are records are records of. */
const GROUP_RECORDS: Readonly<Record<string, string>> = {
  ...{ document: 'document', case: 'case', folder: 'folder', set: 'set', question: 'question', coder: 'coder' },
};

/** The key of one group of those beside it (`core/patterns/axis.ts`): the id of a record where groups are such. */
const GroupKeySchema = marked(z.string().max(2_000), {
  holds: 'id',
  of: ({ groups, key }) => (key === '' ? null : (GROUP_RECORDS[(groups as { readonly by?: string }).by ?? ''] ?? null)),
  whenGone: 'emptied',
});

/** How counts are shown: see `core/patterns/normalise.ts`. */
export const SHOWN_AS = ['as they are', 'per row', 'per column', 'per case', 'per 1,000 words', 'presence', 'against expected'] as const;
export type ShownAs = (typeof SHOWN_AS)[number];

/** Which rows and columns of a table are shown. */
export const EMPTY_SHOWN = ['all', 'without empty', 'only empty'] as const;

export const CrossTableSchema = z.strictObject({
  pattern: z.literal('cross-table'),
  rows: RowsSchema,
  columns: GroupsSchema,
  counting: z.enum(COUNTED),
  coders: z.enum(CODERS_COUNT),
  as: z.enum(SHOWN_AS),
  /** Rows and columns have changed places. */
  turned: z.boolean(),
  empty: z.enum(EMPTY_SHOWN),
  /** Absent: as a table. */
  shown: z.enum(['table', 'bars']).optional(),
});
export type CrossTableAsked = z.infer<typeof CrossTableSchema>;

export const FrequenciesSchema = z.strictObject({
  pattern: z.literal('frequencies'),
  rows: RowsSchema,
  coders: z.enum(CODERS_COUNT),
  /** What the bars show, and rows are ordered by. */
  counting: z.enum(COUNTED),
  /** Rows of fewer are not shown. */
  minimum: CountSchema,
  /** Absent: as a list. */
  shown: z.enum(['list', 'areas', 'pie', 'cloud']).optional(),
});
export type FrequenciesAsked = z.infer<typeof FrequenciesSchema>;

/** When two codes are together. */
export const TOGETHER_BY = ['overlap', 'near', 'document', 'case'] as const;
export const TOGETHER_AS = ['counts', 'jaccard', 'against expected'] as const;
export const TogetherSchema = z.strictObject({
  pattern: z.literal('together'),
  rows: RowsSchema,
  by: z.enum(TOGETHER_BY),
  /** For `near`: how far at most. */
  within: z.strictObject({ count: CountSchema.max(1_000), unit: z.enum(NEARNESS_UNITS) }),
  coders: z.enum(CODERS_COUNT),
  as: z.enum(TOGETHER_AS),
  /** Absent: as a table. */
  shown: z.enum(['table', 'links', 'flow', 'strongest', 'never']).optional(),
  /** For a flow: where it goes to, from `rows`. Absent: to the same. */
  to: RowsSchema.optional(),
});
export type TogetherAsked = z.infer<typeof TogetherSchema>;

/** In which order threads lie below each other. */
export const WEAVE_ORDERS = ['as in the codebook', 'by where they begin', 'the most first'] as const;
export const WeaveSchema = z.strictObject({
  pattern: z.literal('weave'),
  documentIds: z.array(pointsTo('document')).max(200),
  rows: RowsSchema,
  /** What the width stands for. */
  by: z.enum(['position', 'paragraph', 'turn', 'second', 'question']),
  /** Absent: as in the codebook. */
  order: z.enum(WEAVE_ORDERS).optional(),
});
export type WeaveAsked = z.infer<typeof WeaveSchema>;

export const DOCUMENT_ORDERS = ['by when they were coded', 'by their dates', 'by title'] as const;
export type DocumentOrder = (typeof DOCUMENT_ORDERS)[number];
export const SaturationSchema = z.strictObject({
  pattern: z.literal('saturation'),
  order: z.enum(DOCUMENT_ORDERS),
  groups: GroupsSchema,
  base: CountSchema.min(1).max(1_000),
  run: CountSchema.min(1).max(1_000),
  /** Share of new information at or under which it is met, 0 to 1. */
  threshold: z.number().min(0).max(1),
});
export type SaturationAsked = z.infer<typeof SaturationSchema>;

/** How words of a table are looked for: each row is a word, what else is typed, or a word list; with none of them, the most frequent words. */
export const WordTableSchema = z.strictObject({
  /** As they are typed where words are looked for. */
  typed: z.array(LineSchema).max(500),
  wordListIds: z.array(pointsTo('wordList')).max(500),
  groups: GroupsSchema,
  as: z.enum(['as they are', 'per 1,000 words']),
});
export type WordTableAsked = z.infer<typeof WordTableSchema>;

/** Words in a run at most. */
export const LONGEST_RUN = 5;

export const WordsSchema = z.strictObject({
  pattern: z.literal('words'),
  /** Single words, or runs of so many. */
  run: z.number().int().min(1).max(LONGEST_RUN),
  /** Forms of a word count as one, by their stem. */
  forms: z.boolean(),
  /** Stop words of the study's language are left out… */
  withoutStopWords: z.boolean(),
  /** …but for these, and with these. In lower case. */
  kept: z.array(LineSchema).max(5_000),
  left: z.array(LineSchema).max(5_000),
  minimum: CountSchema,
  /** What is typical of one group against all others, by its key; absent where words are counted in all of the scope. */
  typical: z.strictObject({ groups: GroupsSchema, key: GroupKeySchema }).optional(),
  /** Absent: as a list. */
  shown: z.enum(['list', 'cloud', 'table']).optional(),
  /** For a table: by which groups, and of what. Absent: the most frequent words in each document. */
  table: WordTableSchema.optional(),
});
export type WordsAsked = z.infer<typeof WordsSchema>;

/** What is compared with what, and where codes are said to occur. */
export const COMPARED = ['codes', 'documents', 'cases'] as const;
export const OCCURRING_IN = ['documents', 'cases', 'paragraphs'] as const;
/** Presence is compared by Jaccard's coefficient, counts by the cosine. */
export const COMPARED_BY = ['presence', 'counts'] as const;

/** Parts that what is compared can be divided into. */
export const MOST_CLUSTERS = 50;

export const SimilaritySchema = z.strictObject({
  pattern: z.literal('similarity'),
  compared: z.enum(COMPARED),
  /** The codes that are compared, or by which documents and cases are. */
  rows: RowsSchema,
  /** Where codes occur, where these are compared. */
  occurring: z.enum(OCCURRING_IN),
  by: z.enum(COMPARED_BY),
  coders: z.enum(CODERS_COUNT),
  /** Attributes by which documents or cases are compared as well. */
  attributeIds: z.array(pointsTo('attribute')).max(100),
  clusters: z.number().int().min(1).max(MOST_CLUSTERS),
  /** Absent: on a plan. */
  shown: z.enum(['plan', 'tree', 'nearest']).optional(),
});
export type SimilarityAsked = z.infer<typeof SimilaritySchema>;

/** How many cases or documents have which value of an attribute, and of a second one with it. */
export const AttributesSchema = z.strictObject({
  pattern: z.literal('attributes'),
  of: NestedSchema.nullable(),
  against: NestedSchema.nullable(),
  as: z.enum(['as they are', 'per row', 'per column', 'against expected']),
});
export type AttributesAsked = z.infer<typeof AttributesSchema>;

/** What is shown of a theme that one speaks of first and others after. */
export const TAKEN_UP_SHOWN = ['who brings it up', 'who takes it on', 'from whom to whom'] as const;
/** How times are shown: see `core/patterns/normalise.ts`. */
export const TAKEN_UP_AS = ['as they are', 'per row', 'per case', 'per 1,000 words'] as const;
export const TakingUpSchema = z.strictObject({
  pattern: z.literal('taking-up'),
  rows: RowsSchema,
  /** Whose words passages are. */
  groups: GroupsSchema,
  /** Turns without it after which it is brought up anew; 0: never within a document. */
  apart: CountSchema.max(10_000),
  shown: z.enum(TAKEN_UP_SHOWN),
  /** Absent: as they are. */
  as: z.enum(TAKEN_UP_AS).optional(),
});
export type TakingUpAsked = z.infer<typeof TakingUpSchema>;

/** A pattern with its settings. How each is worked out: `core/patterns`. */
export const AskedPatternSchema = z.discriminatedUnion('pattern', [
  FrequenciesSchema,
  CrossTableSchema,
  TogetherSchema,
  WeaveSchema,
  SaturationSchema,
  WordsSchema,
  SimilaritySchema,
  AttributesSchema,
  TakingUpSchema,
]);
export type AskedPattern = z.infer<typeof AskedPatternSchema>;

/** A pattern under a name, with what was looked at. */
export const KeptPatternSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  asked: AskedPatternSchema,
  scope: ScopeSchema,
  createdAt: TimeSchema,
});
export type KeptPattern = z.infer<typeof KeptPatternSchema>;
