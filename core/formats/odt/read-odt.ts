import type { EmphasisSpan, Paragraph } from '../../model/document';
import { normaliseText, tidyLine } from '../../text/normalise';
import { ParagraphCollector } from '../paragraph-collector';
import { UnreadableFileError, type Reading } from '../reading';
import { walkXml } from '../xml/walk-xml';
import { unpackOffice } from '../xml/unpack-office';

/** What a style of the document says that carries meaning. */
interface Look {
  readonly parent: string | undefined;
  readonly emphasis: Set<EmphasisSpan['emphasis']>;
}

/**
 * Reads an OpenDocument text (ISO/IEC 26300, `.odt`): words, headings, lists, quotations, bold, italics,
 * underline, strike. Footnotes follow the paragraph they stand in; comments and tracked deletions are left out.
 * @throws UnreadableFileError
 */
export function readOdt(bytes: Uint8Array): Reading {
  const parts = unpackOffice(bytes, '.odt', ['mimetype', 'content.xml', 'styles.xml', 'meta.xml', 'META-INF/manifest.xml']);
  const content = parts.get('content.xml');
  if (!content) throw new UnreadableFileError('The name ends in .odt, but the archive holds no OpenDocument text.');
  const type = new TextDecoder().decode(parts.get('mimetype') ?? new Uint8Array());
  if (type && !type.startsWith('application/vnd.oasis.opendocument.text'))
    throw new UnreadableFileError('This is an OpenDocument file, but not a text. Save it as a text document (.odt).');
  const styles = new Map<string, Look>();
  for (const name of ['styles.xml', 'content.xml']) {
    const part = parts.get(name);
    if (part) readStyles(part, styles);
  }
  const reading = readContent(content, styles);
  return { ...reading, title: titleIn(parts.get('meta.xml')) ?? reading.title };
}

function readStyles(part: Uint8Array, styles: Map<string, Look>): void {
  let current: Look | null = null;
  walkXml(
    part,
    {
      open(name, attributes) {
        if (name === 'style:style') {
          current = { parent: attributes['style:parent-style-name'], emphasis: new Set() };
          styles.set(attributes['style:name'] ?? '', current);
        } else if (name === 'style:text-properties' && current) {
          if (attributes['fo:font-weight'] === 'bold') current.emphasis.add('bold');
          if (/italic|oblique/.test(attributes['fo:font-style'] ?? '')) current.emphasis.add('italic');
          if (/^(solid|wave|dash|dotted)/.test(attributes['style:text-underline-style'] ?? '')) current.emphasis.add('underline');
          if (/^(solid|wave|dash|dotted)/.test(attributes['style:text-line-through-style'] ?? '')) current.emphasis.add('strike');
        }
      },
      close(name) {
        if (name === 'style:style') current = null;
      },
    },
    'The OpenDocument file',
  );
}

const LEFT_OUT = new Set(['text:tracked-changes', 'office:annotation', 'office:forms', 'text:table-of-content', 'draw:object', 'svg:desc']);

function readContent(content: Uint8Array, styles: ReadonlyMap<string, Look>): Reading {
  const collector = new ParagraphCollector();
  /** The emphasis of each open element. */
  const looks: ReadonlySet<EmphasisSpan['emphasis']>[] = [];
  const open: string[] = [];
  const notes: string[] = [];
  let inBody = false;
  let skipping = 0;
  let pictures = 0;
  let cellBegins = false;
  let comments = 0;
  const aside: string[] = [];
  let inNote = 0;
  let note = '';
  const styleOf = (name: string, attributes: Readonly<Record<string, string>>): Paragraph['style'] => {
    if (name === 'text:h')
      return (['heading1', 'heading2', 'heading3'] as const)[Math.min(3, Number(attributes['text:outline-level']) || 1) - 1]!;
    if (lineage(styles, attributes['text:style-name']).some((one) => /^quot/i.test(one))) return 'quotation';
    return open.includes('text:list-item') ? 'list item' : 'body';
  };
  walkXml(
    content,
    {
      open(name, attributes) {
        open.push(name);
        if (name === 'office:text') inBody = true;
        if (LEFT_OUT.has(name)) skipping++;
        if (name === 'office:annotation') comments++;
        if (name === 'text:note-body') inNote++;
        if (name === 'text:note-citation') skipping++;
        if (name === 'draw:image') pictures++;
        const own = name === 'text:span' ? emphasisOf(styles, attributes['text:style-name']) : [];
        looks.push(new Set([...(looks.at(-1) ?? []), ...own]));
        if (inNote > 0 || skipping > 0) return;
        if (name === 'table:table-row') collector.endParagraph();
        if (name === 'table:table-cell') cellBegins = !collector.isEmpty;
        if (name === 'text:p' || name === 'text:h') {
          if (!cellBegins) collector.endParagraph();
          collector.style = styleOf(name, attributes);
          if (name === 'text:p')
            looks[looks.length - 1] = new Set([...looks.at(-1)!, ...emphasisOf(styles, attributes['text:style-name'])]);
        }
        collector.emphasis = looks.at(-1)!;
        if (name === 'text:tab') collector.add('\t');
        if (name === 'text:line-break') collector.breakLine();
        if (name === 'text:s') collector.add(' ');
      },
      text(text) {
        if (!inBody || skipping > 0) return;
        if (inNote > 0) {
          note += text;
          return;
        }
        if (!open.some((name) => name === 'text:p' || name === 'text:h')) return;
        if (cellBegins && text.trim()) {
          collector.tab();
          cellBegins = false;
        }
        collector.add(normaliseText(text));
      },
      close(name) {
        open.pop();
        looks.pop();
        collector.emphasis = looks.at(-1) ?? new Set();
        if (LEFT_OUT.has(name) || name === 'text:note-citation') skipping--;
        if (name === 'text:note-body') {
          inNote--;
          if (note.trim()) aside.push(note.trim());
          note = '';
        }
        if (inNote > 0 || skipping > 0) return;
        if ((name === 'text:p' || name === 'text:h') && !open.includes('table:table-cell')) {
          collector.endParagraph();
          for (const one of aside.splice(0)) {
            collector.style = 'quotation';
            collector.add(`[note] ${normaliseText(one)}`);
            collector.endParagraph();
          }
        }
        if (name === 'table:table-row' || name === 'office:text') collector.endParagraph();
      },
    },
    'The OpenDocument file',
  );
  if (pictures > 0) notes.push(`${pictures} ${pictures === 1 ? 'picture' : 'pictures'} left out`);
  if (comments > 0) notes.push(`${comments} ${comments === 1 ? 'comment' : 'comments'} left out`);
  const first = collector.paragraphs[0];
  return { title: first?.style === 'heading1' ? tidyLine(first.text) : null, paragraphs: collector.paragraphs, notes };
}

/** A style's name and those it is based on. */
function lineage(styles: ReadonlyMap<string, Look>, name: string | undefined): string[] {
  const names: string[] = [];
  for (let at = name; at && !names.includes(at); at = styles.get(at)?.parent) names.push(at);
  return names;
}

/** Only automatic styles say what the writer emphasised; headings are bold by their nature. */
const emphasisOf = (styles: ReadonlyMap<string, Look>, name: string | undefined): EmphasisSpan['emphasis'][] =>
  lineage(styles, name)
    .filter((one) => !/^Heading|^Title|^Subtitle/.test(one))
    .flatMap((one) => [...(styles.get(one)?.emphasis ?? [])]);

function titleIn(meta: Uint8Array | undefined): string | null {
  let title = '';
  let inside = false;
  if (meta)
    walkXml(
      meta,
      {
        open: (name) => void (inside = name === 'dc:title'),
        text: (text) => void (title += inside ? text : ''),
        close: () => void (inside = false),
      },
      'The OpenDocument file',
    );
  return tidyLine(title) || null;
}
