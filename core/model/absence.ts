import * as z from 'zod';
import { TimeSchema } from './fields';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';
import { QuestionSchema } from './query';
import { ScopeSchema } from './scope';

/**
 * Something that was expected and not found: the question that a cell of a pattern asks, where it was asked, and the memo
 * that says why it was expected. It is kept as a question, so that it follows what happens to what it asks for.
 */
export const AbsenceSchema = z.strictObject({
  id: IdSchema,
  question: QuestionSchema,
  scope: ScopeSchema,
  memoId: pointsTo('memo'),
  coderId: pointsTo('coder', 'refused'),
  createdAt: TimeSchema,
});
export type Absence = z.infer<typeof AbsenceSchema>;
