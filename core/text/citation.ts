import type { Document, Text } from '../model/document';
import { numberTurns, paragraphAt } from './paragraphs';

/** Where a position is, in the words a citation uses. */
export interface CitedPlace {
  /** Name of who speaks there, or null. */
  readonly speaker: string | null;
  /** "turn 12" in a text with speakers, "paragraph 3" in one without; counted from 1. */
  readonly position: string;
}

const numbered = new WeakMap<Text, ReturnType<typeof numberTurns>>();

/** The turns of a text, numbered once and remembered with it. */
export function turnsOf(text: Text): ReturnType<typeof numberTurns> {
  let known = numbered.get(text);
  if (!known) numbered.set(text, (known = numberTurns(text.paragraphs)));
  return known;
}

/** Says where a position of a text is. */
export function placeOf(document: Document, text: Text, position: number): CitedPlace {
  const at = paragraphAt(text.paragraphs, position);
  const turn = turnsOf(text).turns[at] ?? 0;
  const speaker = document.speakers[text.paragraphs[at]?.speaker ?? -1]?.name ?? null;
  return { speaker, position: turn > 0 ? `turn ${turn}` : `paragraph ${at + 1}` };
}

/** A quote as it is pasted into a manuscript: the words, then document, speaker and position. */
export function citation(document: Document, text: Text, start: number, end: number): string {
  const words = text.text.slice(start, end).replace(/\n/g, ' ');
  return `“${words}” (${placeWords(document, text, start)})`;
}

/** A place in words: "Interview 03, Shona, turn 4". */
export function placeWords(document: Document, text: Text, position: number): string {
  const { speaker, position: where } = placeOf(document, text, position);
  return [document.title, speaker, where].filter(Boolean).join(', ');
}
