import { readCaptions } from '../formats/timed/captions';
import { composeText } from '../text/draft-text';
import { rowsOf, type Area } from '../model/area';
import type { Document, PlaceMark, Text } from '../model/document';
import type { Id, NewId } from '../model/ids';
import type { Passage } from '../model/passage';
import type { Stretch } from '../model/stretch';

/** What is coded of a recording of the demo study: words of its transcript, and spans between two of its sentences. */
interface CodedWords {
  readonly words: string;
  readonly keys: readonly string[];
}
interface CodedSpan {
  readonly from: string;
  readonly to: string;
  readonly keys: readonly string[];
  readonly comment: string;
}

/** A recording of the demo study, as `demo/media/media.json` describes it. */
interface DemoRecording {
  readonly file: string;
  readonly title: string;
  readonly date: string;
  readonly milliseconds: number;
  readonly bytes: number;
  readonly sha256: string;
  readonly type: string;
  /** Title of the document that is its transcript, and the file with the times of its sentences. */
  readonly transcript: string;
  readonly captions: string;
  readonly words: readonly CodedWords[];
  readonly spans: readonly CodedSpan[];
}

/** A picture of the demo study, with what is coded of it and, where there is one, the description that belongs to it. */
interface DemoPicture {
  readonly file: string;
  readonly title: string;
  readonly date: string;
  readonly width: number;
  readonly height: number;
  readonly type: string;
  readonly bytes: number;
  readonly sha256: string;
  readonly areas: readonly { readonly area: Area; readonly keys: readonly string[]; readonly comment: string }[];
  readonly description?: string;
}

/** All media of the demo study. */
interface DemoMedia {
  readonly recordings: readonly DemoRecording[];
  readonly pictures: readonly DemoPicture[];
}

/** Where the recordings go. */
export interface DemoSoFar {
  readonly newId: NewId;
  readonly coderId: Id;
  readonly documents: Document[];
  readonly texts: Map<Id, Text>;
  readonly passages: Map<Id, Passage[]>;
  readonly source: (path: string) => string;
  readonly codeOf: (key: string) => Id;
}

/** Media files of the demo study, below `demo/`, by the SHA-256 of their bytes. @param described `media/media.json` */
export const demoMediaFiles = (described: string): ReadonlyMap<string, { readonly path: string; readonly type: string }> =>
  new Map(
    Object.values(JSON.parse(described) as DemoMedia).flatMap((some: readonly (DemoRecording | DemoPicture)[]) =>
      some.map(({ file, sha256, type }) => [sha256, { path: `media/${file}`, type }] as const),
    ),
  );

/**
 * Adds the recordings and pictures with what is coded of them; transcripts get times, and they and descriptions belong to
 * what they are of.
 * @param folderId where pictures lie
 */
export function addMedia(study: DemoSoFar, folderId: Id): void {
  const { recordings, pictures } = JSON.parse(study.source('media/media.json')) as DemoMedia;
  for (const one of recordings) addRecording(study, one);
  for (const one of pictures) addPicture(study, one, folderId);
}

function addPicture({ newId, coderId, documents, texts, passages, codeOf }: DemoSoFar, one: DemoPicture, folderId: Id): void {
  const createdAt = Date.parse(one.date) + 18 * 3_600_000;
  const { sha256, bytes, type, width, height } = one;
  const common = { date: one.date, folderId, description: '', speakers: [], source: null, values: {}, answers: [], createdAt };
  const picture: Document = {
    ...common,
    id: newId(),
    title: one.title,
    ground: { of: 'picture', width, height, media: { sha256, bytes, type } },
    kind: 'picture',
    characters: 0,
    words: 0,
  };
  documents.push(picture);
  passages.set(
    picture.id,
    one.areas.map(({ area, keys, comment }): Passage => ({
      id: newId(),
      documentId: picture.id,
      ...rowsOf(area),
      area,
      comment,
      coderId,
      createdAt,
      codings: keys.map((key) => ({ codeId: codeOf(key), coderId, createdAt })),
    })),
  );
  if (!one.description) return;
  const id = newId();
  const { text, words } = composeText(id, [{ text: one.description, style: 'body', emphasis: [] }], () => null);
  texts.set(id, text);
  const title = `${one.title}, described`;
  documents.push({
    ...common,
    id,
    title,
    ground: { of: 'text' },
    belongsTo: picture.id,
    kind: 'field note',
    characters: text.text.length,
    words,
  });
}

function addRecording({ newId, coderId, documents, texts, passages, source, codeOf }: DemoSoFar, one: DemoRecording): void {
  const at = documents.findIndex((document) => document.title === one.transcript);
  const transcript = documents[at]!;
  const text = texts.get(transcript.id)!;
  const sentences = timed(text, source(`media/${one.captions}`));
  const createdAt = Date.parse(one.date) + 18 * 3_600_000;
  const { sha256, bytes, type, milliseconds } = one;
  const recording: Document = {
    ...transcript,
    id: newId(),
    title: one.title,
    ground: { of: 'time', milliseconds, media: { sha256, bytes, type } },
    kind: 'recording',
    date: one.date,
    speakers: [],
    characters: 0,
    words: 0,
    answers: [],
    createdAt,
  };
  documents.push(recording);
  documents[at] = { ...transcript, date: one.date, belongsTo: recording.id };
  texts.set(text.id, { ...text, marks: marksOf(sentences) });
  const passage = (documentId: Id, { start, end }: Stretch, keys: readonly string[], comment = ''): Passage => ({
    id: newId(),
    documentId,
    start,
    end,
    comment,
    coderId,
    createdAt,
    codings: keys.map((key) => ({ codeId: codeOf(key), coderId, createdAt })),
  });
  passages.set(
    text.id,
    one.words.map(({ words, keys }) => {
      const start = text.text.indexOf(words);
      if (start < 0) throw new Error(`“${words}” is not said in ${one.transcript}.`);
      return passage(text.id, { start, end: start + words.length }, keys);
    }),
  );
  passages.set(
    recording.id,
    one.spans.map(({ from, to, keys, comment }) => {
      const first = sentences.find((sentence) => sentence.words.startsWith(from));
      const last = sentences.find((sentence) => sentence.words.endsWith(to));
      if (!first || !last) throw new Error(`“${from}” to “${to}” is no span of ${one.title}.`);
      return passage(recording.id, { start: first.time.start, end: last.time.end }, keys, comment);
    }),
  );
}

/** A sentence: where it stands in the text, and when it is heard. */
interface Sentence extends Stretch {
  readonly words: string;
  readonly time: Stretch;
}

/** The sentences of captions, found one after another in a text. */
function timed(text: Text, captions: string): Sentence[] {
  let from = 0;
  return readCaptions(captions).captions.map(({ start, end, said }) => {
    const words = said.map((one) => one.words).join(' ');
    const at = text.text.indexOf(words, from);
    if (at < 0) throw new Error(`“${words}” is heard and does not stand in the text.`);
    from = at + words.length;
    return { words, start: at, end: from, time: { start, end } };
  });
}

/** A time where each sentence begins, and where it ends, since a pause follows. */
const marksOf = (sentences: readonly Sentence[]): PlaceMark[] =>
  sentences.flatMap(({ start, end, time }): PlaceMark[] => [
    { at: start, kind: 'time', value: time.start },
    { at: end, kind: 'time', value: time.end },
  ]);
