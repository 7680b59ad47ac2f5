import type * as z from 'zod';
import { withReferences, type Reference } from './address';
import { heldBy, marksIn, type HeldPassage, type HeldStretch, type Holder } from './holding';
import { ID_LENGTH, type Id } from './ids';
import type { WhenGone } from './pointing';
import { entryOf, RECORD_TYPES, schemaOf, type RecordShapes, type RecordType, type TableType } from './records';
import type { StudyState } from './study-state';

/** Something a record points at. */
export type Pointed =
  | { readonly of: string; readonly id: Id; readonly whenGone: WhenGone }
  | { readonly of: 'passage'; readonly documentId: Id; readonly id: Id; readonly whenGone: WhenGone };

/** What records of a type can hold: types of records, `passage` and `stretch`. What depends on a record counts as every kind. */
export function kindsHeldBy(type: RecordType): ReadonlySet<string> {
  let kinds = kindsByType.get(type);
  if (!kinds) kindsByType.set(type, (kinds = kindsOf(schemaOf(type))));
  return kinds;
}
const kindsByType = new Map<RecordType, ReadonlySet<string>>();

function kindsOf(schema: z.ZodType): Set<string> {
  const kinds = new Set<string>();
  for (const mark of marksIn(schema)) {
    if (mark.holds === 'id' && typeof mark.of === 'string') kinds.add(mark.of);
    else if (mark.holds === 'passage') kinds.add('passage').add('document');
    else if (mark.holds === 'stretch') kinds.add('stretch').add('document');
    else for (const kind of [...RECORD_TYPES, 'stretch']) kinds.add(kind);
  }
  return kinds;
}

/** Everything a record holds. */
export interface Held {
  readonly points: readonly Pointed[];
  /** Parts of documents. */
  readonly stretches: readonly HeldStretch[];
}

/** Types whose records can point at something. */
export const POINTING_TYPES = RECORD_TYPES.filter((type) => marksIn(schemaOf(type)).length > 0);

/** Every id a record holds of others, with what happens when that goes; and every part of a document. */
export function heldIn<K extends RecordType>(type: K, record: RecordShapes[K]): Held {
  const points: Pointed[] = [];
  const stretches: HeldStretch[] = [];
  heldBy(schemaOf(type), record, {
    id(of, id, whenGone) {
      points.push({ of, id, whenGone });
      return id;
    },
    passage(at, whenGone) {
      points.push({ of: 'passage', ...at, whenGone });
      return at;
    },
    stretch(one) {
      stretches.push(one);
      return [one];
    },
    links: (markdown) =>
      withReferences(markdown, (reference) => {
        points.push(pointOf(reference));
        return reference;
      }),
  });
  return { points, stretches };
}

const pointOf = (reference: Reference): Pointed =>
  reference.type === 'passage'
    ? { of: 'passage', documentId: reference.documentId, id: reference.id, whenGone: 'placeholder' }
    : { of: reference.type, id: reference.id, whenGone: 'placeholder' };

/** Whether an id is among ids that are joined. */
function holdsId(ids: string, id: Id): boolean {
  for (let at = ids.indexOf(id); at >= 0; at = ids.indexOf(id, at + 1)) if (at % ID_LENGTH === 0) return true;
  return false;
}

/** Whether what a record points at is there. */
export function isThere(state: Pick<StudyState, 'tables' | 'passages'>, point: Pointed): boolean {
  if (!('documentId' in point)) return Object.hasOwn(state.tables[point.of as TableType] ?? {}, point.id);
  const columns = state.passages[point.documentId];
  return columns !== undefined && holdsId(columns.ids, point.id);
}

/** What has become of records and places. What is not named is as it was. */
export interface Moves {
  /** By type and id: the id of what it has become, or null where it is gone. */
  readonly records?: Readonly<Partial<Record<RecordType, ReadonlyMap<Id, Id | null>>>>;
  /** By the passage's id: where it is now, or null. Passages of a document that is gone are gone as well. */
  readonly passages?: ReadonlyMap<Id, HeldPassage | null>;
  /** Parts of documents as they are now, in as many pieces as there are. */
  readonly stretch?: (stretch: HeldStretch) => readonly HeldStretch[];
  /** What something that goes was called: where its place is kept, it is remembered by name. */
  readonly nameOf?: (of: string, id: Id) => string;
}

/** A move takes something away that others cannot be without. */
export class StillNeededError extends Error {
  constructor(
    readonly of: string,
    readonly id: Id,
  ) {
    super(`The ${of} ${id} is still needed.`);
    this.name = 'StillNeededError';
  }
}

/**
 * A record after what it holds has moved or gone.
 * @returns the very same record where nothing changed; null where it goes as well
 * @throws StillNeededError where it cannot be without something that is to go
 */
export function mapped<K extends RecordType>(type: K, record: RecordShapes[K], moves: Moves): RecordShapes[K] | null {
  const now = mappedAs(schemaOf(type), record, moves);
  if (now === null || now === record) return now;
  const { whole } = entryOf(type);
  return whole ? whole(now) : now;
}

/** As {@link mapped}, for something of a schema that is not a record: a question that is not kept yet. */
export function mappedAs<T>(schema: z.ZodType<T>, value: T, moves: Moves): T | null {
  /** Names of what is gone and keeps its place. */
  const gone = new Map<Id, string>();
  const now = heldBy(schema, value, holderOf(moves, gone));
  return now !== null && gone.size > 0 ? withNames(now, gone) : now;
}

function holderOf(moves: Moves, gone: Map<Id, string>): Holder {
  const passageNow = (at: HeldPassage): HeldPassage | null => {
    const moved = moves.passages?.get(at.id);
    if (moved !== undefined) return moved;
    const document = moves.records?.document?.get(at.documentId);
    return document === undefined ? at : document === null ? null : { ...at, documentId: document };
  };
  const idNow = (of: string, id: Id): Id | null => {
    const now = moves.records?.[of as RecordType]?.get(id);
    return now === undefined ? id : now;
  };
  return {
    id(of, id, whenGone) {
      const now = idNow(of, id);
      if (now !== null) return now;
      if (whenGone === 'refused') throw new StillNeededError(of, id);
      if (whenGone !== 'placeholder') return null;
      gone.set(id, (moves.nameOf?.(of, id) ?? '').slice(0, 500));
      return id;
    },
    passage: passageNow,
    stretch: (one) => {
      const documentId = idNow('document', one.documentId);
      if (documentId === null) return [];
      return moves.stretch?.(one) ?? (documentId === one.documentId ? [one] : [{ ...one, documentId }]);
    },
    links: (markdown) =>
      withReferences(markdown, (reference) => {
        if (reference.type === 'passage') return { ...reference, ...(passageNow(reference) ?? reference) };
        return { ...reference, id: idNow(reference.type, reference.id) ?? reference.id };
      }),
  };
}

/** Remembers what is gone by name: in the field `gone` of what asks, or of the question or scope a record holds. */
function withNames<T>(value: T, names: ReadonlyMap<Id, string>): T {
  for (const field of ['question', 'scope'] as const) {
    const asked = (value as Readonly<Partial<Record<typeof field, object>>>)[field];
    if (!asked) continue;
    const now = withNames(asked, names);
    return now === asked ? value : { ...value, [field]: now };
  }
  const { gone: known = {} } = value as { readonly gone?: Readonly<Record<Id, string>> };
  const fresh = [...names].filter(([id, name]) => name !== '' && !Object.hasOwn(known, id));
  return fresh.length === 0 ? value : { ...value, gone: { ...known, ...Object.fromEntries(fresh) } };
}
