/**
 * Puts what opened at a word below it, over everything, so that no scrolling part of the place cuts it off: as far to the
 * left as it needs to be seen whole, and above the word where there is more room. The word and what opens at it stand in
 * one element of the class `anchor`; what opens is `position: fixed` in its style, so that it moves nothing when it comes.
 */
export function floatBelow(element: HTMLElement): void {
  const anchor = (element.closest('.anchor') ?? element.parentElement!).getBoundingClientRect();
  const { clientWidth, clientHeight } = document.documentElement;
  const { width, height } = element.getBoundingClientRect();
  element.style.left = `${Math.max(8, Math.min(anchor.left, clientWidth - 8 - width))}px`;
  const below = anchor.bottom + 2;
  element.style.top = `${below + height > clientHeight - 8 ? Math.max(8, anchor.top - 2 - height) : below}px`;
}
