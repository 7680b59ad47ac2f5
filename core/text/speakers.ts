import type { DraftParagraph } from './draft-text';

/** A label as it is written at the start of a paragraph. */
export interface WrittenLabel {
  readonly name: string;
  /** Characters up to the first of the words spoken, colon and space included. */
  readonly length: number;
}

/** A name that seems to label turns, with how many paragraphs it labels. */
export interface SpeakerCandidate {
  readonly name: string;
  readonly turns: number;
}

/**
 * The forms of a label at the start of a paragraph: `Name:` or `Name 2:` of up to four words; `[Name]`;
 * `Name` and a tab, as a table of two columns gives it.
 */
const LABEL =
  /^(?:((?:[\p{L}][\p{L}\p{M}\p{N}'’.-]*)(?: [\p{L}\p{N}][\p{L}\p{M}\p{N}'’.-]*){0,3})\s?(?:[:：]|\t)|\[([^\][:\n]{1,40})\]:?)(?:[ \t]+|$|(?<=\t))/u;
/** `NAME` in capitals before what is said, without a colon. */
const CAPITALS =
  /^(\p{Lu}[\p{Lu}\p{M}\p{N}.'’-]*(?: \p{Lu}[\p{Lu}\p{M}\p{N}.'’-]*){0,2})(?:[ \t]+[–—-])?[ \t]+(?=[^\s\p{Lu}]|\p{Lu}(?:\p{Ll}|\s))/u;

/** The label at the start of a paragraph, whether or not it names a speaker. Headings have none. */
export function readLabel(paragraph: DraftParagraph): WrittenLabel | null {
  if (paragraph.style.startsWith('heading')) return null;
  const match = LABEL.exec(paragraph.text);
  const name = (match?.[1] ?? match?.[2])?.trim();
  if (match && name) return { name, length: match[0].length };
  const capitals = CAPITALS.exec(paragraph.text);
  return capitals && capitals[1]!.length > 1 ? { name: capitals[1]!, length: capitals[0].length } : null;
}

/**
 * The names that label turns in a text, most turns first. A single "Note:" does not make a speaker: a name
 * counts when it labels at least two paragraphs, or when at least a third of all paragraphs are labelled.
 */
export function findSpeakers(paragraphs: readonly DraftParagraph[]): SpeakerCandidate[] {
  const turns = new Map<string, number>();
  const sure = new Set<string>();
  let labelled = 0;
  for (const paragraph of paragraphs) {
    const label = readLabel(paragraph);
    // "[laughs] …" is a remark on the speech, not a speaker
    if (!label || (paragraph.text.startsWith('[') && /^\p{Ll}/u.test(label.name))) continue;
    turns.set(label.name, (turns.get(label.name) ?? 0) + 1);
    labelled++;
    // a cell of a table and a word in capitals look like labels even where nobody speaks
    if (/[:：\]]\s*$/.test(paragraph.text.slice(0, label.length))) sure.add(label.name);
  }
  const mostlyLabelled = labelled >= 2 && labelled * 3 >= paragraphs.length;
  return [...turns]
    .map(([name, count]) => ({ name, turns: count }))
    .filter((candidate) => candidate.turns >= 2 || (mostlyLabelled && sure.has(candidate.name)))
    .sort((a, b) => b.turns - a.turns);
}

/** Reads labels, but only those of the given speakers. */
export function labelsOf(names: ReadonlySet<string>): (paragraph: DraftParagraph) => WrittenLabel | null {
  return (paragraph) => {
    const label = readLabel(paragraph);
    return label && names.has(label.name) ? label : null;
  };
}

const NAME_LINE = /^(\p{Lu}[\p{L}\p{M}\p{N}.'’-]*(?: [\p{Lu}\p{N}][\p{L}\p{M}\p{N}.'’-]*){0,3}):?$/u;

/**
 * Puts names that stand on a line of their own in front of what follows, as `Name: words`, so that a turn is
 * one paragraph. Done where at least two names recur and a fifth of all lines are such names; a single line in
 * capitals is a heading, not a speaker.
 * @returns the paragraphs, and how many names were moved
 */
export function joinNameLines(paragraphs: readonly DraftParagraph[]): { paragraphs: DraftParagraph[]; joined: number } {
  const names = new Map<string, number>();
  paragraphs.forEach((paragraph, at) => {
    const name = nameLine(paragraph, paragraphs[at + 1]);
    if (name) names.set(name, (names.get(name) ?? 0) + 1);
  });
  const recurring = new Set([...names].filter(([, count]) => count >= 2).map(([name]) => name));
  const lines = [...names].reduce((sum, [name, count]) => sum + (recurring.has(name) ? count : 0), 0);
  if (recurring.size < 2 || lines * 5 < paragraphs.length) return { paragraphs: [...paragraphs], joined: 0 };
  const joined: DraftParagraph[] = [];
  let moved = 0;
  for (let at = 0; at < paragraphs.length; at++) {
    const paragraph = paragraphs[at]!;
    const next = paragraphs[at + 1];
    const name = nameLine(paragraph, next);
    if (!name || !next || (!recurring.has(name) && names.get(name) !== 1)) {
      joined.push(paragraph);
      continue;
    }
    const label = `${name}: `;
    joined.push({
      ...next,
      style: 'body',
      text: label + next.text,
      emphasis: next.emphasis.map((span) => ({ ...span, start: span.start + label.length, end: span.end + label.length })),
      marks: [
        ...(paragraph.marks ?? []).map((mark) => ({ ...mark, at: label.length })),
        ...(next.marks ?? []).map((mark) => ({ ...mark, at: mark.at + label.length })),
      ],
    });
    moved++;
    at++;
  }
  return { paragraphs: joined, joined: moved };
}

/** The name that a line consists of, if words of somebody follow it. */
function nameLine(paragraph: DraftParagraph, next: DraftParagraph | undefined): string | null {
  if (!next || next.style.startsWith('heading') || NAME_LINE.test(next.text)) return null;
  return paragraph.text.length <= 40 ? (NAME_LINE.exec(paragraph.text)?.[1] ?? null) : null;
}
