import type { DraftParagraph, SpeakerLabel } from './draft-text';

/** A name that seems to label turns, with how many paragraphs it labels. */
export interface SpeakerCandidate {
  readonly name: string;
  readonly turns: number;
}

/** `Name:` or `Name 2:` of up to four words, or `[Name]`, at the start of a paragraph. */
const LABEL =
  /^(?:((?:[\p{L}][\p{L}\p{M}\p{N}'’.-]*)(?: [\p{L}\p{N}][\p{L}\p{M}\p{N}'’.-]*){0,3})\s?[:：]|\[([^\][:\n]{1,40})\]:?)(?:[ \t]+|$)/u;

/** The label at the start of a paragraph, whether or not it names a speaker. Headings have none. */
export function readLabel(paragraph: DraftParagraph): SpeakerLabel | null {
  if (paragraph.style.startsWith('heading')) return null;
  const match = LABEL.exec(paragraph.text);
  const name = (match?.[1] ?? match?.[2])?.trim();
  return match && name ? { name, length: match[0].length } : null;
}

/**
 * The names that label turns in a text, most turns first. A single "Note:" does not make a speaker: a name
 * counts when it labels at least two paragraphs, or when at least a third of all paragraphs are labelled.
 */
export function findSpeakers(paragraphs: readonly DraftParagraph[]): SpeakerCandidate[] {
  const turns = new Map<string, number>();
  let labelled = 0;
  for (const paragraph of paragraphs) {
    const label = readLabel(paragraph);
    // "[laughs] …" is a remark on the speech, not a speaker
    if (!label || (paragraph.text.startsWith('[') && /^\p{Ll}/u.test(label.name))) continue;
    turns.set(label.name, (turns.get(label.name) ?? 0) + 1);
    labelled++;
  }
  const mostlyLabelled = labelled >= 2 && labelled * 3 >= paragraphs.length;
  return [...turns]
    .map(([name, count]) => ({ name, turns: count }))
    .filter((candidate) => candidate.turns >= 2 || mostlyLabelled)
    .sort((a, b) => b.turns - a.turns);
}

/** Reads labels, but only those of the given speakers. */
export function labelsOf(names: ReadonlySet<string>): (paragraph: DraftParagraph) => SpeakerLabel | null {
  return (paragraph) => {
    const label = readLabel(paragraph);
    return label && names.has(label.name) ? label : null;
  };
}
