import { added, type Change } from '../change/change';
import type { AskedQuestion } from '../model/asked-question';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { DraftParagraph } from '../text/draft-text';
import { answersOf, composeImport, type TextChoices } from './compose-import';

/** A text to be stored: what was read is known by its key. */
export interface TextToStore {
  readonly key: number;
  readonly document: Pick<Document, 'id' | 'title' | 'kind' | 'date' | 'folderId' | 'values' | 'source' | 'belongsTo' | 'seen'>;
  /** The file whose pages are seen beside it. */
  readonly file?: Blob;
  readonly choices: TextChoices;
  /** The study's question for each one found, or null. */
  readonly questionIds: readonly (AskedQuestion['id'] | null)[];
}

/** A recording or a picture to be stored. */
export interface MediaToStore {
  readonly document: Pick<Document, 'id' | 'title' | 'kind' | 'date' | 'folderId' | 'values' | 'source'> & {
    readonly ground: Exclude<Document['ground'], { of: 'text' }>;
  };
  /** Its bytes; null where they stay where they are. */
  readonly file: Blob | null;
}

/** The documents of recordings and pictures that come in. */
export const changeOfMedia = (items: readonly MediaToStore[], now: number): Change =>
  items.map(({ document }) =>
    added('document', { ...document, description: '', speakers: [], characters: 0, words: 0, answers: [], createdAt: now }),
  );

const NOTHING_YET: Text['paragraphs'][number] = { start: 0, body: 0, end: 0, speaker: -1, style: 'body' };

/** Composes the documents and texts that come in. @param read the paragraphs by key */
export function changeOfTexts(items: readonly TextToStore[], read: (key: number) => readonly DraftParagraph[], now: number): Change {
  return items.flatMap((item) => {
    const composed = composeImport(item.document.id, read(item.key), item.choices);
    const document: Document = {
      ...item.document,
      ground: { of: 'text' },
      description: '',
      speakers: composed.speakers,
      characters: composed.text.text.length,
      words: composed.words,
      answers: answersOf(composed, item.questionIds),
      createdAt: now,
    };
    // a text always has a paragraph, where nobody has written anything yet as well
    const paragraphs = composed.text.paragraphs.length > 0 ? composed.text.paragraphs : [NOTHING_YET];
    return [added('document', document), added('text', { ...composed.text, paragraphs })];
  });
}

/** Folders for the subfolders that files lie in, made where they are missing. */
export function folderFor(
  path: string,
  top: Id | null,
  known: readonly { id: Id; name: string; parentId: Id | null }[],
  made: { id: Id; name: string; parentId: Id | null }[],
  newId: () => Id,
): Id | null {
  let parentId = top;
  for (const name of path.split('/').filter(Boolean)) {
    const short = name.slice(0, 500);
    let folder = [...known, ...made].find((one) => one.parentId === parentId && one.name === short);
    if (!folder) made.push((folder = { id: newId(), name: short, parentId }));
    parentId = folder.id;
  }
  return parentId;
}
