import { UnreadableFileError } from '../reading';
import { characterMaps, readPdf } from './read-pdf';

/** A PDF of one page, written by hand: objects, and where each begins. */
function pdf(objects: readonly string[]): Uint8Array {
  let file = '%PDF-1.5\n';
  const starts = objects.map((object, at) => {
    const start = file.length;
    file += `${at + 1} 0 obj\n${object}\nendobj\n`;
    return start;
  });
  const table = file.length;
  file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
  for (const start of starts) file += `${String(start).padStart(10, '0')} 00000 n \n`;
  file += `trailer << /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`;
  return new TextEncoder().encode(file);
}

const page = (font: readonly string[], content: string): Uint8Array =>
  pdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Resources << /Font << /F1 5 0 R >> >> /Contents 4 0 R >>',
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    ...font,
  ]);

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

  it('says what is wrong with a file that is none, is damaged, or has only pictures of pages', async () => {
    await expectAsync(readPdf(new TextEncoder().encode('Dear all'))).toBeRejectedWithError(UnreadableFileError, /not a PDF/);
    await expectAsync(readPdf(new TextEncoder().encode('%PDF-1.5\nnothing'))).toBeRejectedWithError(UnreadableFileError, /damaged/);
    await expectAsync(readPdf(page(CHINESE, 'q Q'))).toBeRejectedWithError(UnreadableFileError, /text recognition/);
  });
});
