import type { EmphasisSpan } from '../../model/document';
import type { PdfLine } from './assemble-pages';

/** Pieces of a line that are further apart than this many times their size are told apart: columns may divide there. */
export const PIECES_APART = 0.8;
/** …and further apart than this they are cells of a table. */
const CELLS_APART = 2.5;
/** Lines that must stand on both sides of a gutter. */
const LEAST_LINES = 5;
/** Share of the width of a page that each column has at least. */
const LEAST_WIDTH = 0.22;
/** Share of its column that a line of prose fills in the middle; cells of a table are shorter. */
const PROSE_FILLS = 0.6;
/** Share of the pieces that may run across a gutter: titles, abstracts, tables. */
const MOST_ACROSS = 0.4;

/**
 * Puts the pieces of a page into lines, in the order in which they are read. A page with columns is read column by
 * column between the lines that run across, whatever order it was written in; all others as they were written.
 * @param pieces stretches of words without wide gaps, in the order of the file
 */
export function linesInReadingOrder(pieces: readonly PdfLine[]): PdfLine[] {
  const gutter = findGutter(pieces);
  if (gutter === null) return joinNeighbours(pieces);
  const across = pieces.filter((piece) => piece.left < gutter - 2 && piece.right > gutter + 2);
  const besides = (piece: PdfLine): boolean => across.some((one) => onOneLine(one, piece));
  const spanning = pieces.filter((piece) => across.includes(piece) || besides(piece));
  const rest = pieces.filter((piece) => !spanning.includes(piece));
  const left = topDown(rest.filter((piece) => piece.right <= gutter + 2));
  const right = topDown(rest.filter((piece) => piece.right > gutter + 2));
  const lines: PdfLine[] = [];
  let from = -Infinity;
  for (const line of [...joinNeighbours(topDown(spanning)), null]) {
    const until = line ? line.fromTop : Infinity;
    for (const column of [left, right])
      lines.push(...withEdge(linesInReadingOrder(column.filter((piece) => piece.fromTop > from && piece.fromTop <= until))));
    if (line) lines.push(line);
    from = until;
  }
  return lines;
}

/** Where the white strip between two columns of prose runs, in points from the left; null where there are no columns. */
function findGutter(pieces: readonly PdfLine[]): number | null {
  const left = Math.min(...pieces.map((piece) => piece.left));
  const right = Math.max(...pieces.map((piece) => piece.right));
  const width = right - left;
  let best: { readonly at: number; readonly across: number } | null = null;
  // a gutter begins where lines end or before others begin: only there it has to be looked for
  const candidates = new Set(pieces.flatMap((piece) => [Math.round(piece.left) - 3, Math.round(piece.right) + 3]));
  for (const at of candidates) {
    if (at - left < width * LEAST_WIDTH || right - at < width * LEAST_WIDTH) continue;
    const across = pieces.filter((piece) => piece.left < at - 2 && piece.right > at + 2).length;
    if (across > pieces.length * MOST_ACROSS || (best && best.across <= across)) continue;
    if (divides(pieces, at)) best = { at, across };
  }
  return best?.at ?? null;
}

/** Whether prose stands on both sides, side by side. */
function divides(pieces: readonly PdfLine[], at: number): boolean {
  const sides = [pieces.filter((piece) => piece.right <= at + 2), pieces.filter((piece) => piece.left >= at - 2)];
  const [first, second] = sides.map((side) => {
    if (side.length < LEAST_LINES) return null;
    const edges = { left: Math.min(...side.map((piece) => piece.left)), right: Math.max(...side.map((piece) => piece.right)) };
    const lines = joinNeighbours(topDown(side)).map((line) => line.right - line.left);
    const filled = lines.sort((a, b) => a - b)[Math.floor(lines.length / 2)]! / (edges.right - edges.left);
    const tops = side.map((piece) => piece.fromTop);
    return filled >= PROSE_FILLS ? { top: Math.min(...tops), foot: Math.max(...tops), size: side[0]!.size } : null;
  });
  if (!first || !second) return false;
  const shared = Math.min(first.foot, second.foot) - Math.max(first.top, second.top);
  return shared >= Math.min(LEAST_LINES, 3) * first.size;
}

/** Pieces from the top down; those that were written so stay as they are. */
function topDown(pieces: readonly PdfLine[]): readonly PdfLine[] {
  const climbs = pieces.some((piece, at) => at > 0 && piece.fromTop < pieces[at - 1]!.fromTop - piece.size * 0.5);
  return climbs ? [...pieces].sort((a, b) => (onOneLine(a, b) ? a.left - b.left : a.fromTop - b.fromTop)) : pieces;
}

const onOneLine = (a: PdfLine, b: PdfLine): boolean => Math.abs(a.fromTop - b.fromTop) < Math.max(a.size, b.size, 4) * 0.45;

/** Pieces that follow each other on one line become that line; a wide gap between them is a tab. */
function joinNeighbours(pieces: readonly PdfLine[]): PdfLine[] {
  const lines: PdfLine[] = [];
  for (const piece of pieces) {
    const last = lines.at(-1);
    if (!last || !onOneLine(last, piece) || piece.left < last.left - 1) {
      lines.push(piece);
      continue;
    }
    const gap = piece.left - last.right;
    const blank = gap > last.size * CELLS_APART ? '\t' : gap > last.size * 0.15 && !/\s$/.test(last.text) ? ' ' : '';
    const start = last.text.length + blank.length;
    const emphasis = (piece.emphasis ?? []).map((span): EmphasisSpan => ({ ...span, start: span.start + start, end: span.end + start }));
    lines[lines.length - 1] = {
      ...last,
      text: last.text + blank + piece.text,
      right: Math.max(last.right, piece.right),
      size: Math.max(last.size, piece.size),
      emphasis: [...(last.emphasis ?? []), ...emphasis],
    };
  }
  return lines;
}

/** Lines of a column know where it ends: a line that ends early ends a paragraph. */
function withEdge(lines: readonly PdfLine[]): PdfLine[] {
  const edge = Math.max(...lines.map((line) => line.right));
  return lines.map((line) => ({ ...line, edge: line.edge ?? edge }));
}
