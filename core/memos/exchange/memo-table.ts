import type { Id } from '../../model/ids';
import type { Memo, MemoSubject } from '../../model/memo';
import type { StudyState } from '../../model/study-state';
import { unguarded } from '../../formats/csv/formula-guard';
import type { Table } from '../../formats/table/table';
import { nameOfSubject } from '../name-of-subject';
import { addressOf, referenceOf } from '../../model/address';
import { subjectsOf } from '../references';
import { PLAIN, type ListedMemo } from './listed-memo';

/**
 * Memos as a table, headings first, one row an entry; entries with the same number are of one memo. Texts are Markdown;
 * times are in ISO 8601, UTC; links are addresses within the study.
 */
export function memoTable(state: Pick<StudyState, 'tables' | 'passages'>, memos: readonly Memo[]): (string | number)[][] {
  const iso = (time: number): string => new Date(time).toISOString();
  const coder = (id: Id): string => state.tables.coder[id]?.name ?? '';
  return [
    ['title', 'kind', 'tags', 'about', 'question', 'written', 'by', 'edited', 'text', 'state', 'links', 'number'],
    ...memos.flatMap((memo, at) => {
      const subjects = subjectsOf(memo);
      const head = [
        memo.title,
        memo.kind,
        joinWords(memo.tags ?? []),
        subjects.map((subject) => nameOfSubject(state, subject) ?? 'something that is gone').join('; '),
        memo.question ?? '',
      ];
      const tail = [
        [memo.pinned ? 'pinned' : '', memo.archived ? 'put away' : ''].filter(Boolean).join(', '),
        subjects.map(addressOf).join(' '),
        at + 1,
      ];
      const entries = memo.entries.length > 0 ? memo.entries : [null];
      return entries.map((entry) => [
        ...head,
        entry ? iso(entry.writtenAt) : iso(memo.createdAt),
        entry ? coder(entry.coderId) : '',
        entry?.editedAt ? iso(entry.editedAt) : '',
        entry?.text ?? '',
        ...tail,
      ]);
    }),
  ];
}

/** Reads memos from a table with headings like title, kind, tags, written, text. @throws RangeError where no column holds the text */
export function memosFromTable({ header, rows, encoding }: Pick<Table, 'header' | 'rows' | 'encoding'>, source: string): ListedMemo[] {
  const taken = new Set<number>();
  const at = (words: RegExp): number => {
    const column = header.findIndex((heading, column) => !taken.has(column) && words.test(heading));
    if (column >= 0) taken.add(column);
    return column;
  };
  const columns = {
    title: at(/title|name|subject|heading/i),
    kind: at(/kind|type/i),
    tags: at(/tag|keyword/i),
    number: at(/^number$/i),
    links: at(/^links$/i),
    state: at(/^state$/i),
    question: at(/question/i),
    by: at(/^by$|author|coder/i),
    edited: at(/edited|changed/i),
    text: at(/text|memo|content|body|note/i),
    date: at(/written|date|created|time/i),
  };
  if (columns.text < 0) throw new RangeError('No column holds the text. Call one of them “text”.');
  return rows.flatMap((row, number): ListedMemo[] => {
    const raw = (column: number): string => (column < 0 ? '' : (row[column] ?? '').trim());
    const cell = (column: number): string => (encoding === null ? raw(column) : unguarded(raw(column)));
    const time = (column: number): number | null => {
      const read = Date.parse(cell(column));
      return Number.isFinite(read) && read >= 0 ? read : null;
    };
    const text = cell(columns.text);
    const title = cell(columns.title) || text.split(/\s+/).slice(0, 8).join(' ');
    if (!title) return [];
    const question = cell(columns.question);
    return [
      {
        ...PLAIN,
        title: title.slice(0, 500),
        kind: cell(columns.kind) || PLAIN.kind,
        tags: splitWords(cell(columns.tags)),
        text,
        writtenAt: time(columns.date),
        source: `${source}, row ${number + 2}`,
        memo: cell(columns.number) || null,
        editedAt: time(columns.edited),
        by: cell(columns.by),
        question: question === 'open' || question === 'answered' ? question : null,
        pinned: cell(columns.state).includes('pinned'),
        archived: cell(columns.state).includes('put away'),
        links: linksIn(cell(columns.links)),
      },
    ];
  });
}

/** Addresses of things in a study, with blanks between. */
export const linksIn = (text: string): MemoSubject[] =>
  text.split(/\s+/).flatMap((address): MemoSubject[] => {
    const reference = referenceOf(address);
    return reference && reference.type !== 'memo' ? [reference] : [];
  });

/** Words in one cell, with semicolons between; one that holds a semicolon, a comma or a quotation mark is quoted. */
const joinWords = (words: readonly string[]): string =>
  words.map((word) => (/[;,"]|^\s|\s$/.test(word) ? `"${word.replaceAll('"', '""')}"` : word)).join('; ');

const splitWords = (cell: string): string[] =>
  Array.from(cell.matchAll(/\s*(?:"((?:[^"]|"")*)"|([^;,]*))\s*(?:[;,]|$)/g), ([, quoted, plain]) =>
    quoted === undefined ? (plain ?? '').trim() : quoted.replaceAll('""', '"'),
  ).filter(Boolean);
