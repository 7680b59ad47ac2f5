import { UnreadableFileError } from '../reading';
import { guessEncoding, type EncodingSample } from './guess-encoding';

/** Encodings on offer, with the names of the WHATWG Encoding Standard. */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'iso-8859-2',
  'windows-1250',
  'windows-1251',
  'koi8-r',
  'windows-1253',
  'windows-1254',
  'windows-1255',
  'windows-1256',
  'windows-1257',
  'shift_jis',
  'euc-jp',
  'gb18030',
  'big5',
  'euc-kr',
  'macintosh',
] as const;

/** A text, and what it was read as. */
export interface DecodedText {
  readonly text: string;
  readonly encoding: string;
  /** Where the encoding is a guess among the old ones: what it may be, with words in which it shows, the one taken first. */
  readonly guesses: readonly EncodingSample[];
}

/**
 * Turns the bytes of a text file into text. Without a named encoding it takes the byte order mark's, else UTF-8; UTF-16
 * without a mark is told by its zero bytes. Among the old encodings it guesses where one clearly fits, and says so, since a
 * wrong guess changes words; else it asks.
 * @throws UnreadableFileError where the bytes do not fit, with the encodings to choose from
 */
export function decodeText(bytes: Uint8Array, encoding?: string): DecodedText {
  const chosen = encoding ?? detect(bytes);
  try {
    return { text: decoded(bytes, chosen), encoding: chosen, guesses: [] };
  } catch (error) {
    if (error instanceof RangeError) throw new UnreadableFileError(`The encoding “${chosen}” is not known.`, ENCODINGS);
  }
  const { samples, clear } = guessEncoding(bytes, ENCODINGS);
  if (encoding)
    throw new UnreadableFileError(`The file is not written in ${chosen}. Choose another encoding.`, ENCODINGS, { encodings: samples });
  if (clear) return { text: decoded(bytes, samples[0]!.encoding), encoding: samples[0]!.encoding, guesses: samples };
  throw new UnreadableFileError(
    'The file is not written in Unicode. Choose the encoding it was saved with, and check the preview.',
    ENCODINGS,
    { encodings: samples },
  );
}

const decoded = (bytes: Uint8Array, encoding: string): string => new TextDecoder(encoding, { fatal: true }).decode(bytes);

function detect(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const head = bytes.subarray(0, 4096);
  let evenZeros = 0;
  let oddZeros = 0;
  head.forEach((byte, at) => {
    if (byte === 0) {
      if (at % 2) oddZeros++;
      else evenZeros++;
    }
  });
  if (oddZeros > head.length / 4 && evenZeros < head.length / 20) return 'utf-16le';
  if (evenZeros > head.length / 4 && oddZeros < head.length / 20) return 'utf-16be';
  return 'utf-8';
}
