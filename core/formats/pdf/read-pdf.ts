import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { tidyLine } from '../../text/normalise';
import type { EmphasisSpan } from '../../model/document';
import { UnreadableFileError, type Progress, type Reading } from '../reading';
import { assemblePages, type PdfLine, type PdfPage } from './assemble-pages';
import { characterMaps } from './character-maps';
import { linesInReadingOrder, PIECES_APART } from './reading-order';

/** A PDF of more pages than this is refused. */
const MOST_PAGES = 5_000;

/**
 * Reads the text of a PDF (ISO 32000) in reading order, with pages as marks. Headers, footers and page numbers
 * are left out, words divided at line ends joined, and both are said.
 * @param progress told after each page
 * @param password opens a file that is locked
 * @returns no paragraphs for scanned pages, which have no text
 * @throws UnreadableFileError for a damaged file, and for one that is locked
 */
export async function readPdf(bytes: Uint8Array, progress?: Progress, password?: string): Promise<Reading> {
  if (!new TextDecoder('latin1').decode(bytes.subarray(0, 1024)).includes('%PDF-'))
    throw new UnreadableFileError('The name ends in .pdf, but this is not a PDF. Give the file its right ending, or fetch it again.');
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  // the reader already runs in a worker: the library's own worker code is run beside it, not in another one
  const inner: unknown = await import('pdfjs-dist/legacy/build/pdf.worker.mjs' as string);
  (globalThis as { pdfjsWorker?: unknown }).pdfjsWorker ??= inner;
  const task = pdfjs.getDocument({
    // the library takes the buffer over, and the file may have to be read again
    data: bytes.slice(),
    ...(password ? { password } : {}),
    useSystemFonts: false,
    disableFontFace: true,
    ...(characterMaps.at && { cMapUrl: characterMaps.at, cMapPacked: true, useWorkerFetch: /^https?:/.test(characterMaps.at) }),
    stopAtErrors: false,
    verbosity: 0,
  });
  try {
    const document = await task.promise;
    if (document.numPages > MOST_PAGES)
      throw new UnreadableFileError(
        `The PDF has ${document.numPages.toLocaleString('en')} pages, more than the ${MOST_PAGES.toLocaleString('en')} that are read. Split it.`,
      );
    const pages: PdfPage[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      pages.push(await readPage(document, number));
      progress?.(number / document.numPages);
    }
    const reading = assemblePages(pages);
    if (reading.paragraphs.length === 0)
      return {
        title: await titleOf(document),
        paragraphs: [],
        pages: document.numPages,
        notes: ['It holds pictures of pages and no text, as a scanner makes them: its pages are read and coded as they look'],
      };
    const empty = pages.filter((page) => page.lines.length === 0).length;
    return {
      ...reading,
      pages: document.numPages,
      title: (await titleOf(document)) ?? headingOf(reading.paragraphs),
      notes: [
        ...reading.notes,
        ...(empty > 0 ? [`${empty} ${empty === 1 ? 'page holds' : 'pages hold'} no text (pictures or blank)`] : []),
      ],
    };
  } catch (error) {
    if (error instanceof UnreadableFileError) throw error;
    if (error instanceof Error && error.name === 'PasswordException')
      throw password
        ? new UnreadableFileError('This is not the password of the PDF. Give another.', [], { password: 'wrong' })
        : new UnreadableFileError('The PDF is locked with a password. Give it here, or save a copy without one.', [], {
            password: 'asked',
          });
    throw new UnreadableFileError('The PDF is damaged. Fetch it again, or print it to a new PDF.');
  } finally {
    await task.destroy().catch(() => undefined);
  }
}

interface TextItem {
  readonly str: string;
  readonly transform: readonly number[];
  readonly width: number;
  readonly height: number;
  readonly fontName: string;
}

/** Puts the words of one page into lines, in the order in which they are read. */
async function readPage(document: PDFDocumentProxy, number: number): Promise<PdfPage> {
  const page = await document.getPage(number);
  const [left = 0, bottom = 0, right = 0, top = 0] = page.view;
  const content = await page.getTextContent();
  const looks = await looksOfFonts(page);
  const pieces: { text: string; left: number; right: number; fromTop: number; size: number; emphasis: EmphasisSpan[] }[] = [];
  const spansOf = ({ fontName, str }: TextItem, start: number): EmphasisSpan[] =>
    looks(fontName).map((emphasis) => ({ start, end: start + str.length, emphasis }));
  for (const item of content.items as readonly (TextItem | { readonly type: string })[]) {
    // blanks are told by the gaps, which also tell columns and the cells of a table
    if (!('str' in item) || !item.str.trim()) continue;
    const [a = 0, b = 0, , , x = 0, y = 0] = item.transform;
    const size = item.height || Math.hypot(a, b) || 0;
    const last = pieces.at(-1);
    const gap = last ? x - last.right : Infinity;
    const goesOn =
      last &&
      Math.abs(last.fromTop - (top - y)) < Math.max(last.size, size, 4) * 0.45 &&
      x >= last.left - 1 &&
      gap <= last.size * PIECES_APART;
    if (goesOn) {
      if (gap > last.size * 0.15 && !/\s$/.test(last.text) && !/^\s/.test(item.str)) last.text += ' ';
      last.emphasis.push(...spansOf(item, last.text.length));
      last.text += item.str;
      last.right = Math.max(last.right, x + item.width);
      last.size = Math.max(last.size, size);
    } else pieces.push({ text: item.str, left: x, right: x + item.width, fromTop: top - y, size, emphasis: spansOf(item, 0) });
  }
  page.cleanup();
  return {
    number,
    width: right - left,
    height: top - bottom,
    lines: linesInReadingOrder(pieces)
      .map((line): PdfLine => ({ ...line, text: line.text.replace(/\s+$/, '') }))
      .filter((line) => line.text.trim()),
  };
}

/** What the fonts of a page look like, told by the names they were made under. */
async function looksOfFonts(page: PDFPageProxy): Promise<(fontName: string) => readonly EmphasisSpan['emphasis'][]> {
  // the names are known only once the page's drawing was read as well; without them the words are there all the same
  await page.getOperatorList().catch(() => undefined);
  const known = new Map<string, readonly EmphasisSpan['emphasis'][]>();
  return (fontName) => {
    let look = known.get(fontName);
    if (!look) {
      const font = page.commonObjs.has(fontName) ? (page.commonObjs.get(fontName) as { readonly name?: string } | null) : null;
      const name = font?.name ?? '';
      look = [
        ...(/bold|black|heavy/i.test(name) ? (['bold'] as const) : []),
        ...(/italic|oblique/i.test(name) ? (['italic'] as const) : []),
      ];
      known.set(fontName, look);
    }
    return look;
  };
}

/** The heading that the text begins with, if it does. */
const headingOf = ([first]: Reading['paragraphs']): string | null => (first?.style === 'heading1' ? tidyLine(first.text) : null);

async function titleOf(document: PDFDocumentProxy): Promise<string | null> {
  const { info } = await document.getMetadata().catch(() => ({ info: {} }));
  const title = (info as { Title?: unknown }).Title;
  // printed files often carry the name of the file they were printed from
  return typeof title === 'string' && !/\.(docx?|odt|indd|tex|pdf)$|^untitled|^microsoft word/i.test(title)
    ? tidyLine(title) || null
    : null;
}
