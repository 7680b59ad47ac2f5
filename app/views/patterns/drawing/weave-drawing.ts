import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { nameOf } from '@core/patterns/axis';
import type { Piece, Thread, Weave } from '@core/patterns/weave';
import { shortened } from '@core/text/shortened';
import { Drawing } from './draw';

/** A document as threads, as it is shown. */
export interface DrawnWeave {
  readonly weave: Weave;
  readonly threads: readonly Thread[];
  readonly title: string;
  readonly marks: readonly { readonly at: number; readonly name: string }[];
}

const [WIDTH, AROUND, NAMES, COUNTS] = [1_200, 14, 250, 46];
const [THREAD, SPEAKER, HEAD, MARKS] = [20, 15, 26, 18];

/** Documents as threads under each other, with what is uncoded and who speaks. */
export function weaveDrawing(weaves: readonly DrawnWeave[], codes: Readonly<Record<Id, Code>>): SVGSVGElement {
  const drawing = new Drawing(WIDTH);
  const [second, rule, strong] = ['--ink-second', '--rule', '--rule-strong'].map(drawing.token) as [string, string, string];
  const [from, wide] = [AROUND + NAMES, WIDTH - 2 * AROUND - NAMES - COUNTS];
  const small = { 'font-size': 11, fill: second };
  const pieces = (some: readonly Piece[], y: number, height: number, fill: string): void => {
    for (const one of some) drawing.rect(from + one.from * wide, y, Math.max(1, (one.to - one.from) * wide), height, fill);
  };
  let y = AROUND;
  for (const { weave, threads, title, marks } of weaves) {
    drawing.text(shortened(title, 120), AROUND, y + 14, { 'font-size': 14, 'font-weight': 600 });
    y += HEAD;
    marks.forEach((mark, at) => {
      drawing.line(from + mark.at * wide, y, from + mark.at * wide, y + MARKS, strong);
      drawing.text(String(at + 1), from + mark.at * wide + 3, y + 11, small);
    });
    if (marks.length > 0) y += MARKS;
    for (const { entry, pieces: some, passages } of threads) {
      const code = codes[entry.id ?? ''];
      if (code) drawing.swatch(code.mark, code.colour, AROUND, y + 13);
      drawing.text(shortened(nameOf(entry), 36), AROUND + (code ? 28 : 0), y + 14);
      drawing.line(from, y + 10, from + wide, y + 10, rule);
      pieces(some, y + 8, 4, drawing.ofCode(code?.colour));
      drawing.text(passages === 0 ? '–' : String(passages), WIDTH - AROUND, y + 14, { ...small, 'text-anchor': 'end' });
      y += THREAD;
    }
    drawing.text('uncoded', from - 10, y + 11, { ...small, 'text-anchor': 'end' });
    pieces(weave.open, y + 7, 1, second);
    y += THREAD;
    for (const speaker of weave.speakers) {
      drawing.text(shortened(speaker.name, 36), from - 10, y + 11, { ...small, 'text-anchor': 'end' });
      pieces(speaker.pieces, y + 3, 8, speaker.interviewer ? strong : second);
      y += SPEAKER;
    }
    y += HEAD;
  }
  return drawing.ended(y);
}
