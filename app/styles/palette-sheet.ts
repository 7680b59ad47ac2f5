import { codeColour, cssColour } from '@core/model/palette';
import { PALETTE_SIZE } from '@core/model/code';

/** Lanes that threads are drawn in; what lies deeper is drawn in the last one. */
export const LANES = 8;

/**
 * The code palette as CSS: `--code-N` for every entry in both themes, and for the threads under words a class for
 * each lane and entry (`t2-c17`), so that no style needs to stand in an attribute.
 */
export function paletteCss(): string {
  const entries = Array.from({ length: PALETTE_SIZE }, (_, entry) => entry);
  const variables = (theme: 'light' | 'dark'): string =>
    entries.map((entry) => `--code-${entry}:${cssColour(codeColour(entry, theme))}`).join(';');
  const lanes = Array.from({ length: LANES }, (_, lane) => lane);
  const classes = lanes.flatMap((lane) => entries.map((entry) => `.t${lane}-c${entry}{--t${lane}:var(--code-${entry})}`));
  return `:root{${variables('light')}}:root[data-theme=dark]{${variables('dark')}}${classes.join('')}${entries.map((entry) => `.c${entry}{--c:var(--code-${entry});--c-ink:color-mix(in oklab,var(--code-${entry}) 70%,var(--ink))}`).join('')}`;
}

/** Puts the palette into a document, as a constructed sheet that the content policy allows. */
export function installPalette(document: Document): void {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(paletteCss());
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
}
