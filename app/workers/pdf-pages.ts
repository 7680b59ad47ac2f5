import type { PDFDocumentLoadingTask, PDFDocumentProxy } from 'pdfjs-dist';
import type { PageWords } from '@core/pictures/words-on-page';

/** A page of a PDF as it looks. */
export interface SeenPage {
  /** In the page's own pixels: a hundred and fifty to the inch. */
  readonly width: number;
  readonly height: number;
  /** Drawn finer than that. */
  readonly bitmap: ImageBitmap;
  readonly words: readonly PageWords[];
}

/** Pixels of a page for a point of the PDF: 150 to the inch. */
const PIXELS = 150 / 72;
/** How much finer a page is drawn, and the most pixels it is drawn with. */
const FINER = 1.6;
const MOST = 24_000_000;

/** A surface to draw on where there is no page of the browser's own. */
class Canvases {
  create(width: number, height: number) {
    const canvas = new OffscreenCanvas(width, height);
    return { canvas, context: canvas.getContext('2d') };
  }
  reset(one: { canvas: OffscreenCanvas }, width: number, height: number): void {
    [one.canvas.width, one.canvas.height] = [width, height];
  }
  destroy(one: { canvas: OffscreenCanvas | null }): void {
    if (one.canvas) one.canvas.width = one.canvas.height = 0;
    one.canvas = null;
  }
}

/** Filters need elements of a page; without them a few old files show their colours a little otherwise. */
class NoFilters {
  addFilter(): string {
    return 'none';
  }
  addHCMFilter(): string {
    return 'none';
  }
  addAlphaFilter(): string {
    return 'none';
  }
  addLuminosityFilter(): string {
    return 'none';
  }
  addHighlightHCMFilter(): string {
    return 'none';
  }
  destroy(): void {
    // nothing was made
  }
}

/** Draws pages of PDFs, in a worker. One file is open at a time. */
export class PdfPages {
  private open: { readonly sha256: string; readonly task: PDFDocumentLoadingTask; readonly document: Promise<PDFDocumentProxy> } | null =
    null;

  /** @param maps where the character maps lie, an address */
  constructor(private readonly maps: string) {}

  /**
   * @param sha256 says which file it is: of the one that is open already nothing is read again
   * @param number of the page, from 1
   * @returns null where the file cannot be read, is locked, or has no such page
   */
  async page(sha256: string, file: Blob, number: number): Promise<SeenPage | null> {
    try {
      const document = await this.documentOf(sha256, file);
      const page = await document.getPage(number);
      const plain = page.getViewport({ scale: PIXELS });
      const [width, height] = [Math.max(1, Math.round(plain.width)), Math.max(1, Math.round(plain.height))];
      const finer = Math.min(FINER, Math.sqrt(MOST / (width * height)));
      const viewport = page.getViewport({ scale: PIXELS * finer });
      const canvas = new OffscreenCanvas(Math.max(1, Math.round(viewport.width)), Math.max(1, Math.round(viewport.height)));
      const context = canvas.getContext('2d')!;
      context.fillStyle = '#fff';
      context.fillRect(0, 0, canvas.width, canvas.height);
      await page.render({ canvas: null, canvasContext: context as unknown as CanvasRenderingContext2D, viewport }).promise;
      const content = await page.getTextContent();
      const words = content.items.flatMap((item) => {
        if (!('str' in item) || !item.str.trim()) return [];
        const [a, b, c, d, e, f] = item.transform as [number, number, number, number, number, number];
        const [ta, tb, tc, td, te, tf] = plain.transform as [number, number, number, number, number, number];
        const [x, y] = [ta * e + tc * f + te, tb * e + td * f + tf];
        const tall = Math.hypot(ta * c + tc * d, tb * c + td * d) || 10;
        // of words that do not run across the page only the place is known
        const across = Math.hypot(ta * a + tc * b, tb * a + td * b) > 0 ? item.width * PIXELS : 0;
        return [{ text: item.str, left: x, right: x + across, top: y - tall, bottom: y + tall * 0.22 }];
      });
      page.cleanup();
      return { width, height, bitmap: canvas.transferToImageBitmap(), words };
    } catch {
      return null;
    }
  }

  private documentOf(sha256: string, file: Blob): Promise<PDFDocumentProxy> {
    if (this.open?.sha256 === sha256) return this.open.document;
    void this.open?.task.destroy();
    this.open = null;
    return this.read(sha256, file);
  }

  private async read(sha256: string, file: Blob): Promise<PDFDocumentProxy> {
    const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
    // it runs in a worker already: the library's own worker code is run beside it, not in another one
    const inner: unknown = await import('pdfjs-dist/legacy/build/pdf.worker.mjs' as string);
    (globalThis as { pdfjsWorker?: unknown }).pdfjsWorker ??= inner;
    const task = pdfjs.getDocument({
      data: new Uint8Array(await file.arrayBuffer()),
      useSystemFonts: false,
      // letters are drawn from their outlines: a worker has no fonts
      disableFontFace: true,
      cMapUrl: this.maps,
      cMapPacked: true,
      useWorkerFetch: true,
      CanvasFactory: Canvases,
      FilterFactory: NoFilters,
      stopAtErrors: false,
      verbosity: 0,
    });
    this.open = { sha256, task, document: task.promise };
    return task.promise;
  }
}
