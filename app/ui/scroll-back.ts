/** As long as what is shown is waited for: texts may have to be read first, milliseconds. */
const PATIENCE = 3_000;

/**
 * Scrolls to where the reader was before, once so much is drawn.
 * @param top how far, px
 */
export function scrollBack(view: HTMLElement, top: number): void {
  if (top <= 0) return;
  const until = performance.now() + PATIENCE;
  const scroll = (): void => {
    if (!view.isConnected || performance.now() > until) return;
    if (view.scrollHeight - view.clientHeight >= top) view.scrollTop = top;
    else requestAnimationFrame(scroll);
  };
  requestAnimationFrame(scroll);
}
