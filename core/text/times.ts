import type { DraftParagraph } from './draft-text';

/** `02:31`, `00:02:31`, `1:02:31.5`, in brackets of any kind or bare. */
const CLOCK = String.raw`(\d{1,2}(?::[0-5]\d){1,2}(?:[.,]\d{1,3})?)`;
const AT_START = new RegExp(String.raw`^(?:[[(<{#]\s*${CLOCK}\s*[\])>}#]|${CLOCK})[\s–-]*`);
const AT_END = new RegExp(String.raw`[[(<{#]\s*${CLOCK}\s*[\])>}#]$`);
/** More characters than a time in brackets has. */
const TAIL = 60;
/** After a speaker's label: `Shona [02:31]: …` and `Shona 00:02:31` on a line of its own. */
const IN_LABEL = new RegExp(String.raw`^([\p{L}][\p{L}\p{M}\p{N} .'’-]{0,40}?)\s+(?:[[(]\s*${CLOCK}\s*[\])]|${CLOCK})\s*(:|$)\s*`, 'u');

/** Milliseconds of a time written as a clock. */
function clockTime(clock: string): number {
  const [whole = '', fraction = '0'] = clock.split(/[.,]/);
  return whole.split(':').reduce((sum, part) => sum * 60 + Number(part), 0) * 1000 + Number(fraction.padEnd(3, '0'));
}

/**
 * Takes times out of a transcript's words and keeps them as marks. A text counts as timed when at least two
 * paragraphs, and a tenth of all, carry a time that does not run backwards; else all is left as it is.
 * A time on a line of its own belongs to the paragraph after it.
 * @returns the paragraphs, and how many times were found
 */
export function liftTimes(paragraphs: readonly DraftParagraph[]): { paragraphs: DraftParagraph[]; times: number } {
  const found = paragraphs.map(readTime);
  const times = found.filter((one) => one !== null).map((one) => one.time);
  const backwards = times.filter((time, at) => at > 0 && time < times[at - 1]!).length;
  if (times.length < 2 || times.length * 10 < paragraphs.length || backwards > times.length / 10)
    return { paragraphs: [...paragraphs], times: 0 };
  const lifted: DraftParagraph[] = [];
  let waiting: number | null = null;
  paragraphs.forEach((paragraph, at) => {
    const one = found[at];
    const kept = one ? cut(paragraph, one.from, one.to, one.insert) : paragraph;
    if (one) waiting = one.time;
    if (!kept.text) return;
    lifted.push(
      waiting === null
        ? kept
        : {
            ...kept,
            marks: [
              ...(kept.marks ?? []),
              { at: one?.insert ? one.from + one.insert.length : 0, kind: 'time' as const, value: waiting },
            ].sort((a, b) => a.at - b.at),
          },
    );
    waiting = null;
  });
  return { paragraphs: lifted, times: times.length };
}

interface FoundTime {
  readonly time: number;
  /** The stretch that is taken out. */
  readonly from: number;
  readonly to: number;
  /** What is put in its place. */
  readonly insert: string;
}

function readTime({ text }: DraftParagraph): FoundTime | null {
  const start = AT_START.exec(text);
  if (start) return { time: clockTime(start[1] ?? start[2]!), from: 0, to: start[0].length, insert: '' };
  const label = IN_LABEL.exec(text);
  if (label)
    return {
      time: clockTime(label[2] ?? label[3]!),
      from: label[1]!.length,
      to: label[0].length,
      insert: label[0].length === text.length ? '' : ': ',
    };
  // looked for among the last characters alone: a search from every blank of a long line would take its square
  const tail = Math.max(0, text.length - TAIL);
  const end = AT_END.exec(text.slice(tail));
  if (end) return { time: clockTime(end[1]!), from: text.slice(0, tail + end.index).trimEnd().length, to: text.length, insert: '' };
  return null;
}

/** A paragraph with a stretch replaced; emphasis moves along. */
function cut(paragraph: DraftParagraph, from: number, to: number, insert: string): DraftParagraph {
  const shift = insert.length - (to - from);
  const moved = (at: number): number => (at <= from ? at : at >= to ? at + shift : from);
  const text = paragraph.text.slice(0, from) + insert + paragraph.text.slice(to);
  return {
    ...paragraph,
    text,
    emphasis: paragraph.emphasis
      .map((span) => ({ ...span, start: moved(span.start), end: moved(span.end) }))
      .filter((span) => span.start < span.end),
    ...(paragraph.marks ? { marks: paragraph.marks.map((mark) => ({ ...mark, at: moved(mark.at) })) } : {}),
  };
}
