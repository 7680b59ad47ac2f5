import type { Page } from '@playwright/test';

/** A sample counts when the fixed work before and after it took at most this many times its quickest. */
const CALM = 1.3;
/** How many more samples than wanted are taken before giving up on a calm machine. */
const PATIENCE = 4;

/** What a busy machine means, for whoever reads the figures. */
export const BUSY = `A sample counts as taken on a busy machine when a fixed piece of work right before or after it took more than ${CALM} times its
quickest: something else was using the processors. Such samples are set aside, and how many is said; where fewer than half as many
calm ones as wanted were had, all are kept, and the figures say more about the machine than about Filum.`;

/**
 * Tells samples taken while the machine was busy with something else from those that say something about Filum. The
 * same small piece of work is done in the page before and after each sample; where it took longer than it can, the
 * sample is set aside, whatever it measured. How many were is said.
 */
export class Gauge {
  private constructor(
    private readonly page: Page,
    private readonly quickest: number,
  ) {}

  static async of(page: Page): Promise<Gauge> {
    const times: number[] = [];
    for (let run = 0; run < 60; run++) times.push(await work(page));
    return new Gauge(page, Math.min(...times));
  }

  /** Takes samples until enough were calm. @returns the calm ones, or all where the machine was never calm for long */
  async samples(what: string, wanted: number, take: (run: number) => Promise<number>): Promise<number[]> {
    const all: number[] = [];
    const calm: number[] = [];
    for (let run = 0; run < wanted * PATIENCE && calm.length < wanted; run++) {
      const before = await work(this.page);
      const took = await take(run);
      const after = await work(this.page);
      all.push(took);
      if (Math.max(before, after) <= CALM * this.quickest) calm.push(took);
    }
    const enough = calm.length >= wanted / 2;
    const aside = all.length - calm.length;
    if (aside > 0)
      console.log(
        `  ${what}: ${aside} of ${all.length} samples taken on a busy machine${enough ? ' set aside' : ', all kept: too few were calm'}`,
      );
    return enough ? calm : all;
  }
}

/** Milliseconds that a fixed piece of work takes in the page. */
const work = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const begun = performance.now();
    let sum = 0;
    for (let at = 0; at < 3_000_000; at++) sum = (Math.imul(sum, 31) + at) | 0;
    return performance.now() - begun + (sum === 0.5 ? 1 : 0);
  });
