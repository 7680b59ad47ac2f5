import mammoth from 'mammoth';
import { ArchiveError, looksLikeZip, unpackArchive } from '../archive';
import { readHtml } from '../html/read-html';
import { UnreadableFileError, type Reading } from '../reading';

const LIMITS = { entries: 10_000, entryBytes: 200_000_000, totalBytes: 600_000_000, ratio: 200 };

/** Word's own styles for titles and quotations, beside the headings that mammoth knows. */
const STYLE_MAP = [
  "p[style-name='Title'] => h1:fresh",
  "p[style-name='Subtitle'] => h2:fresh",
  "p[style-name='Quote'] => blockquote:fresh",
  "p[style-name='Intense Quote'] => blockquote:fresh",
  'u => u',
  'strike => s',
];

/** Compound files: what Word wrote before 2007, and what it still wraps encrypted documents in. */
const isCompoundFile = (bytes: Uint8Array): boolean => bytes[0] === 0xd0 && bytes[1] === 0xcf && bytes[2] === 0x11 && bytes[3] === 0xe0;

/**
 * Reads a Word document (ECMA-376, `.docx`): words, headings, lists, bold, italics, underline. Pictures
 * are left out and said so; comments and tracked deletions are not part of the text.
 * @throws UnreadableFileError for another type behind the ending, an encrypted, empty or broken file
 */
export async function readDocx(bytes: Uint8Array): Promise<Reading> {
  if (bytes.length === 0) throw new UnreadableFileError('The file is empty.');
  if (isCompoundFile(bytes)) throw new UnreadableFileError(compoundMessage(bytes));
  if (!looksLikeZip(bytes))
    throw new UnreadableFileError(
      `The name ends in .docx, but this is not a Word document${whatItSeems(bytes)}. Save it again as .docx, or give it its right ending.`,
    );
  checkParts(bytes);
  let html: string;
  let notes: string[];
  try {
    // mammoth takes an ArrayBuffer in browsers and a Buffer in Node; each ignores the other's name
    const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    const input = typeof Buffer === 'undefined' ? { arrayBuffer: buffer } : { arrayBuffer: buffer, buffer: Buffer.from(buffer) };
    const result = await mammoth.convertToHtml(input, {
      styleMap: STYLE_MAP,
      convertImage: mammoth.images.imgElement(async () => ({ src: '' })),
    });
    html = result.value;
    notes = result.messages.filter((message) => message.type === 'error').map((message) => message.message);
  } catch (error) {
    throw new UnreadableFileError(
      `The Word file is damaged inside (${error instanceof Error ? error.message : String(error)}). Open it in a word processor, save it again and try once more.`,
    );
  }
  const reading = readHtml(html);
  if (reading.paragraphs.length === 0) throw new UnreadableFileError('The Word file holds no text.');
  return { ...reading, notes: [...reading.notes, ...notes] };
}

function checkParts(bytes: Uint8Array): void {
  try {
    const parts = unpackArchive(
      bytes,
      LIMITS,
      (name) => name === '[Content_Types].xml' || name === 'mimetype' || name === 'word/document.xml',
    );
    if (parts.has('mimetype'))
      throw new UnreadableFileError('The name ends in .docx, but this is an OpenDocument or EPUB file. Save it as .docx.');
    if (!parts.has('[Content_Types].xml') || !parts.has('word/document.xml'))
      throw new UnreadableFileError('The name ends in .docx, but the archive holds no Word document.');
  } catch (error) {
    if (error instanceof ArchiveError)
      throw new UnreadableFileError(`The Word file cannot be unpacked. ${error.message} If it was sent or copied, fetch it again.`);
    throw error;
  }
}

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
