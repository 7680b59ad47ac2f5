import { Text as Lines } from '@codemirror/state';
import type { Text } from '@core/model/document';

const known = new WeakMap<Text, Lines>();

/** A text as the editor holds it. Remembered with the text: dividing a long one into lines takes a good part of opening it. */
export function linesOf(text: Text): Lines {
  let lines = known.get(text);
  if (!lines) known.set(text, (lines = Lines.of(text.text.split('\n'))));
  return lines;
}
