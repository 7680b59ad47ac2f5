import type { DraftParagraph } from '../../text/draft-text';
import { tidyLine } from '../../text/normalise';
import { readHtml } from '../html/read-html';
import { UnreadableFileError, type Progress, type Reading } from '../reading';
import { unpackOffice } from '../xml/unpack-office';
import { walkXml } from '../xml/walk-xml';

/**
 * Reads an EPUB book (EPUB 3.3): its chapters in reading order, with headings, lists and emphasis.
 * @param progress told before each chapter
 * @throws UnreadableFileError, also for a book whose chapters are locked
 */
export function readEpub(bytes: Uint8Array, progress?: Progress): Reading {
  const parts = unpackOffice(bytes, '.epub', (name) => /\.(x?html?|opf|xml)$/i.test(name) || name === 'mimetype');
  if (parts.has('META-INF/encryption.xml')) throw new UnreadableFileError('The book is locked by its seller, so its text cannot be read.');
  let root = '';
  const container = parts.get('META-INF/container.xml');
  if (container)
    walkXml(container, { open: (name, { 'full-path': path = '' }) => void (root ||= name === 'rootfile' ? path : '') }, 'The book');
  const contents = parts.get(root);
  if (!contents) throw new UnreadableFileError('The name ends in .epub, but the archive holds no book.');
  const { title, chapters } = readContents(contents, root.includes('/') ? root.slice(0, root.lastIndexOf('/') + 1) : '');
  const paragraphs: DraftParagraph[] = [];
  const notes: string[] = [];
  let pictures = 0;
  const once = [...new Set(chapters)];
  for (const [at, path] of once.entries()) {
    progress?.(at / once.length);
    const chapter = parts.get(path);
    if (!chapter) {
      notes.push(`the chapter “${path.slice(0, 80)}” is missing in the file`);
      continue;
    }
    const reading = readHtml(new TextDecoder().decode(chapter));
    paragraphs.push(...reading.paragraphs);
    pictures += Number(/^\d+(?= pictures? left out)/.exec(reading.notes[0] ?? '')?.[0] ?? 0);
  }
  if (once.length < chapters.length) notes.push('chapters that the book names more than once are read once');
  if (pictures > 0) notes.push(`${pictures} ${pictures === 1 ? 'picture' : 'pictures'} left out`);
  return { title, paragraphs, notes };
}

/** The title, and the chapters' paths in reading order. */
function readContents(contents: Uint8Array, folder: string): { title: string | null; chapters: string[] } {
  const paths = new Map<string, string>();
  const order: string[] = [];
  let title = '';
  let inTitle = false;
  walkXml(
    contents,
    {
      open(name, attributes) {
        const local = name.replace(/^.*:/, '');
        if (local === 'title') inTitle = title === '';
        if (local === 'item' && /html/.test(attributes['media-type'] ?? ''))
          paths.set(attributes['id'] ?? '', pathOf(folder, attributes['href'] ?? ''));
        if (local === 'itemref' && attributes['linear'] !== 'no') order.push(attributes['idref'] ?? '');
      },
      text: (text) => void (title += inTitle ? text : ''),
      close: () => void (inTitle = false),
    },
    'The book',
  );
  return { title: tidyLine(title) || null, chapters: order.map((id) => paths.get(id)).filter((path) => path !== undefined) };
}

/** A path relative to the folder of the contents, with `..` resolved inside the archive. */
function pathOf(folder: string, href: string): string {
  const steps: string[] = [];
  let plain = href.replace(/#.*$/, '');
  try {
    plain = decodeURIComponent(plain);
  } catch {
    // a name that only looks encoded is taken as it stands
  }
  for (const step of (folder + plain).split('/')) {
    if (step === '..') steps.pop();
    else if (step !== '.' && step !== '') steps.push(step);
  }
  return steps.join('/');
}
