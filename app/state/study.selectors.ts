import { createSelector } from '@ngrx/store';
import { inTreeOrder, type TreeRow } from '@core/codebook/tree';
import type { Code } from '@core/model/code';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { StudyState, Table } from '@core/model/study-state';
import type { PassageColumns } from '@core/model/passage-columns';
import type { Narrowing } from '@core/queries/narrowing';
import { naturalOrder } from '@core/text/natural-order';
import { narrowingOf, type ScopeTables } from './narrowing-here';
import { studyFeature } from './study.reducer';

export const {
  selectData,
  selectHistory,
  selectRole,
  selectSave,
  selectBackup,
  selectScope,
  selectSpoken,
  selectAnswered,
  selectRecentCodeIds,
} = studyFeature;

const NONE: Table<never> = {};
const tables = (data: StudyState | null) => data?.tables;

export const selectStudy = createSelector(selectData, (data) => data?.study ?? null);
export const selectCodes = createSelector(selectData, (data): Table<Code> => tables(data)?.code ?? NONE);
export const selectDocuments = createSelector(selectData, (data): Table<Document> => tables(data)?.document ?? NONE);
export const selectFolders = createSelector(selectData, (data) => tables(data)?.folder ?? NONE);
export const selectCases = createSelector(selectData, (data) => tables(data)?.case ?? NONE);
export const selectCoders = createSelector(selectData, (data) => tables(data)?.coder ?? NONE);
export const selectMemos = createSelector(selectData, (data) => tables(data)?.memo ?? NONE);
export const selectPatterns = createSelector(selectData, (data) => tables(data)?.pattern ?? NONE);
export const selectQueries = createSelector(selectData, (data) => tables(data)?.query ?? NONE);
export const selectGlosses = createSelector(selectData, (data) => tables(data)?.gloss ?? NONE);
export const selectSets = createSelector(selectData, (data) => tables(data)?.set ?? NONE);
export const selectSortings = createSelector(selectData, (data) => tables(data)?.sorting ?? NONE);
export const selectRelations = createSelector(selectData, (data) => tables(data)?.relation ?? NONE);
export const selectProposals = createSelector(selectData, (data) => tables(data)?.proposal ?? NONE);
export const selectLogEntries = createSelector(selectData, (data) => tables(data)?.logEntry ?? NONE);
export const selectCodeSets = createSelector(selectData, (data) => tables(data)?.codeSet ?? NONE);
export const selectPassages = createSelector(selectData, (data) => data?.passages ?? NONE);

/** What sets of documents and cases are read from. */
export const selectSetsIn = createSelector(
  selectData,
  selectAnswered,
  (data, { found }) => data && { tables: data.tables, answered: found },
);

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

/** What everything is looking at, made ready. It stays the same as long as nothing it depends on changes. */
export const selectNarrowing = createSelector(
  createSelector(selectData, (data) => data?.tables.attribute ?? NONE),
  selectCases,
  selectFolders,
  createSelector(selectData, (data) => data?.tables.set ?? NONE),
  selectDocuments,
  selectScope,
  selectAnswered,
  (attribute, cases, folder, set, documents, scope, { found }): Narrowing =>
    narrowingOf(scope, { attribute, case: cases, folder, set } as ScopeTables, documents, found),
);

/** The documents in scope, in their usual order. */
export const selectScopedDocuments = createSelector(
  selectSortedDocuments,
  selectNarrowing,
  selectSpoken,
  (documents, narrowing, spoken): Document[] => documents.filter((document) => narrowing.holds(document, spoken[document.id] ?? null)),
);

/** The passages in scope, by document. */
export const selectScopedPassages = createSelector(
  selectPassages,
  selectDocuments,
  selectNarrowing,
  selectSpoken,
  (passages, documents, narrowing, spoken): StudyState['passages'] => {
    if (narrowing.isEverything) return passages;
    const own: Record<Id, PassageColumns> = {};
    for (const columns of Object.values(passages)) {
      const document = documents[columns.documentId];
      const left = document && narrowing.leftOf(columns, document, spoken[document.id] ?? null);
      if (left) own[columns.documentId] = left;
    }
    return own;
  },
);

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
