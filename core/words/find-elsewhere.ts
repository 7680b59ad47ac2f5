import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { StudyState } from '../model/study-state';
import { idOfRow } from '../passages/columns';
import type { WordHit } from './find-words';

/** What a study holds in writing beside its texts. */
export const WRITTEN_OF = ['memo', 'comment', 'code'] as const;

/** Something the researcher wrote: a memo, the comment at a passage, or what is said of a code. */
export interface Written {
  readonly of: (typeof WRITTEN_OF)[number];
  /** Of a memo or code its id, of a comment that of the passage. */
  readonly id: Id;
  /** Of a comment, the document its passage is in. */
  readonly documentId: Id | null;
  /** What it is called; of a comment the title of the document. */
  readonly title: string;
  readonly words: string;
}

/** A place in what somebody wrote. */
export interface FoundElsewhere extends Omit<Written, 'words'> {
  readonly before: string;
  readonly said: string;
  readonly after: string;
}

/** Places found, as many as are shown. */
export interface PlacesElsewhere {
  readonly places: readonly FoundElsewhere[];
  /** There are more than are shown. */
  readonly more?: true;
}

/** Characters that are shown on each side of what was found. */
const AROUND = 60;

/** Everything written beside the texts: memos with their titles, comments, and all that is said of codes. */
export function* writtenIn({ memo, code, document }: StudyState['tables'], passages: Iterable<PassageColumns>): Generator<Written> {
  for (const { id, title, entries } of Object.values(memo))
    yield { of: 'memo', id, documentId: null, title, words: [title, ...entries.map((entry) => entry.text)].join('\n') };
  for (const columns of passages)
    for (const { row, text } of columns.comments)
      yield {
        of: 'comment',
        id: idOfRow(columns, row),
        documentId: columns.documentId,
        title: document[columns.documentId]?.title ?? '',
        words: text,
      };
  for (const { id, name, definition, useWhen, doNotUseWhen, example, notes } of Object.values(code))
    yield {
      of: 'code',
      id,
      documentId: null,
      title: name,
      words: [name, definition, useWhen, doNotUseWhen, example, notes ?? ''].join('\n'),
    };
}

/** Looks for words in something written. @param find finds them in a text: `WordFinder` or `PatternFinder` */
export function foundIn({ words, ...rest }: Written, find: (text: Text) => readonly WordHit[]): FoundElsewhere[] {
  const text = asText(rest.id, words);
  return find(text).map(({ start, end }) => {
    const { start: from = 0, end: to = end } = text.paragraphs.findLast((one) => one.start <= start) ?? {};
    return {
      ...rest,
      before: words.slice(Math.max(from, start - AROUND), start),
      said: words.slice(start, end),
      after: words.slice(end, Math.min(Math.max(to, end), end + AROUND)),
    };
  });
}

/** Lines as the paragraphs of a text. */
function asText(id: Id, words: string): Text {
  let start = 0;
  const paragraphs = words.split('\n').map((line) => {
    const paragraph = { start, body: start, end: start + line.length, speaker: -1, style: 'body' as const };
    start += line.length + 1;
    return paragraph;
  });
  return { id, text: words, paragraphs, emphasis: [], marks: [] };
}
