import * as z from 'zod';
import { LineSchema, TimeSchema } from '../model/fields';
import { IdSchema } from '../model/ids';
import { isMendable } from '../model/mendable';
import { RECORD_TYPES, schemaOf, type RecordType } from '../model/records';
import type { RecordChange } from './change';

const RecordChangeSchema = z
  .strictObject({ type: z.enum(RECORD_TYPES as [RecordType, ...RecordType[]]), before: z.unknown(), after: z.unknown() })
  .transform((change, context): RecordChange => {
    const schema = schemaOf(change.type).nullable();
    for (const side of ['before', 'after'] as const) {
      const parsed = schema.safeParse(change[side] ?? null);
      const issue = parsed.error?.issues.find((one) => !isMendable(one));
      if (issue) context.addIssue({ code: 'custom', message: issue.message, path: [side] });
    }
    if (!change.before && !change.after) context.addIssue({ code: 'custom', message: 'changes nothing' });
    return { type: change.type, before: change.before ?? null, after: change.after ?? null } as RecordChange;
  });

/**
 * One action in the journal, which is the study's log: who did what and when, as a sentence, with the
 * change itself, so that it can be taken back at any later time.
 */
export const JournalEntrySchema = z.strictObject({
  /** Number in the journal, from 1, without gaps. */
  seq: z.number().int().min(1),
  at: TimeSchema,
  coderId: IdSchema,
  /** `undo` and `redo` are entries of their own: nothing is ever struck from the log. A `note` cannot be undone. */
  kind: z.enum(['act', 'undo', 'redo', 'note']),
  /** For `undo` and `redo`: the number of the act they concern. */
  of: z.number().int().min(1).nullable(),
  /** What was done, in the past tense, without the name: "coded a passage with Worry". */
  sentence: LineSchema,
  change: z.array(RecordChangeSchema).readonly(),
});
export type JournalEntry = z.infer<typeof JournalEntrySchema>;

/**
 * Which acts can be taken back and brought back, as journal numbers, the next one last.
 * Kept with the study and written in the same transaction as each entry.
 */
export const HistorySchema = z.strictObject({
  /** Number of the newest entry; 0 in a new study. */
  seq: z.number().int().min(0),
  undo: z.array(z.number().int().min(1)),
  redo: z.array(z.number().int().min(1)),
});
export type History = z.infer<typeof HistorySchema>;
