import { createHash } from 'node:crypto';
import { UnreadableFileError } from '../reading';
import { characterMaps } from './character-maps';
import { readPdf } from './read-pdf';

/** A PDF of one page, written by hand: objects, and where each begins. @param trailer more of its last part */
function pdf(objects: readonly string[], trailer = ''): Uint8Array {
  let file = '%PDF-1.5\n';
  const starts = objects.map((object, at) => {
    const start = file.length;
    file += `${at + 1} 0 obj\n${object}\nendobj\n`;
    return start;
  });
  const table = file.length;
  file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
  for (const start of starts) file += `${String(start).padStart(10, '0')} 00000 n \n`;
  file += `trailer << /Size ${objects.length + 1} /Root 1 0 R ${trailer}>>\nstartxref\n${table}\n%%EOF\n`;
  return new Uint8Array(Buffer.from(file, 'latin1'));
}

const page = (font: readonly string[], content: string): Uint8Array =>
  pdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Resources << /Font << /F1 5 0 R >> >> /Contents 4 0 R >>',
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    ...font,
  ]);

/** The filling of passwords up to 32 bytes (ISO 32000-1, 7.6.3.3, Algorithm 2). */
const FILLING = Buffer.from('28bf4e5e4e758a4164004e56fffa01082e2e00b6d0683e802f0ca9fe6453697a', 'hex');
const md5 = (...parts: readonly Uint8Array[]): Buffer => createHash('md5').update(Buffer.concat(parts)).digest();
const filled = (password: string): Buffer => Buffer.concat([Buffer.from(password, 'latin1'), FILLING]).subarray(0, 32);

/** The RC4 cipher, which PDFs were locked with first. */
function rc4(key: Uint8Array, bytes: Uint8Array): Buffer {
  const state = Array.from({ length: 256 }, (_, at) => at);
  for (let at = 0, other = 0; at < 256; at++) {
    other = (other + state[at]! + key[at % key.length]!) % 256;
    [state[at], state[other]] = [state[other]!, state[at]!];
  }
  let [one, two] = [0, 0];
  return Buffer.from(
    bytes.map((byte) => {
      one = (one + 1) % 256;
      two = (two + state[one]!) % 256;
      [state[one], state[two]] = [state[two]!, state[one]!];
      return byte ^ state[(state[one]! + state[two]!) % 256]!;
    }),
  );
}

/** A PDF of one page that a password opens: 40 bits, revision 2 of the standard handler (ISO 32000-1, 7.6.3). */
function lockedPdf(content: string, password: string): Uint8Array {
  const id = Buffer.from('0123456789abcdef');
  const owner = rc4(md5(filled('owner')).subarray(0, 5), filled(password));
  const key = md5(filled(password), owner, Buffer.from([0xfc, 0xff, 0xff, 0xff]), id).subarray(0, 5);
  const user = rc4(key, FILLING);
  // each object has a key of its own, from its number
  const stream = rc4(md5(key, Buffer.from([4, 0, 0, 0, 0])).subarray(0, 10), Buffer.from(content, 'latin1'));
  return pdf(
    [
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Resources << /Font << /F1 5 0 R >> >> /Contents 4 0 R >>',
      `<< /Length ${stream.length} >>\nstream\n${stream.toString('latin1')}\nendstream`,
      '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
      `<< /Filter /Standard /V 1 /R 2 /O <${owner.toString('hex')}> /U <${user.toString('hex')}> /P -4 >>`,
    ],
    `/Encrypt 6 0 R /ID [<${id.toString('hex')}> <${id.toString('hex')}>] `,
  );
}

/** A Chinese font that is not in the file, with the character map that is named for it. */
const CHINESE = [
  '<< /Type /Font /Subtype /Type0 /BaseFont /STSong-Light /Encoding /UniGB-UCS2-H /DescendantFonts [6 0 R] >>',
  '<< /Type /Font /Subtype /CIDFontType0 /BaseFont /STSong-Light /CIDSystemInfo << /Registry (Adobe) /Ordering (GB1) /Supplement 2 >> /FontDescriptor 7 0 R >>',
  '<< /Type /FontDescriptor /FontName /STSong-Light /Flags 6 /FontBBox [-25 -254 1000 880] /ItalicAngle 0 /Ascent 880 /Descent -120 /CapHeight 880 /StemV 93 >>',
];

describe('reading a PDF', () => {
  afterEach(() => (characterMaps.at = ''));

  it('reads Chinese words by the character map that the file only names', async () => {
    characterMaps.at = 'node_modules/pdfjs-dist/cmaps/';
    const { paragraphs } = await readPdf(page(CHINESE, 'BT /F1 12 Tf 72 700 Td <6E2182396CA16709> Tj ET'));
    expect(paragraphs.map((paragraph) => paragraph.text)).toEqual(['渡船没有']);
  });

  it('asks for the password of a file that is locked, and opens it with no other', async () => {
    const locked = lockedPdf('BT /F1 12 Tf 72 700 Td (They held the boat.) Tj ET', 'ferry');
    const remedy = (password?: string) =>
      readPdf(locked, undefined, password).then(
        () => 'open',
        (error: unknown) => (error as UnreadableFileError).remedy.password,
      );
    expect([await remedy(), await remedy('boat'), await remedy('ferry')]).toEqual(['asked', 'wrong', 'open']);
    expect((await readPdf(locked, undefined, 'ferry')).paragraphs.map((one) => one.text)).toEqual(['They held the boat.']);
  });

  it('says what is wrong with a file that is none or is damaged; one of pictures of pages has pages and no text', async () => {
    await expectAsync(readPdf(new TextEncoder().encode('Dear all'))).toBeRejectedWithError(UnreadableFileError, /not a PDF/);
    await expectAsync(readPdf(new TextEncoder().encode('%PDF-1.5\nnothing'))).toBeRejectedWithError(UnreadableFileError, /damaged/);
    const scan = await readPdf(page(CHINESE, 'q Q'));
    expect([scan.paragraphs, scan.pages]).toEqual([[], 1]);
    expect(scan.notes.join()).toContain('as a scanner makes them');
  });
});
