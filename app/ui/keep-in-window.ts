/** Moves what opened at a place near the right edge as far to the left as it needs to be seen whole. */
export function keepInWindow(element: HTMLElement): void {
  const { right } = element.getBoundingClientRect();
  const over = right + 8 - document.documentElement.clientWidth;
  if (over > 0) element.style.marginLeft = `${-over}px`;
}
