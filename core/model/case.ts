import * as z from 'zod';
import { CountSchema, LineSchema, ProseSchema } from './fields';
import { IdSchema } from './ids';
import { marked, pointsTo } from './pointing';

/** Values that a choice can offer. */
export const MOST_CHOICES = 1_000;

export const ATTRIBUTE_TYPES = ['text', 'choice', 'number', 'date', 'yes/no'] as const;

/** A typed fact that cases or documents may have. */
export const AttributeSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  of: z.enum(['case', 'document']),
  type: z.enum(ATTRIBUTE_TYPES),
  /** The values on offer, for a choice; empty for other types. */
  choices: z.array(LineSchema).max(MOST_CHOICES),
  /** Place among the attributes of the same kind of record: ascending, not necessarily whole. */
  order: z.number(),
});
export type Attribute = z.infer<typeof AttributeSchema>;

/** Text and choices as strings, numbers as numbers, dates as `YYYY-MM-DD`, yes/no as booleans. */
export const AttributeValueSchema = z.union([z.string().max(10_000, 'is longer than 10,000 characters'), z.number(), z.boolean()]);
export type AttributeValue = z.infer<typeof AttributeValueSchema>;

/** A stretch `[start, end)` of a document's text. */
export const DocumentStretchSchema = marked(z.strictObject({ documentId: IdSchema, start: CountSchema, end: CountSchema }), {
  holds: 'stretch',
});
export type DocumentStretch = z.infer<typeof DocumentStretchSchema>;

/** The unit of analysis. Whole documents it owns are listed here; speakers' turns are tied to it by the documents' speakers. */
export const CaseSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  description: ProseSchema,
  documentIds: z.array(pointsTo('document')),
  /** Parts of documents that it owns. */
  stretches: z.array(DocumentStretchSchema),
  /** Values by attribute id; an absent key means not known. */
  values: z.record(pointsTo('attribute'), AttributeValueSchema),
});
export type Case = z.infer<typeof CaseSchema>;
