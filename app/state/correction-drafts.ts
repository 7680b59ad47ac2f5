import type { Id } from '@core/model/ids';
import type { TextEdit, TextEdits } from '@core/text/edit';

const KEY = 'filum-correcting ';

interface Draft {
  /** The text that was being corrected: edits of another do not fit. */
  readonly base: string;
  readonly edits: TextEdits;
}

/**
 * Corrections being typed, kept in this browser until they are kept or dropped, so that a crash loses none of them.
 * They are not part of the study yet.
 */
export const correctionDrafts = {
  /** @param text as it is stored */
  keep(documentId: Id, text: string, edits: TextEdits): void {
    if (edits.length === 0) return this.drop(documentId);
    try {
      localStorage.setItem(KEY + documentId, JSON.stringify({ base: signOf(text), edits } satisfies Draft));
    } catch {
      // the browser's room for such things is full: the corrections are still on the screen
    }
  },

  /** What was typed and neither kept nor dropped; empty if nothing, or if the text is another by now. */
  of(documentId: Id, text: string): TextEdits {
    try {
      const draft = JSON.parse(localStorage.getItem(KEY + documentId) ?? 'null') as Draft | null;
      return draft && draft.base === signOf(text) && isEdits(draft.edits, text.length) ? draft.edits : [];
    } catch {
      return [];
    }
  },

  drop(documentId: Id): void {
    localStorage.removeItem(KEY + documentId);
  },
};

const isEdits = (edits: unknown, length: number): edits is TextEdits =>
  Array.isArray(edits) &&
  edits.every(({ from, to, insert }: TextEdit, at) => {
    const free = at === 0 ? 0 : (edits as TextEdits)[at - 1]!.to;
    return Number.isInteger(from) && Number.isInteger(to) && from >= free && to >= from && to <= length && typeof insert === 'string';
  });

/** Length and a sum over the characters (FNV-1a, 32 bits): tells texts apart that one document had in turn. */
function signOf(text: string): string {
  let sum = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) sum = Math.imul(sum ^ text.charCodeAt(at), 0x01000193);
  return `${text.length} ${sum >>> 0}`;
}
