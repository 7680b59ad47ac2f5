import * as z from 'zod';
import { IdSchema, type Id } from './ids';

/**
 * What happens to a record when what it points at goes.
 * - `emptied`: the nearest thing that can do without it does: a field that may be null or absent, an entry of a list;
 *   where there is no such thing, the record goes as well.
 * - `whole list`: as `emptied`, but the list it stands in goes with it, since its other entries mean nothing alone.
 * - `settled`: it asks something that can no longer be asked; a command first turns it into what was the answer.
 * - `placeholder`: it stays and says by name what is gone.
 * - `refused`: what is pointed at cannot be taken away.
 */
export type WhenGone = 'emptied' | 'whole list' | 'settled' | 'placeholder' | 'refused';

type Fields = Readonly<Record<string, unknown>>;

/** What a part of a schema says it holds. */
export type Mark =
  /** The id of a record; of which type may depend on the fields beside it (null: of none). */
  | { readonly holds: 'id'; readonly of: string | ((beside: Fields) => string | null); readonly whenGone: WhenGone }
  /** A passage by two fields: its document's id and its own. */
  | {
      readonly holds: 'passage';
      readonly document: string;
      readonly id: string;
      readonly whenGone: WhenGone;
      /** Where the passage is gone and its document is not, that is meant from then on: the field that says so. */
      readonly insteadDocument?: string;
    }
  /** Characters `[start, end)` of a document, by the fields `documentId`, `start` and `end`. */
  | { readonly holds: 'stretch' }
  /** Markdown that may hold links to records. */
  | { readonly holds: 'links' };

const marks = new WeakMap<z.ZodType, Mark>();

/** What a schema was marked with, if it was. */
export const markOf = (schema: z.ZodType): Mark | undefined => marks.get(schema);

/** The schema itself, known to hold something that must survive what happens to it. Mark last: a refined schema is another. */
export function marked<T extends z.ZodType>(schema: T, mark: Mark): T {
  marks.set(schema, mark);
  return schema;
}

/** The id of a record of a type. Ids that point at nothing but their own record are plain `IdSchema`. */
export const pointsTo = (of: string, whenGone: WhenGone = 'emptied'): z.ZodType<Id, Id> =>
  marked(IdSchema.clone(), { holds: 'id', of, whenGone });

/** A passage named with its document, since passages are kept by document. */
export const PassageAtSchema = marked(z.strictObject({ documentId: IdSchema, passageId: IdSchema }), {
  holds: 'passage',
  document: 'documentId',
  id: 'passageId',
  whenGone: 'emptied',
});
export type PassageAt = z.infer<typeof PassageAtSchema>;
