import { compareValues, showValue } from '@core/attributes/values';
import { attributesOf } from '@core/commands/attributes';
import { subjectsOf } from '@core/memos/references';
import type { Attribute, Case } from '@core/model/case';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { PassageColumns } from '@core/model/passage-columns';
import type { StudyState } from '@core/model/study-state';
import { codesCarried } from '@core/passages/left-in';
import { passageCount } from '@core/passages/columns';
import { coveredOf, shareCovered } from '@core/passages/covered';

/** A document with what the table says of it. */
export interface Row {
  readonly document: Document;
  readonly cases: readonly Case[];
  readonly passages: number;
  readonly codes: number;
  readonly memos: number;
  /** Share of the characters that lie in a passage, 0 to 1. */
  readonly coded: number;
  /** ms since 1970, or null. */
  readonly readAt: number | null;
}

/** A column of the document table. */
export interface TableColumn {
  readonly key: string;
  readonly name: string;
  readonly width: string;
  readonly isNumber: boolean;
  readonly text: (row: Row) => string;
  readonly compare: (a: Row, b: Row) => number;
}

const COLLATOR = new Intl.Collator(undefined, { numeric: true });
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });
const number = (key: string, name: string, of: (row: Row) => number): TableColumn => ({
  key,
  name,
  width: '84px',
  isNumber: true,
  text: (row) => (of(row) ? of(row).toLocaleString() : '–'),
  compare: (a, b) => of(a) - of(b),
});
const words = (key: string, name: string, width: string, of: (row: Row) => string): TableColumn => ({
  key,
  name,
  width,
  isNumber: false,
  text: of,
  compare: (a, b) => COLLATOR.compare(of(a), of(b)),
});

/** All columns that a study's documents can be shown with; the title is always there. */
export function columnsFor(state: StudyState, caseHeading: string): TableColumn[] {
  const ofAttribute = (attribute: Attribute): TableColumn => {
    const valueOf = (row: Row) =>
      attribute.of === 'document'
        ? row.document.values[attribute.id]
        : row.cases.map((one) => one.values[attribute.id]).find((value) => value !== undefined);
    return {
      key: `attribute ${attribute.id}`,
      name: attribute.name,
      width: '110px',
      isNumber: attribute.type === 'number',
      text: (row) => showValue(valueOf(row)) || '–',
      compare: (a, b) => compareValues(attribute, valueOf(a), valueOf(b)),
    };
  };
  return [
    words('kind', 'Kind', '116px', (row) => row.document.kind),
    {
      ...words('date', 'Date', '96px', (row) => (row.document.date ? DAY.format(Date.parse(row.document.date)) : '')),
      compare: (a, b) => COLLATOR.compare(a.document.date ?? '', b.document.date ?? ''),
    },
    words('folder', 'Folder', '120px', (row) => state.tables.folder[row.document.folderId ?? '']?.name ?? ''),
    words('case', caseHeading, 'minmax(60px, 170px)', (row) => row.cases.map((one) => one.name).join(', ')),
    number('words', 'Words', (row) => row.document.words),
    number('passages', 'Passages', (row) => row.passages),
    number('codes', 'Codes', (row) => row.codes),
    {
      ...number('coded', 'Coded', (row) => row.coded),
      text: (row) => (row.coded === 0 ? '–' : row.coded < 0.005 ? '< 1 %' : `${Math.round(row.coded * 100)} %`),
    },
    number('memos', 'Memos', (row) => row.memos),
    { ...number('read', 'Last read', (row) => row.readAt ?? 0), width: '96px', text: (row) => (row.readAt ? DAY.format(row.readAt) : '–') },
    ...attributesOf(state, 'document').map(ofAttribute),
    ...attributesOf(state, 'case').map(ofAttribute),
  ];
}

/** What the table says of documents. Passages are only unpacked where they have changed since they were asked for last. */
export function rowsOf(state: StudyState, documents: readonly Document[], readAt: (id: Id) => number | null): Row[] {
  const owners = new Map<Id, Case[]>();
  const own = (id: Id, one: Case): void => {
    const some = owners.get(id);
    if (!some) owners.set(id, [one]);
    else if (!some.includes(one)) some.push(one);
  };
  for (const one of Object.values(state.tables.case)) {
    for (const id of one.documentIds) own(id, one);
    for (const { documentId } of one.stretches) own(documentId, one);
  }
  const memos = new Map<Id, number>();
  for (const memo of Object.values(state.tables.memo)) {
    const here = subjectsOf(memo).map((one) => (one.type === 'document' ? one.id : one.type === 'passage' ? one.documentId : null));
    for (const id of new Set(here)) if (id) memos.set(id, (memos.get(id) ?? 0) + 1);
  }
  return documents.map((document): Row => {
    const columns = state.passages[document.id];
    return {
      document,
      cases: owners.get(document.id) ?? [],
      passages: columns ? passageCount(columns) : 0,
      codes: columns ? codesCarried(columns) : 0,
      memos: memos.get(document.id) ?? 0,
      coded: columns ? codedShare(document, columns) : 0,
      readAt: readAt(document.id),
    };
  });
}

const shares = new WeakMap<object, number>();

function codedShare(document: Document, columns: PassageColumns): number {
  let share = shares.get(columns);
  if (share === undefined) shares.set(columns, (share = shareCovered(coveredOf(document, columns))));
  return share;
}
