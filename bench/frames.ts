import type { Page } from '@playwright/test';

/** Milliseconds between two frames from which the second came late: at least one was dropped. */
const LATE = 25;

/** Scrolls a list or table for a hundred frames. @param by CSS pixels a frame @returns how many frames came late */
export const framesLate = (page: Page, selector: string, by: { readonly left: number; readonly top: number }): Promise<number> =>
  page.evaluate(
    ([within, { left, top }, late]) =>
      new Promise<number>((resolve) => {
        const list = document.querySelector(within)!;
        let [frames, dropped, before] = [0, 0, performance.now()];
        const step = (now: number): void => {
          if (frames > 0 && now - before > late) dropped++;
          before = now;
          list.scrollBy(left, top);
          if (++frames > 100) resolve(dropped);
          else requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
    [selector, by, LATE] as const,
  );
