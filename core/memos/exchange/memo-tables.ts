import type { Id } from '../../model/ids';
import type { Memo } from '../../model/memo';
import type { StudyState } from '../../model/study-state';
import { subjectsOf } from '../references';
import type { MemoSubject } from '../../model/memo';

/** What a subject is called, or null if it is gone. */
export function nameOfSubject(state: Pick<StudyState, 'tables' | 'passages'>, subject: MemoSubject): string | null {
  const { tables } = state;
  switch (subject.type) {
    case 'code':
      return tables.code[subject.id]?.name ?? null;
    case 'document':
      return tables.document[subject.id]?.title ?? null;
    case 'case':
      return tables.case[subject.id]?.name ?? null;
    case 'query':
      return tables.query[subject.id]?.name ?? null;
    case 'passage':
      return state.passages[subject.documentId]?.ids.includes(subject.id)
        ? `a passage in ${tables.document[subject.documentId]?.title ?? ''}`
        : null;
  }
}

/** Memos as a table, headings first, one row an entry. Texts are Markdown; times are in ISO 8601, UTC. */
export function memoTable(state: Pick<StudyState, 'tables' | 'passages'>, memos: readonly Memo[]): string[][] {
  const iso = (time: number): string => new Date(time).toISOString();
  const coder = (id: Id): string => state.tables.coder[id]?.name ?? '';
  return [
    ['title', 'kind', 'tags', 'about', 'question', 'written', 'by', 'edited', 'text'],
    ...memos.flatMap((memo) => {
      const head = [
        memo.title,
        memo.kind,
        (memo.tags ?? []).join('; '),
        subjectsOf(memo)
          .map((subject) => nameOfSubject(state, subject) ?? 'something that is gone')
          .join('; '),
        memo.question ?? '',
      ];
      const entries = memo.entries.length > 0 ? memo.entries : [null];
      return entries.map((entry) => [
        ...head,
        entry ? iso(entry.writtenAt) : iso(memo.createdAt),
        entry ? coder(entry.coderId) : '',
        entry?.editedAt ? iso(entry.editedAt) : '',
        entry?.text ?? '',
      ]);
    }),
  ];
}

/** Memos as one text in Markdown, to be read on end: a heading a memo, a smaller one a date. */
export function memosMarkdown(state: Pick<StudyState, 'tables' | 'passages'>, memos: readonly Memo[]): string {
  return memos
    .map((memo) => {
      const about = subjectsOf(memo).map((subject) => nameOfSubject(state, subject) ?? 'something that is gone');
      const signs = [
        memo.kind,
        ...(memo.tags ?? []).map((tag) => `#${tag.replace(/\s+/g, '-')}`),
        ...(about.length > 0 ? [`about ${about.join(', ')}`] : []),
      ];
      const entries = memo.entries.map((entry) => {
        const by = state.tables.coder[entry.coderId]?.name;
        return `## ${new Date(entry.writtenAt).toISOString().slice(0, 10)}${by ? `, ${by}` : ''}${entry.editedAt ? ' (edited later)' : ''}\n\n${entry.text}`;
      });
      return [`# ${memo.title}`, `*${signs.join(' · ')}*`, ...entries].join('\n\n');
    })
    .join('\n\n---\n\n');
}

/** A memo as some file has it, before it is taken in. */
export interface ListedMemo {
  readonly title: string;
  readonly kind: string;
  readonly tags: readonly string[];
  readonly text: string;
  /** ms since 1970; null where the file does not say. */
  readonly writtenAt: number | null;
  readonly source: string;
}

/** Reads memos from a table with headings like title, kind, tags, written, text. @throws RangeError where no column holds the text */
export function memosFromTable(header: readonly string[], rows: readonly (readonly string[])[], source: string): ListedMemo[] {
  const at = (words: RegExp): number => header.findIndex((heading) => words.test(heading));
  const columns = {
    title: at(/title|name|subject|heading/i),
    kind: at(/kind|type/i),
    tags: at(/tag|keyword/i),
    text: at(/text|memo|content|body|note/i),
    date: at(/written|date|created|time/i),
  };
  if (columns.text < 0) throw new RangeError('No column holds the text. Call one of them “text”.');
  return rows.flatMap((row, number) => {
    const cell = (column: number): string => (column < 0 ? '' : (row[column] ?? '').trim()).replace(/^'(?=[=+\-@])/, '');
    const text = cell(columns.text);
    const title = cell(columns.title) || text.split(/\s+/).slice(0, 8).join(' ');
    if (!title) return [];
    const time = Date.parse(cell(columns.date));
    return [
      {
        title: title.slice(0, 500),
        kind: cell(columns.kind) || 'analytic',
        tags: cell(columns.tags)
          .split(/\s*[;,]\s*/)
          .filter(Boolean),
        text,
        writtenAt: Number.isFinite(time) && time >= 0 ? time : null,
        source: `${source}, row ${number + 2}`,
      },
    ];
  });
}

/** Reads a memo from a Markdown file: its first heading is the title, or else its name. */
export function memoFromMarkdown(name: string, raw: string, changedAt: number | null): ListedMemo {
  const text = raw
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .replace(/^---\n[\s\S]*?\n---\n/, '')
    .trim();
  const heading = /^#\s+(.+)$/m.exec(text.split('\n')[0] ?? '')?.[1]?.trim();
  const title = heading || name.replace(/^.*[/\\]/, '').replace(/\.[^.]*$/, '') || 'A memo';
  return {
    title: title.slice(0, 500),
    kind: 'analytic',
    tags: [],
    text: heading ? text.slice(text.indexOf('\n') < 0 ? text.length : text.indexOf('\n')).trim() : text,
    writtenAt: changedAt,
    source: name,
  };
}
