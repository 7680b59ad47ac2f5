const segmenter = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/** Characters around a position that are enough to see the whole of the grapheme it falls in. */
const WINDOW = 64;

/**
 * Moves a position that falls inside a grapheme (a letter with its marks, an emoji of several parts, a
 * surrogate pair) to the edge of it, so that no passage cuts what a reader sees as one character.
 * @param towards which edge to take: `-1` the one before, `1` the one after
 */
export function toGraphemeEdge(text: string, position: number, towards: -1 | 1): number {
  if (position <= 0) return 0;
  if (position >= text.length) return text.length;
  const from = windowStart(text, Math.max(0, position - WINDOW));
  const window = text.slice(from, position + WINDOW);
  const grapheme = segmenter.segment(window).containing(position - from);
  if (!grapheme) return position;
  const start = from + grapheme.index;
  if (start === position) return position;
  return towards < 0 ? start : start + grapheme.segment.length;
}

/** A window that began inside a surrogate pair would misread its first character. */
function windowStart(text: string, from: number): number {
  const unit = text.charCodeAt(from);
  return from > 0 && unit >= 0xdc00 && unit <= 0xdfff ? from - 1 : from;
}
