import type { TextEdit, TextEdits } from './edit';

/** Characters on either side of an edit by which its place is found again. */
const AROUND = 40;

/** An edit with what it replaces and the words around it, so that it can be found in another edition of the text. */
export interface AnchoredEdit extends TextEdit {
  /** The words it replaces. */
  readonly was: string;
  readonly before: string;
  readonly after: string;
}

/** Edits of a text that has become another, as far as their places are certain. */
export interface CarriedOver {
  /** Over the text as it is now. */
  readonly edits: TextEdits;
  /** Those whose surroundings are gone, or stand in several places. They are for a person to place. */
  readonly uncertain: readonly AnchoredEdit[];
}

/** Edits with the words around them. */
export function anchorEdits(text: string, edits: TextEdits): AnchoredEdit[] {
  return edits.map(({ from, to, insert }) => ({
    from,
    to,
    insert,
    was: text.slice(from, to),
    before: text.slice(Math.max(0, from - AROUND), from),
    after: text.slice(to, to + AROUND),
  }));
}

/**
 * Finds edits again in another edition of their text. An edit is carried over only where the words it replaces stand
 * with the same words around them in exactly one place, behind the edit before it: nothing is ever merged by guess. What
 * was typed at the very end of the text is certain only where the text still ends there.
 */
export function carryOver(anchored: readonly AnchoredEdit[], text: string): CarriedOver {
  const edits: TextEdit[] = [];
  const uncertain: AnchoredEdit[] = [];
  let free = 0;
  for (const one of anchored) {
    const around = one.before + one.was + one.after;
    const at = around === '' ? (text === '' ? 0 : -1) : text.indexOf(around);
    const from = at + one.before.length;
    // what stood at the very beginning or end has words on one side only, so it must stand there still
    const atEdges = (one.before !== '' || at === 0) && (one.after !== '' || at + around.length === text.length);
    const certain = at >= 0 && from >= free && atEdges && (around === '' || text.indexOf(around, at + 1) < 0);
    if (!certain) {
      uncertain.push(one);
      continue;
    }
    free = from + one.was.length;
    edits.push({ from, to: free, insert: one.insert });
  }
  return { edits, uncertain };
}
