import { boxOf } from '../model/area';
import type { Document, Text } from '../model/document';
import type { Place } from '../model/stretch';
import { clock } from './clock';
import { isTimed, spanOf } from './timeline';
import { numberTurns, paragraphAt, speakerAt } from './paragraphs';

/** Where a passage is, in the words a citation uses. */
export interface Cited {
  /** Name of who speaks there, or null. */
  readonly speaker: string | null;
  /** "12:31–12:44" in a recording and in a transcript with times; "turn 12" in another text with speakers, "paragraph 3" in one without, counted from 1; "at 120, 80 (40 × 30 pixels)". */
  readonly position: string;
}

const numbered = new WeakMap<Text, ReturnType<typeof numberTurns>>();

/** The turns of a text, numbered once and remembered with it. */
export function turnsOf(text: Text): ReturnType<typeof numberTurns> {
  let known = numbered.get(text);
  if (!known) numbered.set(text, (known = numberTurns(text.paragraphs)));
  return known;
}

/**
 * Says where a place of a document is, by its ground.
 * @param text the document's, null where it has none
 */
export function placeOf(document: Document, text: Text | null, place: Place): Cited {
  if (place.area) {
    const { left, top, right, bottom } = boxOf(place.area);
    return { speaker: null, position: `at ${left}, ${top} (${right - left} × ${bottom - top} pixels)` };
  }
  if (!text) return { speaker: null, position: document.ground.of === 'time' ? `${clock(place.start)}–${clock(place.end)}` : '' };
  const at = paragraphAt(text.paragraphs, place.start);
  const turn = turnsOf(text).turns[at] ?? 0;
  const speaker = speakerAt(document, text, place.start)?.name ?? null;
  if (isTimed(text)) {
    const { start, end } = spanOf(text, place);
    return { speaker, position: `${clock(start)}–${clock(end)}` };
  }
  return { speaker, position: turn > 0 ? `turn ${turn}` : `paragraph ${at + 1}` };
}

/** The words of a place on one line; empty where its document has no text. */
export const wordsOfPlace = (text: Text | null, place: Place): string => text?.text.slice(place.start, place.end).replace(/\n/g, ' ') ?? '';

/** A quote as it is pasted into a manuscript: the words, then document, speaker and position; where there are no words, only these. */
export function citation(document: Document, text: Text | null, place: Place): string {
  const where = placeWords(document, text, place);
  return text ? `“${wordsOfPlace(text, place)}” (${where})` : `(${where})`;
}

/** A place in words: "Interview 03, Shona, turn 4", "Ferry recording, 12:31–12:44". */
export function placeWords(document: Document, text: Text | null, place: Place): string {
  const { speaker, position } = placeOf(document, text, place);
  return [document.title, speaker, position].filter(Boolean).join(', ');
}
