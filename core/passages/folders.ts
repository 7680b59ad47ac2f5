import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Folder } from '../model/study';
import type { Table } from '../model/study-state';

/** A folder and all that lie in it, however deep. A loop in the tree ends the walk. */
export function withFoldersBelow(folders: Table<Folder>, folderId: Id): ReadonlySet<Id> {
  const within = new Set([folderId]);
  // a set goes on to what is added while it is walked
  for (const id of within) for (const folder of Object.values(folders)) if (folder.parentId === id) within.add(folder.id);
  return within;
}

/** Whether a document lies in a folder or below it, by {@link withFoldersBelow}. */
export const liesWithin = ({ folderId }: Pick<Document, 'folderId'>, within: ReadonlySet<Id>): boolean =>
  folderId !== null && within.has(folderId);
