import type { HeldPassage } from '../model/holding';
import type { Id } from '../model/ids';
import type { Moves } from '../model/references';
import { nameOfRecord, RECORDS, type RecordType } from '../model/records';
import type { Change, RecordChange } from './change';

/** A position in a document. */
export interface Position {
  readonly documentId: Id;
  /** In characters from the beginning of its text. */
  readonly position: number;
}

/** What a change has moved and taken away, for whatever remembers things outside of the study: a scope, an open question, a place to come back to. */
export interface MovesIn extends Required<Pick<Moves, 'records' | 'passages' | 'nameOf'>> {
  /** Where a position is now, or null where its document is gone. */
  readonly at: (place: Position) => Position | null;
}

/**
 * Reads from a change what it moved: what it removed is gone, unless the change itself shows who took its place (the
 * code that says it was joined, the document that has the passages or the words now).
 * @returns null for a change that takes nothing away
 */
export function movesIn(change: Change): MovesIn | null {
  let moves = known.get(change);
  if (moves === undefined) known.set(change, (moves = read(change)));
  return moves;
}

/** Asked by several for each entry. */
const known = new WeakMap<Change, MovesIn | null>();

function read(change: Change): MovesIn | null {
  const records: Partial<Record<RecordType, Map<Id, Id | null>>> = {};
  const passages = new Map<Id, HeldPassage | null>();
  const names = new Map<Id, string>();
  for (const one of change) {
    if (one.type === 'passage') {
      const { before, after } = one;
      if (before && after?.documentId !== before.documentId)
        passages.set(before.id, after && { documentId: after.documentId, id: after.id });
    } else if (one.before && one.after === null && RECORDS[one.type].kept === 'row') {
      (records[one.type] ??= new Map()).set(one.before.id, heirOf(change, one));
      names.set(one.before.id, nameOfRecord(one.before));
    }
  }
  const divided = divisionsIn(change);
  if (passages.size === 0 && Object.keys(records).length === 0 && divided.length === 0) return null;
  return {
    records,
    passages,
    nameOf: (_, id) => names.get(id) ?? '',
    at: (place) => {
      const heir = records.document?.get(place.documentId);
      if (heir) return { documentId: heir, position: place.position + lengthBefore(change, heir) };
      if (heir === null) return null;
      const cut = divided.find((one) => one.documentId === place.documentId && place.position >= one.cut);
      return cut ? { documentId: cut.restId, position: place.position - cut.cut } : place;
    },
  };
}

function heirOf(change: Change, gone: RecordChange): Id | null {
  if (gone.type === 'document') return textThatTook(change, gone.before!.id);
  if (gone.type !== 'code') return null;
  const { name } = gone.before!;
  const into = change.find(
    (one) => one.type === 'code' && one.after?.joined?.includes(name) && one.before && !one.before.joined?.includes(name),
  );
  return into?.after?.id ?? null;
}

/** The document whose text ends with that of one that went, and did not before. */
function textThatTook(change: Change, documentId: Id): Id | null {
  const gone = change.find((one) => one.type === 'text' && one.before?.id === documentId && one.after === null);
  if (gone?.type !== 'text') return null;
  const words = gone.before!.text;
  const into = change.find(
    (one) =>
      one.type === 'text' &&
      one.before &&
      one.after?.text.length === one.before.text.length + 1 + words.length &&
      one.after.text.endsWith(words),
  );
  return into?.after?.id ?? null;
}

/** How many characters stood in a text that another was put behind, with the line end between them. */
function lengthBefore(change: Change, documentId: Id): number {
  const text = change.find((one) => one.type === 'text' && one.before?.id === documentId);
  return text?.type === 'text' ? text.before!.text.length + 1 : 0;
}

/** Texts that lost their end to a new one: from where on, and to which. */
function divisionsIn(change: Change): { readonly documentId: Id; readonly cut: number; readonly restId: Id }[] {
  return change.flatMap((one) => {
    if (one.type !== 'text' || !one.before || !one.after || one.after.text.length >= one.before.text.length) return [];
    const cut = one.after.text.length + 1;
    const rest = change.find(
      (other) => other.type === 'text' && other.before === null && other.after?.text === one.before!.text.slice(cut),
    );
    return rest?.after ? [{ documentId: one.before.id, cut, restId: rest.after.id }] : [];
  });
}
