import { hasText, lengthOf, type Document, type Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { tidyLine } from '../text/normalise';
import { added, removed, updated, type Change } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { passagesOf } from './passages';

/** A document with its text; null where its ground is none. */
export interface NewDocument {
  readonly document: Document;
  readonly text: Text | null;
}

/** Brings documents with their texts into the study, as one step. */
export function addDocuments(documents: readonly NewDocument[]): Command {
  return (state) => {
    if (documents.length === 0) return null;
    const [first] = documents;
    const owners = new Map([
      ...Object.entries(state.tables.document),
      ...documents.map(({ document }) => [document.id, document] as const),
    ]);
    for (const { document, text } of documents) {
      if (hasText(document) !== (text !== null)) throw new CommandError(`${short(document.title)} came without what it consists of.`);
      if (document.belongsTo !== undefined && owners.get(document.belongsTo)?.belongsTo !== undefined)
        throw new CommandError(`${short(document.title)} would belong to what belongs to another itself.`);
    }
    const what = documents.length === 1 ? short(first!.document.title) : counted(documents.length, 'document');
    return {
      change: documents.flatMap(({ document, text }) => [added('document', document), ...(text ? [added('text', text)] : [])]),
      sentence: `brought in ${what}`,
    };
  };
}

/** Changes a document's title, kind, date, folder or description. */
export function editDocument(
  documentId: Id,
  fields: Partial<Pick<Document, 'title' | 'kind' | 'date' | 'folderId' | 'description'>>,
): Command {
  return (state) => {
    const document = found(state.tables.document[documentId], 'document');
    const next = { ...fields };
    if (next.title !== undefined) next.title = nameOf(next.title, 'document');
    const keys = (Object.keys(next) as (keyof typeof next)[]).filter((key) => next[key] !== document[key]);
    if (keys.length === 0) return null;
    const sentence = keys.includes('title')
      ? `renamed ${short(document.title)} to ${short(next.title!)}`
      : `changed the ${keys.map((key) => (key === 'folderId' ? 'folder' : key)).join(', ')} of ${short(document.title)}`;
    return { change: [updated('document', document, next)], sentence };
  };
}

/** Notes up to where a document is read or heard. @param position in characters or milliseconds, or null for not begun */
export function markRead(documentId: Id, position: number | null): Command {
  return (state) => {
    const document = found(state.tables.document[documentId], 'document');
    if (document.ground.of === 'picture')
      throw new CommandError(`${short(document.title)} has no beginning and end: it cannot be read up to a place.`);
    const length = lengthOf(document);
    const readTo = position === null ? undefined : Math.max(0, Math.min(position, length));
    if (document.readTo === readTo) return null;
    const { readTo: _readTo, ...bare } = document;
    const after = readTo === undefined ? bare : { ...bare, readTo };
    const share = Math.round((100 * (readTo ?? 0)) / Math.max(1, length));
    return {
      change: [{ type: 'document', before: document, after }],
      sentence: readTo === undefined ? `marked ${short(document.title)} as not read` : `read ${short(document.title)} up to ${share} %`,
    };
  };
}

/** Keeps where idea-units begin; null goes back to none of the researcher's own. @param starts ascending, the first at 0 */
export function setUnits(documentId: Id, starts: readonly number[] | null): Command {
  return (state) => {
    const document = found(state.tables.document[documentId], 'document');
    if (!hasText(document)) throw new CommandError(`${short(document.title)} has no text that could be divided into units.`);
    const { units, ...bare } = document;
    if ((units ?? []).join() === (starts ?? []).join()) return null;
    const title = short(document.title);
    const [before, now] = [units?.length ?? 0, starts?.length ?? 0];
    return {
      change: [{ type: 'document', before: document, after: starts ? { ...bare, units: [...starts] } : bare }],
      sentence:
        starts === null
          ? `put the units of ${title} back`
          : now > before && units
            ? `divided a unit of ${title}`
            : now < before
              ? `joined two units of ${title}`
              : `began idea-units in ${title}`,
    };
  };
}

/** What deleting documents takes away, to be named before it is done. */
export interface DocumentToll {
  readonly documents: number;
  readonly passages: number;
  readonly codings: number;
}

/** Counts what {@link deleteDocuments} would take away. */
export function documentToll(state: StudyState, documentIds: readonly Id[]): DocumentToll {
  const passages = documentIds.flatMap((id) => passagesOf(state, id));
  return {
    documents: documentIds.length,
    passages: passages.length,
    codings: passages.reduce((sum, passage) => sum + passage.codings.length, 0),
  };
}

/** Deletes documents with their passages. @param texts of those that have one, for undo: without it they are not deleted */
export function deleteDocuments(documentIds: readonly Id[], texts: readonly Text[]): Command {
  return (state) => {
    const ids = new Set(documentIds);
    const documents = [...ids].map((id) => found(state.tables.document[id], 'document'));
    if (documents.length === 0) return null;
    const missing = documents.find((document) => hasText(document) && !texts.some((text) => text.id === document.id));
    if (missing) throw new CommandError(`The text of ${short(missing.title)} could not be read. Nothing was deleted.`);
    const change: Change = [
      ...documents.flatMap((document) => passagesOf(state, document.id).map((passage) => removed('passage', passage))),
      ...texts.filter((text) => ids.has(text.id)).map((text) => removed('text', text)),
      ...documents.map((document) => removed('document', document)),
    ];
    return {
      change,
      sentence: `deleted ${documents.length === 1 ? short(documents[0]!.title) : counted(documents.length, 'document')} with ${counted(documentToll(state, [...ids]).passages, 'passage')}`,
    };
  };
}

/** Says what documents belong to: transcripts to their recording, descriptions to their picture; null for nothing. */
export function belongTo(documentIds: readonly Id[], toId: Id | null): Command {
  return (state) => {
    const { document } = state.tables;
    const documents = documentIds.map((id) => found(document[id], 'document')).filter((one) => one.belongsTo !== (toId ?? undefined));
    const to = toId === null ? null : found(document[toId], 'document');
    if (documents.length === 0) return null;
    if (to?.belongsTo !== undefined)
      throw new CommandError(`${short(to.title)} belongs to ${short(document[to.belongsTo]!.title)} itself. Choose that one.`);
    if (to && documents.some((one) => one.id === to.id)) throw new CommandError('A document cannot belong to itself.');
    const owner = to && Object.values(document).find((one) => documents.some(({ id }) => one.belongsTo === id));
    if (owner)
      throw new CommandError(`${short(owner.title)} belongs to ${short(document[owner.belongsTo!]!.title)}, which must stand by itself.`);
    const what = documents.length === 1 ? short(documents[0]!.title) : counted(documents.length, 'document');
    return {
      change: documents.map(({ belongsTo: _, ...rest }) => ({
        type: 'document' as const,
        before: document[rest.id]!,
        after: { ...rest, ...(to && { belongsTo: to.id }) },
      })),
      sentence: to ? `said that ${what} belongs to ${short(to.title)}` : `let ${what} stand by itself`,
    };
  };
}

/** Makes a folder. */
export function addFolder(name: string, parentId: Id | null = null, id?: Id): Command {
  return (_state, context) => {
    const folder = { id: id ?? context.newId(), name: nameOf(name, 'folder'), parentId };
    return { change: [added('folder', folder)], sentence: `made the folder ${short(folder.name)}` };
  };
}

/** Renames a folder. */
export function renameFolder(folderId: Id, name: string): Command {
  return (state) => {
    const folder = found(state.tables.folder[folderId], 'folder');
    const next = nameOf(name, 'folder');
    return next === folder.name
      ? null
      : { change: [updated('folder', folder, { name: next })], sentence: `renamed the folder ${short(folder.name)} to ${short(next)}` };
  };
}

/** Moves documents into a folder, or out of all folders with null. */
export function moveDocuments(documentIds: readonly Id[], folderId: Id | null): Command {
  return (state) => {
    const folder = folderId ? found(state.tables.folder[folderId], 'folder').name : 'no folder';
    const moved = documentIds
      .map((id) => found(state.tables.document[id], 'document'))
      .filter((document) => document.folderId !== folderId);
    if (moved.length === 0) return null;
    return {
      change: moved.map((document) => updated('document', document, { folderId })),
      sentence: `moved ${counted(moved.length, 'document')} to ${short(folder)}`,
    };
  };
}

/** Says of documents what kind they are, as one step. */
export function setKindOf(documentIds: readonly Id[], kind: Document['kind']): Command {
  return (state) => {
    const changed = documentIds.map((id) => found(state.tables.document[id], 'document')).filter((document) => document.kind !== kind);
    if (changed.length === 0) return null;
    const what = changed.length === 1 ? short(changed[0]!.title) : counted(changed.length, 'document');
    return { change: changed.map((document) => updated('document', document, { kind })), sentence: `made ${what} of the kind ${kind}` };
  };
}

/** Takes a folder away; what lies in it moves up to where the folder was. */
export function removeFolder(folderId: Id): Command {
  return (state) => {
    const folder = found(state.tables.folder[folderId], 'folder');
    return {
      change: [removed('folder', folder)],
      heirs: { records: { folder: new Map([[folderId, folder.parentId]]) } },
      sentence: `took away the folder ${short(folder.name)}`,
    };
  };
}

function nameOf(raw: string, what: string): string {
  const name = tidyLine(raw);
  if (!name) throw new CommandError(`A ${what} needs a name.`);
  return name;
}
