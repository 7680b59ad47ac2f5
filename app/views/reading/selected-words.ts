import { DestroyRef, inject } from '@angular/core';
import { selectedWithin } from './selected-within';

const HIGHLIGHT = 'words-to-code';

/**
 * The words selected in one of several texts, also after the hand has gone on to the field for their codes: the browser
 * forgets a selection then. They stay marked until they are coded or others are selected. To be made where effects may be.
 */
export class SelectedWords {
  private kept: { readonly element: Element; readonly words: { readonly start: number; readonly end: number } } | null = null;

  /** @param textAt the text that holds a node, or null */
  constructor(textAt: (node: Node) => Element | null) {
    const look = (): void => {
      const { anchorNode } = getSelection() ?? {};
      const element = anchorNode && textAt(anchorNode);
      // elsewhere means in a field: what was selected is still meant
      if (!element) return;
      const words = selectedWithin(element);
      this.kept = words && { element, words };
      this.show();
    };
    // the browser tells of a selection a moment later: fast hands may have gone on to the field by then
    const signs = ['selectionchange', 'keydown', 'pointerdown'] as const;
    for (const sign of signs) document.addEventListener(sign, look, { capture: true });
    inject(DestroyRef).onDestroy(() => {
      for (const sign of signs) document.removeEventListener(sign, look, { capture: true });
      this.forget();
    });
  }

  /** What is selected in a text, as characters of it. */
  in(element: Element): { readonly start: number; readonly end: number } | null {
    return this.kept?.element === element ? this.kept.words : null;
  }

  forget(): void {
    this.kept = null;
    this.show();
  }

  private show(): void {
    const node = this.kept?.element.firstChild;
    if (!this.kept || !(node instanceof Text) || node.length < this.kept.words.end) return void CSS.highlights?.delete(HIGHLIGHT);
    const range = new StaticRange({
      startContainer: node,
      startOffset: this.kept.words.start,
      endContainer: node,
      endOffset: this.kept.words.end,
    });
    CSS.highlights?.set(HIGHLIGHT, new Highlight(range));
  }
}
