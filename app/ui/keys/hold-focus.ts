/** How long after it was chosen an entry of a menu may give the focus back to the menu's button, milliseconds. */
const CLOSING = 700;

/**
 * Gives a field the focus and keeps it there: a menu that led to the field takes it once more for its entries while it
 * closes, and gives it back to its button; what is typed meanwhile would be lost, or taken for commands.
 */
export function holdFocus(focus: () => void): void {
  focus();
  const again = (event: FocusEvent): void => {
    if ((event.target as HTMLElement).closest?.('.mat-mdc-menu-trigger, .mat-mdc-menu-panel')) focus();
  };
  const end = (): void => {
    document.removeEventListener('focusin', again);
    document.removeEventListener('pointerdown', end);
  };
  document.addEventListener('focusin', again);
  // who points elsewhere wants to be there
  document.addEventListener('pointerdown', end);
  setTimeout(end, CLOSING);
}
