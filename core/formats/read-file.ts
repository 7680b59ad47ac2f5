import { tidyLine } from '../text/normalise';
import { findSpeakers, type SpeakerCandidate } from '../text/speakers';
import { readDocx } from './docx/read-docx';
import { readMarkdown } from './markdown/read-markdown';
import { decodeText } from './plain-text/encoding';
import { readPlainText, type LineEnds } from './plain-text/read-plain-text';
import { READABLE_ENDINGS } from './readable-endings';
import { UnreadableFileError, type Reading } from './reading';
import { sha256 } from './sha256';

/** How a file is to be read, where the guess is not right. Everything may be left out. */
export interface ReadOptions {
  readonly encoding?: string;
  readonly lineEnds?: LineEnds;
}

/** A file as the preview shows it. */
export interface ReadFile extends Reading {
  readonly title: string;
  readonly sha256: string;
  readonly speakers: readonly SpeakerCandidate[];
  /** The encoding used, for text files. */
  readonly encoding: string | null;
  /** How line ends were understood, for plain text. */
  readonly lineEnds: LineEnds | null;
}

/** A file of more than this many bytes is refused. */
const LARGEST = 100_000_000;

/**
 * Reads a file by its ending.
 * @throws UnreadableFileError saying what is wrong and what to do
 */
export async function readFile(name: string, bytes: Uint8Array, options: ReadOptions = {}): Promise<ReadFile> {
  if (bytes.length === 0) throw new UnreadableFileError('The file is empty.');
  if (bytes.length > LARGEST) throw new UnreadableFileError('The file is larger than 100 MB. Split it and bring in the parts.');
  const ending = /\.[^.]+$/.exec(name.toLowerCase())?.[0] ?? '';
  const read = await readByEnding(ending, bytes, options);
  if (read.paragraphs.length === 0) throw new UnreadableFileError('The file holds no text.');
  const fromName = tidyLine(name.replace(/\.[^.]+$/, '').replace(/_/g, ' ')) || 'Untitled';
  return {
    encoding: null,
    lineEnds: null,
    ...read,
    title: read.title ?? fromName,
    sha256: await sha256(bytes),
    speakers: findSpeakers(read.paragraphs),
  };
}

async function readByEnding(
  ending: string,
  bytes: Uint8Array,
  options: ReadOptions,
): Promise<Reading & { encoding?: string; lineEnds?: LineEnds }> {
  if (ending === '.docx') return readDocx(bytes);
  if (ending !== '.txt' && ending !== '.md' && ending !== '.markdown' && ending !== '') {
    throw new UnreadableFileError(`Files ending in ${ending} cannot be read yet. These can: ${READABLE_ENDINGS.join(', ')}.`);
  }
  refuseOtherTypes(bytes);
  const { text, encoding } = decodeText(bytes, options.encoding);
  if (ending === '.md' || ending === '.markdown') return { ...readMarkdown(text), encoding };
  return { ...readPlainText(text, options.lineEnds), encoding };
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
