import type { BrowserContext } from '@playwright/test';

/** What {@link watchable} adds to each page. */
export interface Watched {
  /**
   * Milliseconds from an act to the end of the frame that shows what is waited for. The page is looked at whenever it
   * changes, not by a timer, which comes late where the page is busy; and what comes in the callbacks of a frame is
   * painted by that frame, not by the next.
   */
  readonly painted: (act: () => void, there: () => boolean) => Promise<number>;
}

/** Lets the pages of a browser be watched for what they come to show. */
export function watchable(context: BrowserContext): Promise<unknown> {
  // as text: a function would carry the transpiler's own helpers, which the page does not have
  return context.addInitScript({ content: WATCHED });
}

const WATCHED = `
  // a task that comes after the present frame is painted, or, outside of one, at once
  const task = () => new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => resolve();
    port2.postMessage(null);
  });
  window.painted = async (act, there) => {
    let inFrame = false;
    let watching = true;
    const eachFrame = () => {
      if (!watching) return;
      inFrame = true;
      task().then(() => (inFrame = false));
      requestAnimationFrame(eachFrame);
    };
    requestAnimationFrame(eachFrame);
    await new Promise((resolve) => setTimeout(resolve, 50));
    const begun = performance.now();
    act();
    if (!there())
      await new Promise((resolve) => {
        const observer = new MutationObserver(() => {
          if (!there()) return;
          observer.disconnect();
          resolve();
        });
        observer.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
      });
    if (!inFrame) await new Promise((resolve) => requestAnimationFrame(resolve));
    watching = false;
    await task();
    return performance.now() - begun;
  };
`;
