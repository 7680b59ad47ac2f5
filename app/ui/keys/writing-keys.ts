/** Fields in which keys are writing; those of the kinds that are only switched are not. */
const FIELDS =
  'input:not([type=checkbox],[type=radio],[type=button],[type=submit],[type=file],[type=range],[type=color]), textarea, select, [contenteditable]:not([contenteditable=false])';

/**
 * Whether a key belongs to a field somebody is writing in, so that no command may take it. A text that is only read
 * (its caret is one for reading) is no such field.
 */
export function belongsToField(event: KeyboardEvent): boolean {
  if (isComposing(event)) return true;
  const { target } = event;
  const field = target instanceof HTMLElement ? target.closest(FIELDS) : null;
  return field !== null && field.getAttribute('aria-readonly') !== 'true' && !field.hasAttribute('data-reads');
}

/** Whether a key is part of putting a character together (an accent, a syllable, a Chinese word). */
export const isComposing = (event: KeyboardEvent): boolean => event.isComposing || event.keyCode === 229;

/**
 * Keeps keys of a composition from everything but the field: an Enter that ends one sends nothing off and chooses
 * nothing. The rich editors know compositions themselves and need to see them.
 */
export function guardCompositions(window: Window): void {
  window.addEventListener(
    'keydown',
    (event) => {
      if (isComposing(event) && !(event.target as HTMLElement | null)?.closest?.('.cm-editor, .ProseMirror')) event.stopPropagation();
    },
    { capture: true },
  );
}

/** Whether something lies over the place: a dialog, a menu, a list. Keys are meant for that then. */
export const isCovered = (): boolean => document.querySelector('.cdk-overlay-pane > *') !== null;
