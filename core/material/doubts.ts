import { isMarked } from '../questions/find-questions';
import { counted } from '../text/counted';
import type { DraftParagraph } from '../text/draft-text';
import { misspelt } from '../text/misspelt';
import { quoted } from '../text/quoted';
import { countWords } from '../text/words';
import type { ComposedImport, TextChoices } from './compose-import';

/** Something about a text on its way in that looks wrong, for the researcher to look at before it is stored. */
export interface Doubt {
  readonly words: string;
  /** Two names that may be one person: the first would become the second. */
  readonly join?: { readonly name: string; readonly perhaps: string };
}

/** A turn of this many words is longer than anybody speaks: a label was probably not seen. */
const LONG_TURN = 3_000;
/** Names that are held against each other; a text of more is no conversation. */
const MOST_NAMES = 300;
/** Doubts of one kind that are told one by one. */
const TOLD = 5;

interface Turn {
  readonly speaker: number;
  readonly paragraph: number;
  words: number;
}

/** What looks wrong in a text as it would be stored. */
export function doubtsOf(
  { text, speakers, questions }: ComposedImport,
  paragraphs: readonly DraftParagraph[],
  choices: TextChoices,
): Doubt[] {
  const turns: Turn[] = [];
  text.paragraphs.forEach((paragraph, at) => {
    if (paragraph.speaker < 0) return;
    const words = countWords(text.text.slice(paragraph.body, paragraph.end));
    const last = turns.at(-1);
    const goesOn =
      last?.speaker === paragraph.speaker && paragraph.body === paragraph.start && text.paragraphs[at - 1]?.speaker === paragraph.speaker;
    if (goesOn) last.words += words;
    else turns.push({ speaker: paragraph.speaker, paragraph: at, words });
  });
  const of: Turn[][] = speakers.map(() => []);
  for (const turn of turns) of[turn.speaker]!.push(turn);
  const name = (speaker: number): string => quoted(speakers[speaker]!.name);
  const silent = speakers.flatMap((_, at) => (of[at]!.every((turn) => turn.words === 0) ? [at] : []));
  // in a short exchange everybody speaks once
  const single =
    turns.length <= speakers.length * 2
      ? []
      : speakers.flatMap((one, at) => (of[at]!.length === 1 && !one.interviewer && !silent.includes(at) ? [at] : []));
  const joins = misspelt(new Map(speakers.slice(0, MOST_NAMES).map((one, at) => [one.name, of[at]!.length])));
  const joined = new Set(joins.map((join) => join.name));
  return [
    ...joins.map((join): Doubt => ({ words: `${quoted(join.name)} may be ${quoted(join.perhaps)}, misspelt.`, join })),
    ...told(
      single.filter((at) => !joined.has(speakers[at]!.name)),
      (at) => `${name(at)} speaks only once, in paragraph ${of[at]![0]!.paragraph + 1}: a speaker, or a heading?`,
    ),
    ...told(silent, (at) => `${name(at)} is named and says nothing.`),
    ...told(
      turns.filter((turn) => turn.words > LONG_TURN),
      (turn) =>
        `${name(turn.speaker)} speaks ${counted(turn.words, 'word')} on end from paragraph ${turn.paragraph + 1}: was somebody’s name not seen?`,
    ),
    ...withoutQuestion(questions, paragraphs, choices),
  ];
}

/** Answers before the first question: what was asked was not seen. */
function withoutQuestion(questions: ComposedImport['questions'], paragraphs: readonly DraftParagraph[], { markers }: TextChoices): Doubt[] {
  if (!markers) return [];
  const first = questions[0]?.paragraph ?? paragraphs.length;
  const { answer } = markers;
  const lost = answer ? paragraphs.slice(0, first).filter((paragraph) => isMarked(paragraph, answer)).length : 0;
  return [
    ...(lost > 0 ? [{ words: `${counted(lost, 'answer')} before the first question: what was asked was not seen.` }] : []),
    ...(questions.length === 0 ? [{ words: 'No question was found by these marks.' }] : []),
  ];
}

/** The first of many in words, and how many more there are. */
export function told<T>(some: readonly T[], words: (one: T) => string): Doubt[] {
  const more = some.length - TOLD;
  return [
    ...some.slice(0, TOLD).map((one) => ({ words: words(one) })),
    ...(more > 0 ? [{ words: `…and ${more.toLocaleString('en')} more like this.` }] : []),
  ];
}
