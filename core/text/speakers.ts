import { MOST_SPEAKERS } from '../model/document';
import { looksLikeInterviewer, type DraftParagraph } from './draft-text';
import { misspelt } from './misspelt';

/** A label as it is written at the start of a paragraph. */
export interface WrittenLabel {
  readonly name: string;
  /** Characters up to the first of the words spoken, colon and space included. */
  readonly length: number;
}

/** A label that may name a speaker. */
export interface SpeakerCandidate {
  readonly name: string;
  /** Paragraphs that it labels. */
  readonly turns: number;
  /** Whether it is taken for a speaker; the others are shown, and can be. */
  readonly taken: boolean;
}

/**
 * The forms of a label at the start of a paragraph: `Name:` or `Name 2:` of up to four words; `[Name]`;
 * `Name` and a tab, as a table of two columns gives it. A number in brackets is a footnote's.
 */
const LABEL =
  /^(?:((?:[\p{L}][\p{L}\p{M}\p{N}'’.-]*)(?: [\p{L}\p{N}][\p{L}\p{M}\p{N}'’.-]*){0,3})\s?(?:[:：]|\t)|\[(?=[^\]]{0,39}\p{L})([^\][:\n]{1,40})\]:?)(?:[ \t]+|$|(?<=\t))/u;
/** `NAME` in capitals before what is said, without a colon. */
const CAPITALS =
  /^(\p{Lu}[\p{Lu}\p{M}\p{N}.'’-]*(?: \p{Lu}[\p{Lu}\p{M}\p{N}.'’-]*){0,2})(?:[ \t]+[–—-])?[ \t]+(?=[^\s\p{Lu}]|\p{Lu}(?:\p{Ll}|\s))/u;
/** `Q.` and `A.`, with a number or without, before a question and its answer. */
const LETTER = /^([QAF]\d{0,3})\.[ \t]+(?=\S)/;
/** The most characters of a name. */
const LONGEST = 100;

/** The label at the start of a paragraph, whether or not it names a speaker. Headings have none. */
export function readLabel(paragraph: DraftParagraph): WrittenLabel | null {
  if (paragraph.style.startsWith('heading')) return null;
  const match = LABEL.exec(paragraph.text);
  const name = (match?.[1] ?? match?.[2])?.trim();
  if (match && name) return name.length <= LONGEST ? { name, length: match[0].length } : null;
  const letter = LETTER.exec(paragraph.text);
  if (letter) return { name: letter[1]!, length: letter[0].length };
  const capitals = CAPITALS.exec(paragraph.text);
  // "A. I think" and "I said" are no names: in one some word is longer than a letter
  return capitals && capitals[1]!.length <= LONGEST && /[\p{Lu}\p{N}]{2}/u.test(capitals[1]!)
    ? { name: capitals[1]!, length: capitals[0].length }
    : null;
}

/** Names of single turns that are looked for in the whole text: a list of thousands is no conversation. */
const MOST_SOUGHT = 200;

/** What is known of a label while they are counted. */
interface Counted {
  turns: number;
  /** Labels with words after them. */
  speaking: number;
  /** With a colon or in brackets: a cell of a table and a word in capitals look like labels even where nobody speaks. */
  sure: boolean;
  /** The file itself says so. */
  named: boolean;
}

/**
 * The labels of a text, most turns first, and which of them are speakers. Speakers are those who speak more than once.
 * One who speaks once is a speaker where the text names them elsewhere, or where nobody but an interviewer speaks more
 * often, as in a short exchange; otherwise "Place:" and "Summary:" would take the words of whoever comes next.
 */
export function findSpeakers(paragraphs: readonly DraftParagraph[]): SpeakerCandidate[] {
  const labels = new Map<string, Counted>();
  let labelled = 0;
  let asked = false;
  for (const paragraph of paragraphs) {
    const label = readLabel(paragraph);
    const bracketed = paragraph.text.startsWith('[');
    // "[laughs] …" is a remark on the speech, not a speaker
    if (!label || (bracketed && /^\p{Ll}/u.test(label.name))) continue;
    const known = labels.get(label.name) ?? { turns: 0, speaking: 0, sure: false, named: false };
    known.turns++;
    if (label.length < paragraph.text.length || !bracketed) known.speaking++;
    known.sure ||= /[:：\]]\s*$/.test(paragraph.text.slice(0, label.length));
    known.named ||= paragraph.named === true;
    labels.set(label.name, known);
    labelled++;
    asked ||= /[?？]["”’)]?\s*$/.test(paragraph.text) || looksLikeInterviewer(label.name);
  }
  // "[Laughter]" alone on its line, again and again, is a remark as well
  const recurs = ({ turns, speaking }: Counted): boolean => turns >= 2 && speaking * 2 > turns;
  const mostlyLabelled = labelled >= 2 && labelled * 3 >= paragraphs.length;
  const somebody = [...labels].some(([name, known]) => recurs(known) && !looksLikeInterviewer(name));
  let sought = 0;
  const isElsewhere = (name: string): boolean => ++sought <= MOST_SOUGHT && isNamedIn(paragraphs, name);
  const single = (name: string, { speaking, sure }: Counted): boolean =>
    mostlyLabelled && sure && speaking > 0 && (looksLikeInterviewer(name) || (!somebody && asked) || isElsewhere(name));
  const found = [...labels].map(([name, known]) => ({
    name,
    turns: known.turns,
    taken: known.named || recurs(known) || single(name, known),
    may: mostlyLabelled && known.sure && known.speaking > 0,
  }));
  // so many are no speakers, but the lines of a list
  const many = found.filter((one) => one.taken).length > MOST_SPEAKERS;
  const misspelt = many ? new Set<string>() : misspeltAmong(found);
  return found
    .map(({ name, turns, taken }) => ({ name, turns, taken: !many && (taken || misspelt.has(name)) }))
    .sort((a, b) => b.turns - a.turns);
}

/** Labels of one turn that may be those of speakers, misspelt: their words are not those of whoever spoke before. */
function misspeltAmong(found: readonly (SpeakerCandidate & { readonly may: boolean })[]): Set<string> {
  const taken = found.filter((one) => one.taken);
  const single = found.filter((one) => one.may && !one.taken);
  if (taken.length > MOST_SOUGHT || single.length > MOST_SOUGHT) return new Set();
  const speakers = new Set(taken.map((one) => one.name));
  return new Set(
    misspelt(new Map([...taken, ...single].map(({ name, turns }) => [name, turns])))
      .filter(({ perhaps }) => speakers.has(perhaps))
      .map(({ name }) => name),
  );
}

/** The names of candidates that are taken for speakers. */
export const namesTaken = (candidates: readonly SpeakerCandidate[]): string[] =>
  candidates.flatMap(({ name, taken }) => (taken ? [name] : []));

/** The names of those who speak in a text, as {@link findSpeakers} takes them. */
export const speakersIn = (paragraphs: readonly DraftParagraph[]): string[] => namesTaken(findSpeakers(paragraphs));

/** Whether a name stands among the words of a text, and not only before what somebody says. */
function isNamedIn(paragraphs: readonly DraftParagraph[], name: string): boolean {
  const letter = /[\p{L}\p{N}]/u;
  return paragraphs.some(({ text }) => {
    for (let at = text.indexOf(name); at >= 0; at = text.indexOf(name, at + name.length)) {
      const label = at === 0 || (at === 1 && text.startsWith('['));
      if (!label && !letter.test(text[at - 1]!) && !letter.test(text[at + name.length] ?? '')) return true;
    }
    return false;
  });
}

/** Reads labels, but only those of the given speakers. */
export function labelsOf(names: ReadonlySet<string>): (paragraph: DraftParagraph) => WrittenLabel | null {
  return (paragraph) => {
    const label = readLabel(paragraph);
    return label && names.has(label.name) ? label : null;
  };
}

const NAME_LINE = /^(\p{Lu}[\p{L}\p{M}\p{N}.'’-]*(?: [\p{Lu}\p{N}][\p{L}\p{M}\p{N}.'’-]*){0,3}):?$/u;

/** Whether a line is no more than a name, with a colon or without. */
export const isNameLine = (line: string): boolean => line.length <= 40 && NAME_LINE.test(line);

/**
 * Puts names that stand on a line of their own in front of what follows, as `Name: words`, so that a turn is
 * one paragraph. Done where at least two names recur and a fifth of all lines are such names; a single line in
 * capitals is a heading, not a speaker.
 * @param always does it wherever a name recurs, as the researcher says
 * @returns the paragraphs, and how many names were moved
 */
export function joinNameLines(paragraphs: readonly DraftParagraph[], always = false): { paragraphs: DraftParagraph[]; joined: number } {
  const names = new Map<string, number>();
  paragraphs.forEach((paragraph, at) => {
    const name = nameLine(paragraph, paragraphs[at + 1]);
    if (name) names.set(name, (names.get(name) ?? 0) + 1);
  });
  const recurring = new Set([...names].filter(([, count]) => count >= 2).map(([name]) => name));
  const lines = [...names].reduce((sum, [name, count]) => sum + (recurring.has(name) ? count : 0), 0);
  const enough = always ? recurring.size > 0 : recurring.size >= 2 && lines * 5 >= paragraphs.length;
  if (!enough) return { paragraphs: [...paragraphs], joined: 0 };
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
  return isNameLine(paragraph.text) ? NAME_LINE.exec(paragraph.text)![1]! : null;
}
