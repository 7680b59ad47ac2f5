import * as z from 'zod';
import { DaySchema, LineSchema, ProseSchema, TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** Something the researcher writes into the log: a decision, a meeting. */
export const LogEntrySchema = z.strictObject({
  id: IdSchema,
  /** The day it belongs to, which need not be the day it was written. */
  day: DaySchema,
  text: ProseSchema,
  tags: z.array(LineSchema).max(50),
  coderId: pointsTo('coder', 'refused'),
  createdAt: TimeSchema,
});
export type LogEntry = z.infer<typeof LogEntrySchema>;
