import diff from 'fast-diff';
import type { TextEdit } from './edit';

/** Hunks longer than this are taken as replaced whole: comparing them letter by letter would take too long. */
const FINE = 20_000;

/**
 * Edits that make one text of another, leaving alone what both have: first line by line, then, where lines
 * differ, letter by letter (Myers' difference algorithm).
 */
export function diffEdits(before: string, after: string): TextEdit[] {
  const lines = new Map<string, string>();
  const encode = (text: string): string[] =>
    text.split(/(?<=\n)/).map((line) => {
      let sign = lines.get(line);
      // one character for each distinct line, from the private planes upwards
      if (sign === undefined) lines.set(line, (sign = String.fromCodePoint(0xf0000 + lines.size)));
      return sign;
    });
  const [a, b] = [encode(before), encode(after)];
  if (lines.size > 0x1fffe) return [{ from: 0, to: before.length, insert: after }];
  const known = new Map([...lines].map(([line, sign]) => [sign, line]));
  const decode = (signs: string): string => [...signs].map((sign) => known.get(sign)!).join('');
  const edits: TextEdit[] = [];
  let at = 0;
  let gone = '';
  let come = '';
  const flush = (): void => {
    if (gone || come) edits.push(...fineEdits(gone, come, at - gone.length));
    gone = come = '';
  };
  for (const [kind, signs] of diff(a.join(''), b.join(''))) {
    const text = decode(signs);
    if (kind === diff.EQUAL) flush();
    if (kind === diff.DELETE) gone += text;
    if (kind === diff.INSERT) come += text;
    if (kind !== diff.INSERT) at += text.length;
  }
  flush();
  return edits;
}

function fineEdits(gone: string, come: string, from: number): TextEdit[] {
  if (!gone || !come || gone.length + come.length > FINE) return [{ from, to: from + gone.length, insert: come }];
  const edits: { from: number; to: number; insert: string }[] = [];
  let at = from;
  for (const [kind, text] of diff(gone, come)) {
    const last = edits.at(-1);
    if (kind === diff.EQUAL) at += text.length;
    else if (kind === diff.DELETE) {
      if (last?.to === at) last.to += text.length;
      else edits.push({ from: at, to: at + text.length, insert: '' });
      at += text.length;
    } else if (last?.to === at) last.insert += text;
    else edits.push({ from: at, to: at, insert: text });
  }
  return edits;
}
