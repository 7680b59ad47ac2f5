import * as z from 'zod';
import { AttributeValueSchema } from './case';
import { LineSchema } from './fields';
import { IdSchema } from './ids';
import { marked, pointsTo } from './pointing';

/** How a value is held against the one named in a condition. */
export const COMPARISONS = ['is', 'is not', 'is over', 'is under', 'holds', 'is known', 'is not known'] as const;
export type Comparison = (typeof COMPARISONS)[number];

/**
 * One part of a condition: an attribute, the kind or folder of a document, or whether a kept query finds something in the
 * document or of the case, which is held against `true` and `false`.
 */
export const ConditionPartSchema = z.strictObject({
  what: z.union([
    z.strictObject({ attributeId: pointsTo('attribute', 'settled') }),
    z.strictObject({ queryId: pointsTo('query', 'settled') }),
    z.literal('kind'),
    z.literal('folder'),
  ]),
  comparison: z.enum(COMPARISONS),
  /** Not looked at for `is known` and `is not known`; for a folder its id. */
  value: marked(AttributeValueSchema.clone(), {
    holds: 'id',
    of: ({ what, comparison }) => (what === 'folder' && !String(comparison).endsWith('known') ? 'folder' : null),
    whenGone: 'settled',
  }),
});
export type ConditionPart = z.infer<typeof ConditionPartSchema>;

/** A cross-cutting group of documents or cases. A live set is defined by a condition and fills itself. */
export const MemberSetSchema = z.strictObject({
  id: IdSchema,
  name: LineSchema,
  of: z.enum(['document', 'case']),
  /** Members chosen by hand; empty for a live set. */
  memberIds: z.array(marked(IdSchema.clone(), { holds: 'id', of: ({ of }) => String(of), whenGone: 'emptied' })),
  /** All parts must hold; null for a set filled by hand. */
  condition: z.array(ConditionPartSchema).max(50).nullable(),
});
export type MemberSet = z.infer<typeof MemberSetSchema>;
