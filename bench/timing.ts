import type { Page } from '@playwright/test';
import { median } from './report';

/** Opens a study file in a new tab of Filum. */
export async function openFile(page: Page, base: string, path: string, title: string): Promise<void> {
  await page.goto(base);
  await page.getByLabel('Study file').setInputFiles(path);
  await page.getByRole('heading', { name: title }).waitFor({ timeout: 180_000 });
}

/** Milliseconds from the next key, or click, to the frame that shows what it did. */
export async function timed(page: Page, event: 'keydown' | 'click', act: () => Promise<void>): Promise<number> {
  await page.evaluate((name) => {
    (window as unknown as { measured: Promise<number> }).measured = new Promise<number>((resolve) =>
      document.addEventListener(name, (one) => requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - one.timeStamp))), {
        capture: true,
        once: true,
      }),
    );
  }, event);
  await act();
  return page.evaluate(() => (window as unknown as { measured: Promise<number> }).measured);
}

/** Median time of some runs, in milliseconds. */
export function time(runs: number, action: () => unknown): number {
  const times: number[] = [];
  for (let run = 0; run < runs; run++) {
    const begun = performance.now();
    action();
    times.push(performance.now() - begun);
  }
  return median(times);
}
