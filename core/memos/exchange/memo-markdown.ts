import type { Id } from '../../model/ids';
import type { Memo } from '../../model/memo';
import type { StudyState } from '../../model/study-state';
import { nameOfSubject } from '../name-of-subject';
import { addressOf } from '../../model/address';
import { subjectsOf } from '../references';
import type { ListedMemo } from './listed-memo';
import { PLAIN } from './listed-memo';
import { linksIn } from './memo-table';

/**
 * Memos as one text in Markdown, to be read on end: a heading a memo, a smaller one a date. What Markdown cannot say
 * stands in comments, which no reader of Markdown shows, so that {@link memosFromMarkdown} finds the same memos again.
 */
export function memosMarkdown(state: Pick<StudyState, 'tables' | 'passages'>, memos: readonly Memo[]): string {
  const coder = (id: Id): string => state.tables.coder[id]?.name ?? '';
  return memos
    .map((memo) => {
      const { title, kind, tags = [], question, pinned, archived } = memo;
      const about = subjectsOf(memo).map((subject) => nameOfSubject(state, subject) ?? 'something that is gone');
      const signs = [
        kind,
        ...tags.map((tag) => `#${tag.replace(/\s+/g, '-')}`),
        ...(about.length > 0 ? [`about ${about.join(', ')}`] : []),
      ];
      const links = subjectsOf(memo).map(addressOf).join(' ');
      const entries = memo.entries.map((entry) => {
        const by = coder(entry.coderId);
        const { writtenAt, editedAt } = entry;
        return [
          `## ${new Date(writtenAt).toISOString().slice(0, 10)}${by ? `, ${by}` : ''}${editedAt ? ' (edited later)' : ''}`,
          comment('entry', { writtenAt, editedAt, by }),
          entry.text.replace(COMMENT_LINES, String.raw`\$&`),
        ].join('\n\n');
      });
      const head = { title, kind, tags, question, pinned, archived, links, createdAt: memo.createdAt };
      return [`# ${title}`, comment('memo', head), `*${signs.join(' · ')}*`, ...entries].join('\n\n');
    })
    .join('\n\n---\n\n');
}

/** Lines of a text that would be taken for our comments. */
const COMMENT_LINES = /^\\*<!-- (?:memo|entry): /gm;
const MARK = /^<!-- (memo|entry): (\{.*\}) -->$/gm;

const comment = (what: string, value: object): string => `<!-- ${what}: ${JSON.stringify(value).replaceAll('>', String.raw`\u003e`)} -->`;

/** Reads the memos of a Markdown file: those that {@link memosMarkdown} wrote, or else the file as one memo, its first heading as the title. */
export function memosFromMarkdown(name: string, raw: string, changedAt: number | null): ListedMemo[] {
  const text = raw
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .replace(/^---\n[\s\S]*?\n---\n/, '')
    .trim();
  const marks = Array.from(text.matchAll(MARK), (match) => ({ match, what: match[1], said: parsed(match[2]!) }));
  if (!marks.some(({ what }) => what === 'memo')) return [wholeFile(name, text, changedAt)];
  const memos: ListedMemo[] = [];
  let head: ListedMemo | null = null;
  const flush = (): void => {
    // a memo without entries
    if (head && !memos.some((one) => one.memo === head!.memo)) memos.push(head);
  };
  marks.forEach(({ match, what, said }, at) => {
    if (what === 'memo') {
      flush();
      head = headOf(said, `${name}, memo ${at + 1}`, String(at));
    } else if (head) {
      const rest = text.slice(match.index + match[0].length, marks[at + 1]?.match.index);
      memos.push({
        ...head,
        text: entryText(rest, marks[at + 1]?.what),
        writtenAt: timeOf(said['writtenAt']),
        editedAt: timeOf(said['editedAt']),
        by: wordOf(said['by']),
      });
    }
  });
  flush();
  return memos;
}

/** The words of an entry: what follows its comment, without the headings of what comes next. */
function entryText(rest: string, next: string | undefined): string {
  const end = next === 'entry' ? rest.lastIndexOf('\n## ') : next === 'memo' ? rest.lastIndexOf('\n# ') : rest.length;
  const own = rest.slice(0, end < 0 ? rest.length : end);
  return (next === 'memo' ? own.trimEnd().replace(/\n\n---$/, '') : own).trim().replace(/^\\(?=\\*<!-- (?:memo|entry): )/gm, '');
}

function headOf(said: Readonly<Record<string, unknown>>, source: string, memo: string): ListedMemo {
  const { question, tags } = said;
  return {
    ...PLAIN,
    title: wordOf(said['title']).slice(0, 500) || 'A memo',
    kind: wordOf(said['kind']) || PLAIN.kind,
    tags: Array.isArray(tags) ? tags.filter((tag) => typeof tag === 'string') : [],
    text: '',
    writtenAt: timeOf(said['createdAt']),
    source,
    memo,
    question: question === 'open' || question === 'answered' ? question : null,
    pinned: said['pinned'] === true,
    archived: said['archived'] === true,
    links: linksIn(wordOf(said['links'])),
  };
}

const wordOf = (value: unknown): string => (typeof value === 'string' ? value : '');
const timeOf = (value: unknown): number | null =>
  Number.isInteger(value) && Number(value) >= 0 && Number(value) <= 8.64e15 ? Number(value) : null;

function parsed(json: string): Readonly<Record<string, unknown>> {
  try {
    return JSON.parse(json) as Record<string, unknown>;
  } catch {
    return {};
  }
}

function wholeFile(name: string, text: string, changedAt: number | null): ListedMemo {
  const heading = /^#\s+(.+)$/m.exec(text.split('\n')[0] ?? '')?.[1]?.trim();
  const title = heading || name.replace(/^.*[/\\]/, '').replace(/\.[^.]*$/, '') || 'A memo';
  return {
    ...PLAIN,
    title: title.slice(0, 500),
    text: heading ? text.slice(text.indexOf('\n') < 0 ? text.length : text.indexOf('\n')).trim() : text,
    writtenAt: changedAt,
    source: name,
  };
}
