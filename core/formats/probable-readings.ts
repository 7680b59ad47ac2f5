import type { DraftParagraph } from '../text/draft-text';
import { findSpeakers, joinNameLines, namesTaken } from '../text/speakers';
import type { LineEnds } from './plain-text/read-plain-text';

/** One way in which a text can be read, as the researcher sees it beside the others. */
export interface ProbableReading {
  readonly lineEnds: LineEnds | null;
  /** Names on lines of their own stay there, and are not put in front of what follows. */
  readonly namesApart: boolean;
  readonly paragraphs: number;
  /** Those who speak most, with how often. */
  readonly speakers: readonly { readonly name: string; readonly turns: number }[];
  /** How it begins, a paragraph each. */
  readonly begins: readonly string[];
  /** Whether it is read so. */
  readonly chosen: boolean;
}

/** Paragraphs and speakers that are shown of each, and characters of a paragraph. */
const SHOWN = 4;
const LONG = 80;

/**
 * The ways in which a text can be read, where there is more than one that makes a difference.
 * @param variants its paragraphs, by how line ends are understood
 */
export function probableReadings(
  variants: readonly (readonly [LineEnds | null, readonly DraftParagraph[]])[],
  chosen: Pick<ProbableReading, 'lineEnds' | 'namesApart'>,
): ProbableReading[] {
  const found = new Map<string, ProbableReading>();
  for (const [lineEnds, apart] of variants) {
    const joined = joinNameLines(apart, true);
    // most texts can be read in one way only, which is told at once
    if (joined.joined === 0 && variants.length === 1) return [];
    const ways = joined.joined > 0 ? [false, true] : [true];
    for (const namesApart of ways) {
      const paragraphs = namesApart ? apart : joined.paragraphs;
      const words = paragraphs.map((paragraph) => paragraph.text).join('\n');
      const isChosen = lineEnds === chosen.lineEnds && (namesApart === chosen.namesApart || joined.joined === 0);
      // with its lines joined a text is hardly meant to keep its names apart
      const unlikely = namesApart && lineEnds === 'wrapped' && joined.joined > 0;
      if ((found.has(words) || unlikely) && !isChosen) continue;
      const candidates = findSpeakers(paragraphs);
      const taken = new Set(namesTaken(candidates));
      found.set(words, {
        lineEnds,
        namesApart,
        paragraphs: paragraphs.length,
        speakers: candidates
          .filter(({ name }) => taken.has(name))
          .slice(0, SHOWN)
          .map(({ name, turns }) => ({ name, turns })),
        begins: paragraphs.slice(0, SHOWN).map(({ text }) => (text.length > LONG ? `${text.slice(0, LONG).trimEnd()}…` : text)),
        chosen: isChosen,
      });
    }
  }
  return found.size > 1 ? [...found.values()] : [];
}
