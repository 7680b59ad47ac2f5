/** A stretch of a memo's words with one look. */
export interface InlinePart {
  readonly text: string;
  readonly look: 'plain' | 'strong' | 'emphasis';
}

/** `**strong**` and `*emphasis*`, not around spaces, not across line ends. */
const MARKED = /\*\*(?=\S)([^\n]*?\S)\*\*|(?<![*\w])\*(?=[^\s*])([^*\n]*[^\s*])\*(?![*\w])/g;

/** Reads the two marks of Markdown that memos are commonly written with; everything else stays as it is written. */
export function inlineParts(text: string): InlinePart[] {
  const parts: InlinePart[] = [];
  let at = 0;
  for (const match of text.matchAll(MARKED)) {
    if (match.index > at) parts.push({ text: text.slice(at, match.index), look: 'plain' });
    parts.push(match[1] !== undefined ? { text: match[1], look: 'strong' } : { text: match[2]!, look: 'emphasis' });
    at = match.index + match[0].length;
  }
  if (at < text.length) parts.push({ text: text.slice(at), look: 'plain' });
  return parts;
}
