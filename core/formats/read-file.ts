import type { DraftParagraph } from '../text/draft-text';
import { tidyLine } from '../text/normalise';
import { findSpeakers, joinNameLines, type SpeakerCandidate } from '../text/speakers';
import { liftTimes } from '../text/times';
import { decodeText } from './plain-text/encoding';
import { readPlainText, type LineEnds, type PlainReading } from './plain-text/read-plain-text';
import { probableReadings, type ProbableReading } from './probable-readings';
import { endingOf, READABLE_ENDINGS, TABLE_ENDINGS } from './readable-endings';
import type { EncodingSample } from './plain-text/guess-encoding';
import { UnreadableFileError, type Fact, type Progress, type Reading } from './reading';
import { sha256 } from './sha256';

/** How a file is to be read, where the guess is not right. Everything may be left out. */
export interface ReadOptions {
  readonly encoding?: string;
  readonly lineEnds?: LineEnds;
  /** Leaves out bold, italics, headings and lists: only the words come in. */
  readonly plain?: boolean;
  /** Leaves times in the words instead of keeping them as marks. */
  readonly keepTimes?: boolean;
  /** Leaves names on lines of their own there, or puts each in front of what follows; left out, it is guessed. */
  readonly namesApart?: boolean;
  /** Opens a file that is locked. */
  readonly password?: string;
}

/** A file as the preview shows it. */
export interface ReadFile extends Reading {
  readonly title: string;
  readonly sha256: string;
  readonly speakers: readonly SpeakerCandidate[];
  /** The encoding used, for text files. */
  readonly encoding: string | null;
  /** Where it is a guess: what it may be, with words in which it shows, the one used first. */
  readonly encodings: readonly EncodingSample[];
  readonly facts: readonly Fact[];
  /** How line ends were understood, for plain text. */
  readonly lineEnds: LineEnds | null;
  /** The ways in which it can be read, where there is more than one. */
  readonly readings: readonly ProbableReading[];
  /** Times found in the words. */
  readonly times: number;
  /** Whether there is formatting that can be left out. */
  readonly formatted: boolean;
}

/** A file of more than this many bytes is refused. */
export const LARGEST_FILE = 100_000_000;

/** A title for a document, from the name of the file it comes from. */
export const titleOfFile = (name: string): string =>
  tidyLine(
    name
      .replace(/^.*\//, '')
      .replace(/\.[^.]+$/, '')
      .replace(/_/g, ' '),
  ) || 'Untitled';

/**
 * Reads a file by its ending.
 * @param progress told as a PDF's pages and a book's chapters are read
 * @throws UnreadableFileError saying what is wrong and what to do
 */
export async function readFile(name: string, bytes: Uint8Array, options: ReadOptions = {}, progress?: Progress): Promise<ReadFile> {
  if (bytes.length === 0) throw new UnreadableFileError('The file is empty.');
  if (bytes.length > LARGEST_FILE) throw new UnreadableFileError('The file is larger than 100 MB. Split it and bring in the parts.');
  const ending = endingOf(name);
  const { otherwise, ...read } = await readByEnding(ending, bytes, options, progress);
  const formatted = read.paragraphs.some((paragraph) => paragraph.emphasis.length > 0 || paragraph.style !== 'body');
  const drafted = (paragraphs: readonly DraftParagraph[]): { paragraphs: readonly DraftParagraph[]; times: number } => {
    const looked = options.plain ? paragraphs.map(withoutLooks) : paragraphs;
    return options.keepTimes ? { paragraphs: looked, times: 0 } : liftTimes(looked);
  };
  const timed = drafted(read.paragraphs);
  const { paragraphs, joined } =
    options.namesApart === true
      ? { paragraphs: timed.paragraphs, joined: 0 }
      : joinNameLines(timed.paragraphs, options.namesApart === false);
  if (paragraphs.length === 0 && read.pages === undefined) throw new UnreadableFileError('The file holds no text.');
  const variants = [
    [read.lineEnds ?? null, timed.paragraphs] as const,
    ...(otherwise ? [[otherwise.lineEnds, drafted(otherwise.paragraphs).paragraphs] as const] : []),
  ];
  const notes = [
    ...read.notes,
    ...(timed.times > 0 ? [`${timed.times} times taken out of the words and kept as marks`] : []),
    ...(joined > 0 ? [`${joined} names on lines of their own put in front of what they say`] : []),
  ];
  return {
    encoding: null,
    encodings: [],
    lineEnds: null,
    facts: [],
    ...read,
    paragraphs,
    notes,
    times: timed.times,
    readings: probableReadings(variants, { lineEnds: read.lineEnds ?? null, namesApart: joined === 0 }),
    formatted,
    title: read.title ?? titleOfFile(name),
    sha256: await sha256(bytes),
    speakers: findSpeakers(paragraphs),
  };
}

/** A file as its own reader reads it. */
interface FirstReading extends Reading {
  readonly encoding?: string;
  readonly encodings?: readonly EncodingSample[];
  readonly lineEnds?: LineEnds;
  /** Plain text whose line ends may as well be meant otherwise, read so. */
  readonly otherwise?: PlainReading;
}

const withoutLooks = (paragraph: DraftParagraph): DraftParagraph => ({ ...paragraph, style: 'body', emphasis: [] });

/** Loads what reads a kind of file where there is one of it: whoever reads plain text waits for nothing else. */
async function readByEnding(ending: string, bytes: Uint8Array, options: ReadOptions, progress?: Progress): Promise<FirstReading> {
  switch (ending) {
    case '.docx':
      return (await import('./docx/read-docx')).readDocx(bytes);
    case '.odt':
      return (await import('./odt/read-odt')).readOdt(bytes);
    case '.rtf':
      return (await import('./rtf/read-rtf')).readRtf(bytes);
    case '.pdf':
      return (await import('./pdf/read-pdf')).readPdf(bytes, progress, options.password);
    case '.epub':
      return (await import('./epub/read-epub')).readEpub(bytes, progress);
    case '.eml':
      return (await import('./mail/read-mail')).readMail(bytes);
  }
  if (ending !== '' && !(READABLE_ENDINGS as readonly string[]).includes(ending)) {
    const other = (TABLE_ENDINGS as readonly string[]).includes(ending)
      ? 'Bring it in as a table.'
      : `These can be read: ${READABLE_ENDINGS.join(', ')}.`;
    throw new UnreadableFileError(`Files ending in ${ending} cannot be read as texts. ${other}`);
  }
  refuseOtherTypes(bytes);
  const html = ending === '.html' || ending === '.htm' || ending === '.xhtml' ? await import('./html/read-html') : null;
  const { text, encoding, guesses } = decodeText(bytes, options.encoding ?? html?.encodingNamedIn(bytes));
  const decoded = { encoding, encodings: guesses };
  if (html) return { ...html.readHtml(text, true), ...decoded };
  if (ending === '.md' || ending === '.markdown') return { ...(await import('./markdown/read-markdown')).readMarkdown(text), ...decoded };
  if (ending === '.vtt' || ending === '.srt') return { ...(await import('./timed/read-timed')).readTimed(text), ...decoded };
  const { doubtful, ...plain } = readPlainText(text, options.lineEnds);
  const otherwise = doubtful ? readPlainText(text, plain.lineEnds === 'wrapped' ? 'paragraphs' : 'wrapped') : undefined;
  return { ...plain, ...decoded, ...(otherwise ? { otherwise } : {}) };
}

/** Other types behind a text ending, told by how they begin. */
function refuseOtherTypes(bytes: Uint8Array): void {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 8));
  const type = head.startsWith('PK\u0003\u0004')
    ? 'a zip archive or an office document'
    : head.startsWith('%PDF')
      ? 'a PDF'
      : head.startsWith('{\\rtf')
        ? 'rich text (.rtf)'
        : head.startsWith('\u00d0\u00cf\u0011\u00e0')
          ? 'an old office document'
          : null;
  if (type) throw new UnreadableFileError(`The name says it is a text, but this is ${type}. Give it its right ending, or save it as text.`);
}
