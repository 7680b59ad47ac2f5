/** A stretch of a memo's words with one look. */
export interface InlinePart {
  readonly text: string;
  readonly look: 'plain' | 'strong' | 'emphasis';
}

/** `**` where something strong may begin, or `*emphasis*`: not around spaces, not across line ends. */
const MARKED = /\*\*(?=\S)|(?<![*\w])\*(?=[^\s*])([^*\n]*[^\s*])\*(?![*\w])/g;

/** Reads the two marks of Markdown that memos are commonly written with; everything else stays as it is written. */
export function inlineParts(text: string): InlinePart[] {
  const parts: InlinePart[] = [];
  const marked = new RegExp(MARKED);
  const strong = new StrongEnds(text);
  let at = 0;
  for (let match = marked.exec(text); match; match = marked.exec(text)) {
    const emphasis = match[1];
    const end = emphasis === undefined ? strong.after(match.index) : match.index + match[0].length;
    if (end < 0) continue;
    if (match.index > at) parts.push({ text: text.slice(at, match.index), look: 'plain' });
    parts.push(
      emphasis === undefined ? { text: text.slice(match.index + 2, end - 2), look: 'strong' } : { text: emphasis, look: 'emphasis' },
    );
    marked.lastIndex = at = end;
  }
  if (at < text.length) parts.push({ text: text.slice(at), look: 'plain' });
  return parts;
}

/** Finds where strong words end; a line in which there is no end is looked through once. */
class StrongEnds {
  private line = -1;
  private none = false;

  constructor(private readonly text: string) {}

  /** The end of what begins at `**`, its marks included; -1 where it does not end in its line. */
  after(begin: number): number {
    if (begin >= this.line) {
      const next = this.text.indexOf('\n', begin);
      [this.line, this.none] = [next < 0 ? this.text.length : next, false];
    }
    if (this.none) return -1;
    for (let at = this.text.indexOf('**', begin + 3); at >= 0 && at < this.line; at = this.text.indexOf('**', at + 1))
      if (/\S/.test(this.text[at - 1]!)) return at + 2;
    this.none = true;
    return -1;
  }
}
