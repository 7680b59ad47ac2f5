import type { Document, Paragraph, Speaker, Text } from '../model/document';

/** Index of the paragraph that holds a position; the last one that starts at or before it, or 0. */
export function paragraphAt(paragraphs: readonly Paragraph[], position: number): number {
  let low = 0;
  let high = paragraphs.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (paragraphs[middle]!.start <= position) low = middle + 1;
    else high = middle;
  }
  return Math.max(0, low - 1);
}

/** What of a text says who speaks where. */
export type Spoken = Pick<Text, 'paragraphs'>;

/** Who speaks at a position; undefined where nobody does, or where there is no text. */
export function speakerAt(document: Pick<Document, 'speakers'>, text: Spoken | null, position: number): Speaker | undefined {
  if (!text) return undefined;
  const number = text.paragraphs[paragraphAt(text.paragraphs, position)]?.speaker ?? -1;
  return number < 0 ? undefined : document.speakers[number];
}

/**
 * Numbers the turns of a text: consecutive paragraphs of one speaker are one turn, paragraphs of
 * nobody belong to none.
 * @returns for each paragraph the number of its turn from 1, or 0; and how many turns there are
 */
export function numberTurns(paragraphs: readonly Paragraph[]): { turns: Uint32Array; count: number } {
  const turns = new Uint32Array(paragraphs.length);
  let count = 0;
  let last = -1;
  paragraphs.forEach((paragraph, at) => {
    if (paragraph.speaker >= 0 && paragraph.speaker !== last) count++;
    turns[at] = paragraph.speaker >= 0 ? count : 0;
    last = paragraph.speaker;
  });
  return { turns, count };
}
