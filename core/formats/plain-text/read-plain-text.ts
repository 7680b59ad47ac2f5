import { normaliseText } from '../../text/normalise';
import type { DraftParagraph } from '../../text/draft-text';
import { misspelt } from '../../text/misspelt';
import { isNameLine } from '../../text/speakers';
import { UnreadableFileError, type Reading } from '../reading';

/** How line ends are to be understood. */
export type LineEnds = 'paragraphs' | 'wrapped';

/** A text without formatting, and how its line ends were understood. */
export interface PlainReading extends Reading {
  readonly lineEnds: LineEnds;
  /** Whether they may as well be meant otherwise. */
  readonly doubtful: boolean;
}

/**
 * Reads plain text. Lines are paragraphs, unless blank lines separate blocks of wrapped lines: then a block
 * is a paragraph and its line ends become spaces.
 * @param lineEnds decides it; left out, it is guessed from the line lengths
 * @throws UnreadableFileError for an empty text or one that is not text
 */
export function readPlainText(raw: string, lineEnds?: LineEnds): PlainReading {
  if (looksBinary(raw))
    throw new UnreadableFileError('This is not a text: it holds binary data. If it is a Word file, give it the ending .docx.');
  const text = normaliseText(raw);
  if (!text.trim()) throw new UnreadableFileError('The file is empty.');
  const names = namesAlone(text);
  const guess = guessLineEnds(text, names);
  const chosen = lineEnds ?? guess.lineEnds;
  const blocks = chosen === 'wrapped' ? text.split(/\n[ \t]*\n+/).flatMap((block) => unwrapped(block, names)) : text.split('\n');
  const paragraphs = blocks
    .map((block) => block.trim())
    .filter(Boolean)
    .map(plainParagraph);
  return { title: null, paragraphs, notes: [], lineEnds: chosen, doubtful: guess.doubtful };
}

/** A paragraph without any formatting. */
export const plainParagraph = (text: string): DraftParagraph => ({ text, style: 'body', emphasis: [] });

function looksBinary(raw: string): boolean {
  const head = raw.slice(0, 8192);
  // eslint-disable-next-line no-control-regex -- counting them is the point
  const odd = head.match(/[\u0000-\u0008\u000e-\u001a\ufffd]/g)?.length ?? 0;
  return odd > head.length / 50;
}

/** Names that are held against each other. */
const MOST_NAMES = 300;

/**
 * Names that stand alone on the first line of several blocks, above what is said: at least two, each more than once, and
 * those that are one of them, misspelt.
 */
function namesAlone(text: string): ReadonlySet<string> {
  const times = new Map<string, number>();
  const lines = text.split('\n').map((line) => line.trim());
  lines.forEach((line, at) => {
    if (line && lines[at + 1] && !lines[at - 1] && isNameLine(line)) times.set(line, (times.get(line) ?? 0) + 1);
  });
  const recurring = [...times].flatMap(([name, count]) => (count > 1 ? [name] : []));
  if (recurring.length < 2 || times.size > MOST_NAMES) return new Set(recurring.length < 2 ? [] : recurring);
  return new Set([...recurring, ...misspelt(times).flatMap(({ name, perhaps }) => (recurring.includes(perhaps) ? [name] : []))]);
}

/** The lines of a block as one paragraph; a name above them stays on its own. */
function unwrapped(block: string, names: ReadonlySet<string>): string[] {
  const lines = block
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  return lines.length > 1 && names.has(lines[0]!) ? [lines[0]!, lines.slice(1).join(' ')] : [lines.join(' ')];
}

/**
 * Wrapped: there are blank lines, and most lines that another follows directly end near one width, mid-sentence. Doubtful
 * where nearly as many do not, or where names stand above what is said.
 */
function guessLineEnds(text: string, names: ReadonlySet<string>): { lineEnds: LineEnds; doubtful: boolean } {
  const lines = text.split('\n').map((line) => line.trim());
  // a name above what is said is no line that was wrapped
  const inner = lines.filter((line, at) => line && lines[at + 1] && !names.has(line));
  if (inner.length === 0 || !/\n[ \t]*\n/.test(text)) return { lineEnds: 'paragraphs', doubtful: false };
  const longest = Math.max(...inner.slice(0, 5000).map((line) => line.length));
  if (longest > 120) return { lineEnds: 'paragraphs', doubtful: names.size > 0 };
  const full = inner.filter((line) => line.length > longest * 0.6 && !/^[-*•\d]+[.)]?\s/.test(line));
  const share = full.length / inner.length;
  return {
    lineEnds: inner.length >= 3 && share > 0.6 ? 'wrapped' : 'paragraphs',
    doubtful: names.size > 0 || (share > 0.35 && share < 0.85),
  };
}
