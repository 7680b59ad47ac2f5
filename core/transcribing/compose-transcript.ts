import type { Document, PlaceMark, Text, UnsureWords } from '../model/document';
import type { Id } from '../model/ids';
import { clock } from '../text/clock';
import { composeText, type DraftParagraph } from '../text/draft-text';
import { foldSpace, normaliseText, tidyLine } from '../text/normalise';
import type { Segment } from './service';

/** A word of less confidence is to be listened to again. */
const SURE = 0.6;
/** A pause of this many milliseconds ends a paragraph, and one of this many is noted as silence. */
const PAUSE = 1_500;
const SILENCE = 800;

/** A transcript as it comes of what a service heard. */
export interface ComposedTranscript {
  readonly text: Text;
  readonly speakers: Document['speakers'];
  readonly words: number;
}

/** A paragraph while it is put together. */
interface Open {
  text: string;
  readonly speaker: string | null;
  readonly label: number;
  marks: PlaceMark[];
  unsure: UnsureWords[];
  end: number;
}

/**
 * Makes a transcript of what a service heard: a paragraph for each turn and after each pause, times at every segment, and
 * what it was not sure of to be listened to again. A segment without words is a turn still to be written:
 * `(unclear 1:14)`.
 */
export function composeTranscript(id: Id, segments: readonly Segment[]): ComposedTranscript {
  const paragraphs: Open[] = [];
  for (const segment of [...segments].sort((a, b) => a.start - b.start)) {
    const speaker = segment.speaker === null ? null : tidyLine(segment.speaker.replace(/:/g, ' ')) || null;
    const start = Math.round(segment.start);
    let open = paragraphs.at(-1);
    if (open?.speaker !== speaker || start - open.end >= PAUSE || segment.words.length === 0) {
      closeAt(open, start);
      const label = speaker === null ? '' : `${speaker}: `;
      paragraphs.push((open = { text: label, speaker, label: label.length, marks: [], unsure: [], end: start }));
    } else {
      closeAt(open, start);
      open.text += ' ';
    }
    write(open, segment, start);
    open.end = Math.max(start + 1, Math.round(segment.end));
  }
  closeAt(paragraphs.at(-1), Infinity);
  return composed(id, paragraphs);
}

function write(open: Open, { words }: Segment, start: number): void {
  open.marks.push({ at: open.text.length, kind: 'time', value: start });
  if (words.length === 0) open.text += `(unclear ${clock(start)})`;
  words.forEach(({ text, confidence }, at) => {
    const word = foldSpace(normaliseText(text));
    if (!word) return;
    if (at > 0) open.text += ' ';
    const from = open.text.length;
    open.text += word;
    if (confidence < SURE) open.unsure.push({ start: from, end: open.text.length, confidence });
  });
}

/** Notes where somebody stops, where it is silent for a while after that: the words do not last as long as the silence. */
function closeAt(open: Open | undefined, next: number): void {
  if (open && next - open.end >= SILENCE) open.marks.push({ at: open.text.length, kind: 'time', value: open.end });
}

function composed(id: Id, paragraphs: readonly Open[]): ComposedTranscript {
  const drafts = paragraphs.map(({ text, marks }): DraftParagraph => ({ text, style: 'body', emphasis: [], marks }));
  const { text, speakers, words } = composeText(id, drafts, (_, at) => {
    const { speaker, label } = paragraphs[at]!;
    return { name: speaker, length: label };
  });
  const unsure = paragraphs.flatMap((paragraph, at) => {
    const by = text.paragraphs[at]!.start;
    return paragraph.unsure.map((one) => ({ ...one, start: one.start + by, end: one.end + by }));
  });
  return { text: unsure.length > 0 ? { ...text, unsure } : text, speakers, words };
}
