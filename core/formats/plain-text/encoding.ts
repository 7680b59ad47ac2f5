import { UnreadableFileError } from '../reading';

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
  'windows-1255',
  'windows-1256',
  'shift_jis',
  'euc-jp',
  'gb18030',
  'big5',
  'euc-kr',
  'macintosh',
] as const;

/**
 * Turns the bytes of a text file into text. Without a named encoding it takes the byte order mark's, else
 * UTF-8; UTF-16 without a mark is told by its zero bytes. It never guesses among the old 8-bit encodings,
 * since a wrong guess would silently change words: it asks instead.
 * @throws UnreadableFileError where the bytes do not fit, with the encodings to choose from
 */
export function decodeText(bytes: Uint8Array, encoding?: string): { text: string; encoding: string } {
  const chosen = encoding ?? detect(bytes);
  try {
    return { text: new TextDecoder(chosen, { fatal: true }).decode(bytes), encoding: chosen };
  } catch (error) {
    if (error instanceof RangeError) throw new UnreadableFileError(`The encoding “${chosen}” is not known.`, ENCODINGS);
    throw new UnreadableFileError(
      encoding
        ? `The file is not written in ${chosen}. Choose another encoding.`
        : 'The file is not written in Unicode. Choose the encoding it was saved with, and check the preview.',
      ENCODINGS,
    );
  }
}

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
