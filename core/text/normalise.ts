/** Most cells and lines need nothing, and finding that out is quick. */
const PLAIN = /^[\u0020-\u007e]*$/;

/**
 * Brings text from outside into the one form positions refer to: no byte order mark, at its head or within, `\n` line ends
 * (also for the Unicode line and paragraph separators and form feeds), no other control characters but tabs,
 * lone surrogates replaced, Unicode composed (NFC) so that searching finds what looks the same.
 */
export function normaliseText(raw: string): string {
  if (PLAIN.test(raw)) return raw;
  return (
    raw
      .replace(/\uFEFF/g, '')
      .replace(/\r\n?|[\u2028\u2029\u0085\f\v]/g, '\n')
      // eslint-disable-next-line no-control-regex -- removing them is the point
      .replace(/[\u0000-\u0008\u000e-\u001f\u007f]/g, '')
      .toWellFormed()
      .normalize('NFC')
  );
}

/** One line for a name or a title: white space folded, control characters out, at most 500 characters. */
export function tidyLine(raw: string): string {
  return foldSpace(normaliseText(raw)).slice(0, 500).toWellFormed();
}

/** Words of a list, tags for instance, each a tidy line; empty ones and repetitions are left out. */
export const tidyWords = (raw: readonly string[]): string[] => [...new Set(raw.map(tidyLine).filter(Boolean))];

/** White space folded to single blanks, none at the ends. */
export const foldSpace = (text: string): string => (/\s\s|[^\S ]/.test(text) ? text.replace(/\s+/g, ' ') : text).trim();
