import type { TextEdits } from '@core/text/edit';
import { anchorEdits, carryOver, type AnchoredEdit, type CarriedOver } from '@core/text/carry-over';
import type { Id } from '@core/model/ids';
import { fingerprint } from '@core/text/fingerprint';
import { draftsAt } from './drafts';

/** See `forgetDrafts`: what belongs to a study goes with it. */
const keyOf = (studyId: Id, documentId: Id): string => draftsAt(studyId, 'correction') + documentId;
const NOTHING: CarriedOver = { edits: [], uncertain: [] };

interface Draft {
  /** The text that was being corrected. */
  readonly base: string;
  readonly edits: readonly AnchoredEdit[];
  /** Those that could not be placed when the text changed underneath. */
  readonly uncertain: readonly AnchoredEdit[];
  /** Times that were noted while it was listened to, by position of what is typed. */
  readonly times?: readonly { readonly at: number; readonly value: number }[];
}

/**
 * Corrections being typed, kept in this browser until they are kept or dropped, so that a crash loses none of them.
 * They are not part of the study yet. Where the text is another by now, those whose place is certain are carried over.
 */
export const correctionDrafts = {
  /**
   * @param text as it is stored
   * @returns false where the browser has no room for it: the corrections are only on the screen then
   */
  keep(
    studyId: Id,
    documentId: Id,
    text: string,
    edits: TextEdits,
    uncertain: readonly AnchoredEdit[] = [],
    times?: Draft['times'],
  ): boolean {
    if (edits.length + uncertain.length === 0 && !times) {
      this.drop(studyId, documentId);
      return true;
    }
    try {
      const draft: Draft = { base: signOf(text), edits: anchorEdits(text, edits), uncertain, ...(times && { times }) };
      localStorage.setItem(keyOf(studyId, documentId), JSON.stringify(draft));
      return true;
    } catch {
      return false;
    }
  },

  /** What was typed and neither kept nor dropped, over the text as it is. */
  of(studyId: Id, documentId: Id, text: string): CarriedOver {
    try {
      const draft = JSON.parse(localStorage.getItem(keyOf(studyId, documentId)) ?? 'null') as Draft | null;
      if (!draft || !areEdits(draft.edits) || !areEdits(draft.uncertain)) return NOTHING;
      if (draft.base === signOf(text) && follow(draft.edits, text.length)) {
        return { edits: draft.edits.map(({ from, to, insert }) => ({ from, to, insert })), uncertain: draft.uncertain };
      }
      const carried = carryOver(draft.edits, text);
      return { edits: carried.edits, uncertain: [...draft.uncertain, ...carried.uncertain] };
    } catch {
      return NOTHING;
    }
  },

  /** Times that were noted with them; null where none were, or where the text is another by now. */
  timesOf(studyId: Id, documentId: Id, text: string): NonNullable<Draft['times']> | null {
    try {
      const draft = JSON.parse(localStorage.getItem(keyOf(studyId, documentId)) ?? 'null') as Draft | null;
      const times = draft?.base === signOf(text) ? draft.times : undefined;
      return Array.isArray(times) && times.every(({ at, value }) => Number.isInteger(at) && Number.isInteger(value)) ? times : null;
    } catch {
      return null;
    }
  },

  drop(studyId: Id, documentId: Id): void {
    localStorage.removeItem(keyOf(studyId, documentId));
  },
};

const areEdits = (edits: unknown): edits is AnchoredEdit[] =>
  Array.isArray(edits) &&
  edits.every(
    (edit: AnchoredEdit) =>
      [edit.from, edit.to].every(Number.isInteger) &&
      [edit.insert, edit.was, edit.before, edit.after].every((part) => typeof part === 'string'),
  );

const follow = (edits: TextEdits, length: number): boolean =>
  edits.every(({ from, to }, at) => from >= (at === 0 ? 0 : edits[at - 1]!.to) && to >= from && to <= length);

/** Length and a sum over the characters: tells texts apart that one document had in turn. */
const signOf = (text: string): string => `${text.length} ${fingerprint(text)}`;
