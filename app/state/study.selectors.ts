import { liesWithin, withFoldersBelow } from '@core/passages/folders';
import { columnsOfCoder } from '@core/passages/by-coder';
import { createSelector } from '@ngrx/store';
import { inTreeOrder, type TreeRow } from '@core/codebook/tree';
import type { Code } from '@core/model/code';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { StudyState, Table } from '@core/model/study-state';
import type { PassageColumns } from '@core/model/passage-columns';
import type { Scope } from '@core/queries/evaluate';
import { documentsOfSet } from '@core/sets/members';
import { naturalOrder } from '@core/text/natural-order';
import { studyFeature, type ScopeState } from './study.reducer';

export const { selectData, selectHistory, selectRole, selectSave, selectBackup, selectScope, selectRecentCodeIds } = studyFeature;

const NONE: Table<never> = {};
const tables = (data: StudyState | null) => data?.tables;

export const selectStudy = createSelector(selectData, (data) => data?.study ?? null);
export const selectCodes = createSelector(selectData, (data): Table<Code> => tables(data)?.code ?? NONE);
export const selectDocuments = createSelector(selectData, (data): Table<Document> => tables(data)?.document ?? NONE);
export const selectFolders = createSelector(selectData, (data) => tables(data)?.folder ?? NONE);
export const selectCases = createSelector(selectData, (data) => tables(data)?.case ?? NONE);
export const selectCoders = createSelector(selectData, (data) => tables(data)?.coder ?? NONE);
export const selectMemos = createSelector(selectData, (data) => tables(data)?.memo ?? NONE);
export const selectQueries = createSelector(selectData, (data) => tables(data)?.query ?? NONE);
export const selectGlosses = createSelector(selectData, (data) => tables(data)?.gloss ?? NONE);
export const selectSets = createSelector(selectData, (data) => tables(data)?.set ?? NONE);
export const selectSortings = createSelector(selectData, (data) => tables(data)?.sorting ?? NONE);
export const selectRelations = createSelector(selectData, (data) => tables(data)?.relation ?? NONE);
export const selectProposals = createSelector(selectData, (data) => tables(data)?.proposal ?? NONE);
export const selectLogEntries = createSelector(selectData, (data) => tables(data)?.logEntry ?? NONE);
export const selectCodeSets = createSelector(selectData, (data) => tables(data)?.codeSet ?? NONE);
export const selectPassages = createSelector(selectData, (data) => data?.passages ?? NONE);

/** Documents by folder name, then by title, in natural number order. */
export const selectSortedDocuments = createSelector(selectDocuments, selectFolders, (documents, folders): Document[] => {
  const byFolder = new Map<Id | null, Document[]>();
  for (const document of Object.values(documents)) {
    const some = byFolder.get(document.folderId);
    if (some) some.push(document);
    else byFolder.set(document.folderId, [document]);
  }
  const groups = naturalOrder([...byFolder], ([id]) => (id ? (folders[id]?.name ?? '') : ''));
  return groups.flatMap(([, some]) => naturalOrder(some, (document) => document.title));
});

/** The documents of the set in scope, or null where the scope names none that is still there. */
const selectScopedSet = createSelector(
  createSelector(selectData, (data) => data?.tables),
  createSelector(selectScope, (scope) => scope.setId),
  (tables, setId): ReadonlySet<Id> | null => {
    const set = tables?.set[setId ?? ''];
    return tables && set ? documentsOfSet({ tables }, set) : null;
  },
);

/** The documents in scope, in their usual order. */
export const selectScopedDocuments = createSelector(
  selectSortedDocuments,
  selectFolders,
  selectScope,
  selectScopedSet,
  (documents, folders, scope: ScopeState, inSet): Document[] => {
    const under = scope.folderId ? withFoldersBelow(folders, scope.folderId) : null;
    return documents.filter(
      (document) =>
        (scope.kinds.length === 0 || scope.kinds.includes(document.kind)) &&
        (!inSet || inSet.has(document.id)) &&
        (!under || liesWithin(document, under)),
    );
  },
);

/** The scope as queries take it. */
export const selectQueryScope = createSelector(selectScopedDocuments, selectScope, (documents, scope): Scope => ({
  documentIds: new Set(documents.map((document) => document.id)),
  coderId: scope.coderId,
}));

/** The passages that the coder of the scope leaves, of all documents. */
export const selectCoderPassages = createSelector(selectPassages, selectScope, (passages, { coderId }): StudyState['passages'] => {
  if (coderId === null) return passages;
  const own: Record<Id, PassageColumns> = {};
  for (const columns of Object.values(passages)) {
    const left = columnsOfCoder(columns, coderId);
    if (left) own[columns.documentId] = left;
  }
  return own;
});

/** The codebook in the order of its tree. */
export const selectCodeRows = createSelector(selectCodes, (codes): TreeRow[] => inTreeOrder(codes));

/** The codes that are offered for coding: all but the retired. */
export const selectOfferedCodes = createSelector(selectCodes, (codes): Table<Code> =>
  Object.values(codes).some((code) => code.retired) ? Object.fromEntries(Object.entries(codes).filter(([, code]) => !code.retired)) : codes,
);

/** Whether everything done is on disk. */
export const selectAllSaved = createSelector(
  selectSave,
  selectHistory,
  (save, history) => save.through === history.seq && save.trouble === null,
);
