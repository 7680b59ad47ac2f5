import { strFromU8, strToU8, zipSync } from 'fflate';
import mammoth from 'mammoth';
import { ArchiveError, looksLikeZip, unpackArchive } from '../archive';
import { counted } from '../../text/counted';
import { UnreadableFileError, type Reading } from '../reading';
import { OFFICE_LIMITS } from '../xml/unpack-office';
import { leftOutOfWord } from './left-out';
import { wordParagraphs, type WordDocument } from './word-paragraphs';
import { readWordStyles, type WordStyles } from './word-styles';

/** Compound files: what Word wrote before 2007, and what it still wraps encrypted documents in. */
const isCompoundFile = (bytes: Uint8Array): boolean => bytes[0] === 0xd0 && bytes[1] === 0xcf && bytes[2] === 0x11 && bytes[3] === 0xe0;

/**
 * Reads a Word document (ECMA-376, `.docx`): words, headings, lists, bold, italics, underline, also where they come from
 * styles. What is not part of the text is left out and said: pictures, comments, tracked deletions, headers and footers.
 * @throws UnreadableFileError for another type behind the ending, an encrypted, empty or broken file
 */
export async function readDocx(bytes: Uint8Array): Promise<Reading> {
  if (bytes.length === 0) throw new UnreadableFileError('The file is empty.');
  if (isCompoundFile(bytes)) throw new UnreadableFileError(compoundMessage(bytes));
  if (!looksLikeZip(bytes))
    throw new UnreadableFileError(
      `The name ends in .docx, but this is not a Word document${whatItSeems(bytes)}. Save it again as .docx, or give it its right ending.`,
    );
  const { words, styles, leftOut } = onlyWords(bytes);
  let document: WordDocument | undefined;
  let notUnderstood: number;
  try {
    // mammoth takes an ArrayBuffer in browsers and a Buffer in Node; each ignores the other's name
    const input = typeof Buffer === 'undefined' ? { arrayBuffer: words } : { arrayBuffer: words, buffer: Buffer.from(words) };
    const result = await mammoth.convertToHtml(input, {
      // the document itself is what is wanted, and nothing of the HTML that would be made of it
      includeDefaultStyleMap: false,
      includeEmbeddedStyleMap: false,
      transformDocument: (read: WordDocument) => {
        document = read;
        return { ...read, children: [] };
      },
    });
    notUnderstood = result.messages.filter((message) => message.type === 'error').length;
  } catch {
    // what the library says is for programmers
    throw new UnreadableFileError('The Word file is damaged inside. Open it in a word processor, save it again and try once more.');
  }
  const reading = wordParagraphs(document!, styles);
  if (reading.paragraphs.length === 0) throw new UnreadableFileError('The Word file holds no text.');
  const left = `${counted(notUnderstood, 'part')} of the file could not be understood and ${notUnderstood === 1 ? 'is' : 'are'} left out`;
  return { ...reading, notes: [...reading.notes, ...leftOut, ...(notUnderstood > 0 ? [left] : [])] };
}

/**
 * The parts of the file that words are in, unpacked within the limits and put together without packing: the Word library
 * then unpacks nothing itself, and no entry can be larger than it says.
 */
function onlyWords(bytes: Uint8Array): { words: ArrayBuffer; styles: WordStyles; leftOut: string[] } {
  try {
    const parts = unpackArchive(bytes, OFFICE_LIMITS, (name) => name === 'mimetype' || /\.(xml|rels)$/i.test(name));
    if (parts.has('mimetype'))
      throw new UnreadableFileError('The name ends in .docx, but this is an OpenDocument or EPUB file. Save it as .docx.');
    if (!parts.has('[Content_Types].xml') || !parts.has('word/document.xml'))
      throw new UnreadableFileError('The name ends in .docx, but the archive holds no Word document.');
    const xml = strFromU8(parts.get('word/document.xml')!);
    const leftOut = leftOutOfWord(parts, xml);
    const styles = parts.get('word/styles.xml');
    const known = inWordsOfTheLibrary(xml);
    if (known !== xml) parts.set('word/document.xml', strToU8(known));
    return {
      words: zipSync(Object.fromEntries(parts), { level: 0 }).buffer as ArrayBuffer,
      styles: styles ? readWordStyles(styles) : new Map(),
      leftOut,
    };
  } catch (error) {
    if (error instanceof ArchiveError)
      throw new UnreadableFileError(`The Word file cannot be unpacked. ${error.message} If it was sent or copied, fetch it again.`);
    throw error;
  }
}

/** Elements that hold or divide words and that the library does not know, put as those that it does. */
const KNOWN_AS: readonly (readonly [name: string, element: RegExp, known: string])[] = [
  ['<w:cr', /<w:cr\s*\/>/g, '<w:br/>'],
  ['<w:ptab', /<w:ptab\b/g, '<w:tab'],
  ['w:fldSimple', /<(\/?)w:fldSimple\b/g, '<$1w:smartTag'],
];

const inWordsOfTheLibrary = (xml: string): string =>
  KNOWN_AS.reduce((text, [name, element, known]) => (text.includes(name) ? text.replace(element, known) : text), xml);

function compoundMessage(bytes: Uint8Array): string {
  const names = new TextDecoder('utf-16le').decode(bytes.subarray(0, bytes.length - (bytes.length % 2)));
  return names.includes('EncryptedPackage')
    ? 'The Word file is encrypted with a password. Open it in a word processor, remove the password and save it again.'
    : 'This is a Word file of the old format (.doc), whatever its ending says. Save it as .docx.';
}

function whatItSeems(bytes: Uint8Array): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 512));
  if (head.startsWith('%PDF')) return ' but a PDF';
  if (head.startsWith('{\\rtf')) return ' but rich text (.rtf)';
  if (/^\s*</.test(head)) return ' but HTML or XML';
  return '';
}
