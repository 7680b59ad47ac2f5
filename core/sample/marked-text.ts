import type { Stretch } from '../model/stretch';

/** A source of the demo study: header lines, then paragraphs with marks in angle brackets (`demo/README.md`). */
export interface MarkedSource {
  readonly header: Readonly<Record<string, string>>;
  /** Paragraphs without blank lines, marks taken out. */
  readonly paragraphs: readonly string[];
  /** Marked places in the paragraphs joined by `\n`, with the code keys of each, by start. */
  readonly marks: readonly (Stretch & { readonly keys: readonly string[] })[];
}

/** Reads a marked source. @throws SyntaxError where marks are not closed or not opened, with the paragraph */
export function readMarked(raw: string): MarkedSource {
  const [head = '', ...blocks] = raw
    .replace(/\r\n?/g, '\n')
    .trim()
    .split(/\n{2,}/);
  const header = Object.fromEntries(Array.from(head.matchAll(/^#(\w+):\s*(.*)$/gm), (match) => [match[1]!, match[2]!.trim()]));
  const paragraphs: string[] = [];
  const marks: (Stretch & { keys: string[] })[] = [];
  let start = 0;
  for (const block of blocks) {
    let text = '';
    const open: { at: number; keys: string[] }[] = [];
    for (const piece of block.replace(/\n/g, ' ').split(/(<c k="[^"]*">|<\/c>)/)) {
      const opening = /^<c k="([^"]*)">$/.exec(piece);
      if (opening) {
        open.push({ at: text.length, keys: opening[1]!.split(' ').filter(Boolean) });
      } else if (piece === '</c>') {
        const mark = open.pop();
        if (!mark) throw new SyntaxError(`A mark is closed that was not opened: ${block.slice(0, 60)}`);
        marks.push({ start: start + mark.at, end: start + text.length, keys: mark.keys });
      } else {
        text += piece;
      }
    }
    if (open.length > 0) throw new SyntaxError(`A mark is not closed: ${block.slice(0, 60)}`);
    paragraphs.push(text);
    start += text.length + 1;
  }
  marks.sort((a, b) => a.start - b.start || b.end - a.end);
  return { header, paragraphs, marks };
}
